"""Writes, one journey a module."""
