"""The coming days at a covered place: how far to open, from when to when, and what the night asks for."""
