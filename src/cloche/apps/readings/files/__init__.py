"""CSV files: reading any grower's and writing our own."""
