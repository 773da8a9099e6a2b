"""Records: history of changes, doubtful readings, and the archive of a whole garden."""
