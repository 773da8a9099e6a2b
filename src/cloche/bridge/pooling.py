"""What the garden's covers teach each other, in plain values: stored with each place's forecast, read when another is made."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from math import exp, log
from typing import Any

import numpy as np

from cloche.bridge.evidence import CoverSpan
from cloche.core.covers.kinds import CoverPeriod, Known
from cloche.core.covers.pooling import Message, message, pooled, strange
from cloche.core.soil.calibrate import COVER_FACTORS, PRIOR_SD, Learned

FEWEST_SEEN = 4
"""Readings under a cover, of its soil or its air, before it is said to have taught anything."""


def taught(learned: Learned, span: CoverSpan | None, stood: CoverPeriod | None, seen: int) -> dict[str, Any]:
    """What a place has found of the cover that stood there: its kind, its item, and by factor the middle and the standard
    deviation of the logarithm, as its readings alone tell it; empty where they tell nothing. seen: readings under it."""
    if span is None or stood is None or seen < FEWEST_SEEN:
        return {}
    factors: dict[str, list[float]] = {}
    for name, (middle, doubt) in zip(COVER_FACTORS, stood.known, strict=True):
        sd = PRIOR_SD[name] * doubt
        index = learned.names.index(name)
        spread = float(np.sqrt((learned.spread[index] ** 2).sum()))
        after = (log(middle) + sd * float(learned.mean[index]), sd * spread)
        found = message(span.key, span.item, (log(middle), sd), after)
        if found.weighs:
            factors[name] = [round(found.middle, 3), round(found.sd, 3)]
    return {"key": span.key, "item": span.item, "factors": factors} if factors else {}


def with_known(span: CoverSpan, stored: Iterable[dict[str, Any]]) -> CoverSpan:
    """The same cover with what other places have found of it and its kind; stored: their `taught`."""
    found = []
    for name in COVER_FACTORS:
        told = [Message(one["key"], one["item"], *one["factors"][name]) for one in stored if name in one.get("factors", {})]
        middle, sd = pooled(span.key, span.item, told, PRIOR_SD[name])
        found.append((round(exp(middle), 3), round(sd / PRIOR_SD[name], 3)))
    light, exchange, loss = found
    known: Known = (light, exchange, loss)
    return replace(span, known=known)


def beyond_belief(stored: dict[str, Any]) -> list[str]:
    """Names of the factors that lie further from the usual than is physically believable."""
    rows = stored.get("factors", {}).items()
    return [name for name, row in rows if strange(Message(stored["key"], stored["item"], *row), PRIOR_SD[name])]
