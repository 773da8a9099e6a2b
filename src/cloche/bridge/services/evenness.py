"""What the rooms need of the core about how even a bench is."""

from __future__ import annotations

from cloche.core.heat.evenness import EVEN_K, layer_for, spread_k

__all__ = ["EVEN_K", "layer_for", "spread_k"]
