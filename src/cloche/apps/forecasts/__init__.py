"""Forecasts: what they rest on, how they are made, and how they are stored."""
