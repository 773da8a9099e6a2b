"""The round: reading the probes in walking order, with or without signal."""
