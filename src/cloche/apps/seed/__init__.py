"""Seed packets, the crops a garden grows, and its own crops."""
