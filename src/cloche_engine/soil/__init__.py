"""How warm the ground is and will be."""
