"""Ribbons under covers, three days of opening, a trial's pairs, the sandbox's day."""

from datetime import date, timedelta
from itertools import pairwise

import pytest

from cloche.drawing import cover_gain, days, pairs, sandbox
from cloche.drawing.scale import colour


def given(value: float) -> str:
    return f"{value:.0f}°"


RISING = [[5.0 + day * 0.2 + step for day in range(45)] for step in (0.0, 1.0, 2.0)]


def numbers(path: str) -> list[float]:
    return [float(n) for part in path.replace("M", "").replace("Z", "").split("L") for n in part.split()]


def test_a_ribbon_lies_within_its_room_and_wears_the_grounds_colours() -> None:
    within = cover_gain.limits(RISING)
    drawn = cover_gain.cover_gain(RISING, RISING[0], within, 10.0, 14, [(10.0, "10°")])
    x, y = numbers(drawn.band)[::2], numbers(drawn.band)[1::2]
    assert min(x) == cover_gain.LEFT
    assert max(x) == cover_gain.WIDTH
    assert cover_gain.TOP <= min(y) <= max(y) <= cover_gain.BOTTOM
    assert drawn.stops[0].colour == colour(RISING[1][0])
    assert drawn.wanted_y == pytest.approx(drawn.values[0].at)
    assert cover_gain.LEFT < drawn.sown_x < cover_gain.WIDTH


def test_what_lies_outside_the_scale_is_not_drawn() -> None:
    drawn = cover_gain.cover_gain(RISING, RISING[0], cover_gain.limits(RISING), 40.0, 99, [(40.0, "40°")])
    assert drawn.wanted_y is None
    assert drawn.values == []
    assert drawn.sown_x == cover_gain.WIDTH


def test_bars_stand_over_the_hours_in_which_it_is_open() -> None:
    hours = [10.0 + hour % 24 for hour in range(81)]
    lines = days.Lines(hours, [hours, hours, hours], [hours, hours, hours])
    plans = [(0, 10, 16, 0.12), (1, 9, 17, 1.0), (2, 6, 7, 0.0)]
    drawn = days.days(lines, plans, [27.0, -2.0], ["Today", "Tomorrow", "Friday"], given)
    narrow, wide = drawn.bars
    assert wide.height > narrow.height
    assert wide.width == pytest.approx(narrow.width * 8 / 6, abs=0.2)
    assert [limit.words for limit in drawn.limits] == ["27°", "-2°"]
    assert drawn.limits[0].y < drawn.limits[1].y
    assert [tick.label for tick in drawn.days] == ["Today", "Tomorrow", "Friday"]


def test_pairs_stand_about_their_mean_and_above_nothing() -> None:
    daily = [(date(2026, 4, 1) + timedelta(days=i), 3.0 + i % 2) for i in range(10)]
    drawn = pairs.pairs(daily, 3.5, (3.1, 3.9), given)
    assert drawn.high_y is not None
    assert drawn.low_y is not None
    assert drawn.high_y < drawn.mean_y < drawn.low_y < drawn.zero_y
    assert len(drawn.dots) == 10
    assert pairs.pairs(daily[:1], 3.0, None, given).low_y is None


def test_the_sandboxs_words_do_not_lie_on_each_other() -> None:
    curves = [("outside", "air-outside", [10.0] * 24), ("inside", "air-inside", [10.1] * 24), ("soil", "soil", [10.2] * 24)]
    drawn = sandbox.day(curves, given)
    places = sorted(curve.y for curve in drawn.curves)
    assert all(after - before >= sandbox.APART for before, after in pairwise(places))
    assert {curve.name for curve in drawn.curves} == {"outside", "inside", "soil"}
