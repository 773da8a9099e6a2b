"""The places of a garden, what stood over them when, what was done there."""
