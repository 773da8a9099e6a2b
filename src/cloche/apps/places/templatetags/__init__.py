"""Template tags of this room."""
