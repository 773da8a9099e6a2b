"""Plain values that rooms and services share: what a person types and reads, what comes in, what is stored."""
