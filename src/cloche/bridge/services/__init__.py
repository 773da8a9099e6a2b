"""What the rooms ask for, done with the core: each module takes plain values and gives plain values back."""
