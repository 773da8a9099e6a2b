"""What covered a place when: a strip for each cover along the time axis, drawn as the arch it is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from cloche.drawing.chart import LEFT, RIGHT, Span

TOP, GROUND, LOWER = 4.0, 24.0, 7.0
"""Under each other cover it is drawn so much lower."""
FOOT = 9.0
"""How far in the strip's shoulders stand from its feet."""
LETTER = 6.6


@dataclass(frozen=True)
class Strip:
    """The time of a cover as a strip, with its name where there is room and words for the pointer.

    `under` counts the covers over it.
    """

    outline: str
    text_x: float
    label: str
    title: str
    under: int


def strips(periods: Sequence[tuple[datetime | None, datetime | None, str, str, int]], span: Span) -> list[Strip]:
    """Draw strips from (on, off, name, words, covers over it).

    None stands for a date before or after the drawing.
    """
    drawn, named_to = [], 0.0
    for on, off, name, words, under in sorted(periods, key=lambda period: period[4]):
        start = LEFT if on is None else max(span.x(on), LEFT)
        end = RIGHT if off is None else min(span.x(off), RIGHT)
        if end <= start:
            continue
        foot, top = min(FOOT, (end - start) / 2), min(TOP + LOWER * under, GROUND - 3)
        # An end beyond the picture is cut off straight.
        rise = (
            f"M{start:.1f} {GROUND}V{top}"
            if on is None
            else f"M{start:.1f} {GROUND}q0 {top - GROUND} {foot:.1f} {top - GROUND}"
        )
        fall = f"H{end:.1f}V{GROUND}" if off is None else f"H{end - foot:.1f}q{foot:.1f} 0 {foot:.1f} {GROUND - top}"
        begins, length = start + FOOT + 3, len(name) * LETTER
        has_room = length < end - start - 2 * FOOT and (not under or begins > named_to)
        if has_room and not under:
            named_to = begins + length
        drawn.append(Strip(rise + fall, round(begins, 1), name if has_room else "", words, under))
    return drawn
