"""Crops: their published tables and the catalogue built from them."""
