"""Cloche: from a soil thermometer to a sowing date."""

__version__ = "0.1.0"
