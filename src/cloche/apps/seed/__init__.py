"""Seed: its packets, the crops that are grown, and crops of a garden’s own."""
