"""What the bench's builder needs of the core."""

from __future__ import annotations

from cloche.bridge.services.bench_builder import PlannedBench, Warmth, warmth_of
from cloche.core.errors import OutOfRange
from cloche.core.heat.build import Cable, Laid, bags, fits, lay, litres

__all__ = ["Cable", "Laid", "OutOfRange", "PlannedBench", "Warmth", "bags", "fits", "lay", "litres", "warmth_of"]
