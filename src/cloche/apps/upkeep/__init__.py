"""Upkeep: what the workers see to again and again, whether all is well, and how it runs in plain words."""
