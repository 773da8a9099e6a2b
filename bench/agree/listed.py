"""The list of what must hold between pages, and how a check gets on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from bench.agree.pages import Pages

Found = Iterator[str]


@dataclass(frozen=True)
class Invariant:
    """text: what holds; pages: between which; check: yields contradictions."""

    text: str
    pages: str
    check: Callable[[Pages], Found]


INVARIANTS: list[Invariant] = []


def holds(text: str, pages: str) -> Callable[[Callable[[Pages], Found]], Callable[[Pages], Found]]:
    """Put a check on the list."""

    def listed(check: Callable[[Pages], Found]) -> Callable[[Pages], Found]:
        INVARIANTS.append(Invariant(text, pages, check))
        return check

    return listed
