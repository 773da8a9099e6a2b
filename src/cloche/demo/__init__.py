"""Invented gardens: sites, places, weather and readings made up from a seed and a day. No real person, place or record."""
