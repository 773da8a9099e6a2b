"""Changes to readings and imported files."""
