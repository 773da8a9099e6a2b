"""What stands over the ground: kinds with sourced properties, vents, shapes, and what covers teach each other."""
