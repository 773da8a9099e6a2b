"""What the readings of a place tell about its cover."""

from __future__ import annotations

from math import log

import numpy as np

from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.covers.pooling import USUAL_SD, message
from cloche_engine.inputs import CoverSpan
from cloche_engine.results import CoverEvidence
from cloche_engine.soil.learned import Learned

FEWEST_SEEN = 4
"""Readings under a cover, of its soil or its air, before it is said to have taught anything."""


def cover_evidence(learned: Learned, span: CoverSpan | None, stood: CoverPeriod | None, seen: int) -> CoverEvidence | None:
    """Return what the readings of a place tell about its cover, or None if they tell nothing.

    seen: number of readings taken under the cover.
    """
    if span is None or stood is None or seen < FEWEST_SEEN:
        return None
    factors: dict[str, tuple[float, float]] = {}
    for name, (middle, doubt) in zip(USUAL_SD, stood.known, strict=True):
        sd = USUAL_SD[name] * doubt
        index = learned.names.index(name)
        spread = float(np.sqrt((learned.spread[index] ** 2).sum()))
        after = (log(middle) + sd * float(learned.mean[index]), sd * spread)
        evidence = message(span.key, span.item, (log(middle), sd), after)
        if evidence.weighs:
            factors[name] = (round(evidence.middle, 3), round(evidence.sd, 3))
    return CoverEvidence(span.key, span.item, factors) if factors else None
