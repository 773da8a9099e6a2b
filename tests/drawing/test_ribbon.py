"""A window's marks: their words keep within the drawing and out of each other's way."""

from datetime import date, timedelta
from itertools import pairwise

import pytest

from cloche.drawing.ribbon import BETWEEN, CLOSE, WIDTH, Mark, apart, mark

TODAY = date(2026, 4, 22)
SPAN_D = 240
LETTER = 6.0


def placed(first_d: int, last_d: int) -> list[Mark]:
    days = ((first_d, "earliest 29 April"), (last_d, "last 3 May"))
    return apart([mark(TODAY, TODAY + timedelta(days=day), words, SPAN_D) for day, words in days])


def extent(mark: Mark) -> tuple[float, float]:
    """From where to where its words run, at six units a letter."""
    width = len(mark.words) * LETTER
    return {
        "start": (mark.x, mark.x + width),
        "end": (mark.x - width, mark.x),
        "middle": (mark.x - width / 2, mark.x + width / 2),
    }[mark.anchor]


@pytest.mark.parametrize("first_d", [0, 3, 15, 60, 120, 200, 225, 239])
@pytest.mark.parametrize("later_d", [1, 4, 10, 30, 100])
def test_no_two_marks_are_printed_over_each_other_or_beyond_the_ends(first_d: int, later_d: int) -> None:
    marks = placed(first_d, min(first_d + later_d, SPAN_D))
    said = [mark for mark in marks if mark.words]
    assert "earliest 29 April" in " ".join(mark.words for mark in said)
    assert "last 3 May" in " ".join(mark.words for mark in said)
    spans = sorted(extent(mark) for mark in said)
    assert all(left[1] <= right[0] for left, right in pairwise(spans))
    assert spans[0][0] >= -LETTER
    assert spans[-1][1] <= WIDTH + LETTER


def test_far_apart_they_stay_as_they_were() -> None:
    far = [Mark(200.0, "earliest", "middle"), Mark(200.0 + 2 * CLOSE + BETWEEN, "last", "middle")]
    assert apart(far) == far
    assert apart(far[:1]) == far[:1]
    assert apart([]) == []
