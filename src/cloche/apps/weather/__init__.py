"""The weather: what was written down of each day, and what the provider says."""
