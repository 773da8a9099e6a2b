"""Loggers: devices that read by themselves, and what they sent."""
