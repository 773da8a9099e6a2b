"""Heat from below: mats, cables, hotbeds and what controls them."""
