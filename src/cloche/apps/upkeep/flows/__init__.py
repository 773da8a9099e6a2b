"""Backups and alerts."""
