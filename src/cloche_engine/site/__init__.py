"""Where a garden lies: towns by name, and the climate of any place on land, both shipped with the application."""
