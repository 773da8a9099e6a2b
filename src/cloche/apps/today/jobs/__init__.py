"""What is worth doing today, from everything that is known: one module a kind of work."""
