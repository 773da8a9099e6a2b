"""Template tags of all rooms."""
