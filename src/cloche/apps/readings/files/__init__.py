"""Comma-separated files: reading any grower's, writing our own."""
