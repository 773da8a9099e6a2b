"""What covered a place when: a strip for each cover along the time axis, drawn as the arch it is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from cloche.drawing.chart import LEFT, RIGHT, Span

TOP, GROUND = 4.0, 24.0
FOOT = 9.0
"""How far in the strip's shoulders stand from its feet."""
LETTER = 6.6


@dataclass(frozen=True)
class Strip:
    """A cover's time: outline over the ground, its name where there is room for it, words for the pointer."""

    outline: str
    text_x: float
    label: str
    title: str


def strips(periods: Sequence[tuple[datetime | None, datetime | None, str, str]], span: Span) -> list[Strip]:
    """periods: (on, off, name, words); None: before or beyond what is drawn."""
    drawn = []
    for on, off, name, words in periods:
        start = LEFT if on is None else max(span.x(on), LEFT)
        end = RIGHT if off is None else min(span.x(off), RIGHT)
        if end <= start:
            continue
        foot = min(FOOT, (end - start) / 2)
        # An end beyond the picture is cut off straight.
        rise = (
            f"M{start:.1f} {GROUND}V{TOP}"
            if on is None
            else f"M{start:.1f} {GROUND}q0 {TOP - GROUND} {foot:.1f} {TOP - GROUND}"
        )
        fall = f"H{end:.1f}V{GROUND}" if off is None else f"H{end - foot:.1f}q{foot:.1f} 0 {foot:.1f} {GROUND - TOP}"
        label = name if len(name) * LETTER < end - start - 2 * FOOT else ""
        drawn.append(Strip(rise + fall, round(start + FOOT + 3, 1), label, words))
    return drawn
