"""Learned cover properties shared between a garden's places.

Plain values only: stored with each place's forecast, and read by the pages and when another forecast is made. Loads no
engine code.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from math import exp
from typing import TYPE_CHECKING

from cloche_engine.covers.periods import Known
from cloche_engine.covers.pooling import USUAL_SD, Message, alone, pooled, strange
from cloche_engine.inputs import CoverSpan
from cloche_engine.results import CoverEvidence

if TYPE_CHECKING:
    pass

BAND_SD = 1.2816


def with_known(span: CoverSpan, stored: Sequence[CoverEvidence]) -> CoverSpan:
    """Return a cover with the properties learned from other places under the same cover or the same kind.

    `stored` holds the `cover_evidence` of those places.
    """
    learned = []
    for name, usual in USUAL_SD.items():
        middle, sd = pooled(span.key, span.item, _messages(stored, name), usual)
        learned.append((round(exp(middle), 3), round(sd / usual, 3)))
    light, exchange, loss = learned
    known: Known = (light, exchange, loss)
    return replace(span, known=known)


@dataclass(frozen=True)
class PooledFactor:
    """Learned factor of a cover's light, air exchange or heat loss relative to its kind, with its middle 80 %.

    Pooled over all places of a kind, or of one cover identified by its number in the stored evidence.
    """

    key: str
    name: str
    middle: float
    low: float
    high: float
    places: int
    number: int | None = None


def of_kinds(stored: Sequence[CoverEvidence]) -> list[PooledFactor]:
    """Return the factors of cover kinds that more than one place gives clear evidence for."""
    factors = []
    for key in dict.fromkeys(evidence.key for evidence in stored):
        places = sum(evidence.key == key for evidence in stored)
        for name, usual in USUAL_SD.items() if places > 1 else ():
            factors += _clear(key, name, pooled(key, None, _messages(stored, name), usual, whole_kind=True), places)
    return factors


def of_each(stored: Sequence[CoverEvidence]) -> list[PooledFactor]:
    """Return the factors of single covers with clear evidence."""
    factors = []
    for number, evidence in enumerate(stored):
        for name in evidence.factors:
            (message,) = _messages([evidence], name)
            factors += _clear(evidence.key, name, alone(message, USUAL_SD[name]), 1, number)
    return factors


def _clear(key: str, name: str, likely: tuple[float, float], places: int, number: int | None = None) -> list[PooledFactor]:
    """Return the factors whose middle 80 % excludes the usual value."""
    middle, sd = likely
    low, high = (exp(middle + side * BAND_SD * sd) for side in (-1, 1))
    return [PooledFactor(key, name, exp(middle), low, high, places, number)] if low > 1.0 or high < 1.0 else []


def _messages(stored: Iterable[CoverEvidence], name: str) -> list[Message]:
    return [Message(evidence.key, evidence.item, *evidence.factors[name]) for evidence in stored if name in evidence.factors]


def beyond_belief(stored: CoverEvidence) -> list[tuple[str, float]]:
    """Return the factors further from the usual value than physics allows, with the estimate from readings alone."""
    rows = stored.factors.items()
    odd = [(name, row) for name, row in rows if strange(Message(stored.key, stored.item, *row), USUAL_SD[name])]
    return [(name, exp(row[0])) for name, row in odd]
