"""What pages say of places."""
