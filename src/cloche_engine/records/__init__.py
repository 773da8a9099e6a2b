"""What a record of readings is worth, and what in it is doubtful."""
