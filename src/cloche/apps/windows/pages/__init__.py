"""Page contexts of the windows app."""
