"""Covers, hotbeds and trials: what warms the ground, and what that buys."""
