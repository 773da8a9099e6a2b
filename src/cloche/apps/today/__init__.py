"""Today: jobs, places and windows at a glance."""
