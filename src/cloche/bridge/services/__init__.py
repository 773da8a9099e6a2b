"""What the rooms ask for, done with the engine: each module takes plain values and gives plain values back."""
