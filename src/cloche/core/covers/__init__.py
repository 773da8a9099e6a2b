"""What stands over the ground: kinds with sourced properties, vents, and the air inside."""
