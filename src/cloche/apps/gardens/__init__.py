"""Sites, people and places."""
