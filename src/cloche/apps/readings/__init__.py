"""Soil readings, daily weather and imported files."""
