"""Soil readings, daily weather and files."""
