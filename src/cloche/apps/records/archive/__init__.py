"""A garden as one file to take away and to bring back: CSV tables with a description of every column (Data Package)."""
