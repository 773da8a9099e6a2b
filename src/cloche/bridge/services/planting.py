"""Places that raise plants. Light: pages use it."""

from cloche.core.places.kinds import place_kinds

ROOM_BENCH_C = 18.0
"""Soil of a tray in a heated room where none is measured (assumption)."""
BENCHES = tuple(key for key, kind in place_kinds().items() if kind.raises == "only")
"""Kinds of place that only raise what is planted out elsewhere."""
BENCH_KINDS = tuple(key for key, kind in place_kinds().items() if kind.raises != "no")
"""Kinds of place on which plants are raised."""
