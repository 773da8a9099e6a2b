"""What the garden's covers teach each other, in plain values: stored with each place's forecast, read when another is made and
by the pages. Light: loads no engine."""

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
    """The same cover with what other places have found of it and its kind; stored: their `cover_evidence`."""
    learned = []
    for name, usual in USUAL_SD.items():
        middle, sd = pooled(span.key, span.item, _messages(stored, name), usual)
        learned.append((round(exp(middle), 3), round(sd / usual, 3)))
    light, exchange, loss = learned
    known: Known = (light, exchange, loss)
    return replace(span, known=known)


@dataclass(frozen=True)
class PooledFactor:
    """What covers are like against the usual: factor of their light, exchange or loss, and the ends of its middle 80 %; of all
    of a kind in the garden, told by so many places, or of the cover that one of them read: its number in what was stored."""

    key: str
    name: str
    middle: float
    low: float
    high: float
    places: int
    number: int | None = None


def of_kinds(stored: Sequence[CoverEvidence]) -> list[PooledFactor]:
    """What is clear enough to be said of kinds that more than one place tells of."""
    factors = []
    for key in dict.fromkeys(evidence.key for evidence in stored):
        places = sum(evidence.key == key for evidence in stored)
        for name, usual in USUAL_SD.items() if places > 1 else ():
            factors += _clear(key, name, pooled(key, None, _messages(stored, name), usual, whole_kind=True), places)
    return factors


def of_each(stored: Sequence[CoverEvidence]) -> list[PooledFactor]:
    """What is clear enough to be said of each cover that was read."""
    factors = []
    for number, evidence in enumerate(stored):
        for name in evidence.factors:
            (message,) = _messages([evidence], name)
            factors += _clear(evidence.key, name, alone(message, USUAL_SD[name]), 1, number)
    return factors


def _clear(key: str, name: str, likely: tuple[float, float], places: int, number: int | None = None) -> list[PooledFactor]:
    """Where the usual lies outside the middle 80 %."""
    middle, sd = likely
    low, high = (exp(middle + side * BAND_SD * sd) for side in (-1, 1))
    return [PooledFactor(key, name, exp(middle), low, high, places, number)] if low > 1.0 or high < 1.0 else []


def _messages(stored: Iterable[CoverEvidence], name: str) -> list[Message]:
    return [Message(evidence.key, evidence.item, *evidence.factors[name]) for evidence in stored if name in evidence.factors]


def beyond_belief(stored: CoverEvidence) -> list[tuple[str, float]]:
    """Factors that lie further from the usual than is physically believable, with what readings alone would have them be."""
    rows = stored.factors.items()
    odd = [(name, row) for name, row in rows if strange(Message(stored.key, stored.item, *row), USUAL_SD[name])]
    return [(name, exp(row[0])) for name, row in odd]
