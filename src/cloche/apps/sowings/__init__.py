"""What was sown where, what has come up of it, and what the counts teach."""
