"""Forecasts of the ground and when to sow."""
