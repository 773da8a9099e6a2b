"""The list of what must hold between pages, and how a check gets on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from bench.agree.pages import Pages

Contradictions = Iterator[str]


@dataclass(frozen=True)
class Invariant:
    """text: what holds; pages: between which; check: yields contradictions."""

    text: str
    pages: str
    check: Callable[[Pages], Contradictions]


INVARIANTS: list[Invariant] = []


def holds(text: str, pages: str) -> Callable[[Callable[[Pages], Contradictions]], Callable[[Pages], Contradictions]]:
    """Put a check on the list."""

    def listed(check: Callable[[Pages], Contradictions]) -> Callable[[Pages], Contradictions]:
        INVARIANTS.append(Invariant(text, pages, check))
        return check

    return listed
