"""Settings: base for all, then demo, production (the grower’s own data) and test."""
