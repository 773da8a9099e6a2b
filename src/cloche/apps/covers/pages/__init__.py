"""What the pages say, ready to print."""
