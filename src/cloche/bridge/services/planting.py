"""Places that raise plants. Light: pages use it."""

ROOM_BENCH_C = 18.0
"""Soil of a tray in a heated room where none is measured (assumption)."""
BENCHES = ("tray", "mat", "cells")
"""Kinds of place that only raise what is planted out elsewhere."""
BENCH_KINDS = (*BENCHES, "cable", "hotbed")
"""Kinds of place on which plants are raised."""
