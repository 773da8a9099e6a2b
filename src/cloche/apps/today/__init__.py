"""Today."""
