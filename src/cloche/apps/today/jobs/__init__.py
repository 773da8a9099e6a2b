"""Jobs of the day, one module for each kind of work."""
