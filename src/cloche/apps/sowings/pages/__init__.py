"""What each page of this room says and draws, as plain values for its template."""
