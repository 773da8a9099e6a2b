"""The records: who changed what, what is doubtful, and everything in one file to take away."""
