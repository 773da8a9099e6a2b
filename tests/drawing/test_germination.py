"""A germination trial drawn: intervals about their points, labels that keep apart, steps at the days of counting."""

import itertools
import re

import pytest

from cloche.drawing.germination import APART, COURSE, LABEL_GAP, PLOT, by_warmth, course


def test_shares_stand_within_their_intervals_and_close_labels_are_left_out() -> None:
    points = [(5.0, 0.0, 0.0, 0.13), (6.0, 0.2, 0.1, 0.4), (20.0, 0.9, 0.75, 0.97)]
    drawn = by_warmth("Carrots", points, [(5.0, 0.4), (20.0, 0.95)], [(c, f"{c:.0f}°") for c, *_ in points])
    for point in drawn.points:
        assert PLOT[1] <= point.high <= point.y <= point.low <= PLOT[3]
    assert [tick.label for tick in drawn.across] == ["5°", "20°"]
    assert drawn.across[1].at - drawn.across[0].at >= APART


def test_a_course_steps_up_on_the_days_of_counting_and_its_labels_keep_apart() -> None:
    batches = [("10°", [(10, 0.0), (20, 0.5)]), ("15°", [(10, 0.3), (20, 0.52)]), ("20°", [(10, 0.5), (20, 0.54)])]
    drawn = course("Carrots", batches, 10)
    heights = sorted(batch.y for batch in drawn.batches)
    assert min(b - a for a, b in itertools.pairwise(heights)) >= LABEL_GAP - 0.2
    assert [batch.name for batch in sorted(drawn.batches, key=lambda batch: batch.y)] == ["20°", "15°", "10°"]
    assert drawn.days[-1].label == "18"
    numbers = [float(number) for number in re.findall(r"[0-9.]+", drawn.batches[1].steps)]
    assert min(numbers[::2]) == pytest.approx(COURSE[0])
    assert max(numbers[::2]) == pytest.approx(COURSE[2])
