"""What the bench's pages show."""
