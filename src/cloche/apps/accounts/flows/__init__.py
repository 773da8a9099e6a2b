"""What is written about accounts."""
