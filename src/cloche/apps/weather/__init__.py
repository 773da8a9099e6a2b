"""Weather: recorded days, and what the provider reports."""
