"""From soil temperature to seedlings: how fast, how many."""
