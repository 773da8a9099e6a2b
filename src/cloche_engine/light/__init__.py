"""Light on seedlings: through a window, from a lamp, and whether it is enough for how warm they stand."""
