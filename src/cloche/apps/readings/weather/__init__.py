"""Where weather comes from besides what is typed in or brought in from a file."""
