"""Rounds: reading the probes in walking order, online or offline."""
