"""Archive of a garden: CSV tables with a description of every column in the Data Package format."""
