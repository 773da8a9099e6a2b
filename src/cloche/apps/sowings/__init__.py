"""Sowings, their emergence, and what the counts teach."""
