"""A crop under its cover by the day, as it is drawn."""

from __future__ import annotations

import itertools
import re
from datetime import date, timedelta

import pytest

from cloche.drawing.geometry import month_starts
from cloche.drawing.under_cover import APART, GROUND, LEFT, RIGHT, TOP, UnderCover, under_cover

TODAY = date(2027, 4, 8)
GROWING = [0.01 + 0.004 * i for i in range(120)]


def day(offset: int) -> date:
    return TODAY + timedelta(days=offset)


def drawn(
    roof_m: float | None = 0.3, off: int | None = 30, ends: int | None = 18, marks: tuple[int, ...] = (-40, -20, 0, 30)
) -> UnderCover:
    cover = (day(-40), None if ends is None else day(ends), None if off is None else day(off))
    return under_cover(roof_m, cover, (day(-5), GROWING), [day(mark) for mark in marks], TODAY)


def points(path: str) -> list[tuple[float, float]]:
    return [(float(x), float(y)) for x, y in re.findall(r"(-?[\d.]+)[ ,](-?[\d.]+)", path)]


def test_the_roof_stands_on_the_ground_until_its_ends_are_open_and_hovers_then() -> None:
    picture = drawn()
    shut, opened = points(picture.roof), points(picture.open)
    assert shut[0][1] == shut[-1][1] == GROUND
    assert all(y < GROUND for _x, y in opened)
    assert shut[-1][0] == opened[0][0]
    assert opened[-1][0] == picture.marks[-1].x


def test_without_open_ends_it_is_shut_until_it_is_off() -> None:
    picture = drawn(ends=None)
    assert picture.open == ""
    assert points(picture.roof)[-1][0] == picture.marks[-1].x


@pytest.mark.parametrize("roof_m", [0.1, 0.3, 2.0, None])
@pytest.mark.parametrize("off", [5, 60, None])
def test_everything_lies_within_the_picture(roof_m: float | None, off: int | None) -> None:
    picture = drawn(roof_m, off)
    for path in (picture.roof, picture.open, picture.grown):
        for x, y in points(path):
            assert LEFT - 0.1 <= x <= RIGHT + 0.1
            assert TOP - 4 <= y <= GROUND
    assert LEFT <= picture.now_x <= RIGHT


def test_numbers_of_near_days_stand_apart() -> None:
    picture = drawn(marks=(-40, -3, -2, -1, 0, 1))
    at = [mark.number_x for mark in picture.marks]
    assert all(after - before >= APART - 0.2 for before, after in itertools.pairwise(at))
    assert [mark.x for mark in picture.marks] == sorted(mark.x for mark in picture.marks)


def test_a_taller_crop_reaches_higher() -> None:
    low, high = (under_cover(0.3, (day(-40), None, None), (day(-5), [m] * 60), [day(-40)], TODAY) for m in (0.05, 0.2))
    assert min(y for _x, y in points(high.grown)) < min(y for _x, y in points(low.grown))


def test_first_days_of_months_across_a_leap_february_and_new_year() -> None:
    assert month_starts(date(2027, 12, 31), date(2028, 3, 1)) == [date(2028, 1, 1), date(2028, 2, 1), date(2028, 3, 1)]
    assert month_starts(date(2028, 2, 2), date(2028, 2, 29)) == []
