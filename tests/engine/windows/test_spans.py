"""From the chance of each day to named spans: which days join, what binds at the edges, which days are best."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.crops.catalogue import crop
from cloche_engine.windows.limits import SENSIBLE, Limit
from cloche_engine.windows.spans import (
    CHANCE,
    SHORT_GAP_D,
    SHORTEST,
    Failing,
    best_days,
    joined,
    main_limit,
    quick_and_full,
    spans_of,
    windows,
)

chances = st.lists(st.floats(0, 1), min_size=1, max_size=60).map(np.array)


def every_other(count: int) -> np.ndarray:
    return np.arange(count) * 2


def failing(success: np.ndarray, **limits: slice) -> Failing:
    """Each limit acts where it is said to, in as many scenarios as fail."""
    failing = {limit: np.zeros(len(success)) for limit in Limit}
    for name, where in limits.items():
        failing[Limit[name]][where] = 1 - success[where]
    return failing


@given(chances)
def test_spans_are_apart_in_order_and_long_enough_to_name(success: np.ndarray) -> None:
    spans = spans_of(success >= SENSIBLE)
    for first, last in spans:
        assert last - first + 1 >= SHORTEST
        assert (success[first : last + 1] >= SENSIBLE).all()
    assert all(before[1] + 1 < after[0] for before, after in pairwise(spans))


@given(chances)
def test_joining_takes_no_day_away_and_adds_none_that_is_worse_than_chance(success: np.ndarray) -> None:
    merged = joined(every_other(len(success)), success)
    assert merged[success >= SENSIBLE].all()
    assert (success[merged] >= SENSIBLE - CHANCE).all()
    # Nothing is added before the first sensible day or after the last.
    sensible = np.flatnonzero(success >= SENSIBLE)
    assert not merged[: sensible[0] if len(sensible) else None].any()
    assert not merged[sensible[-1] + 1 :].any() if len(sensible) else True


@pytest.mark.parametrize(
    ("gap_d", "lowest", "parts"),
    [
        (SHORT_GAP_D - 3, SENSIBLE - CHANCE + 0.01, 1),
        (SHORT_GAP_D - 3, SENSIBLE - CHANCE - 0.01, 2),
        (SHORT_GAP_D + 3, SENSIBLE - CHANCE + 0.01, 2),
    ],
    ids=["short and shallow", "short and deep", "long and shallow"],
)
def test_only_a_short_and_shallow_gap_is_noise(gap_d: int, lowest: float, parts: int) -> None:
    day = np.arange(120)
    success = np.full(120, 0.95)
    success[:20] = success[-20:] = 0.1
    success[50 : 50 + gap_d] = lowest
    result = windows(day, success, failing(success, COLD=slice(0, 20), HOT=slice(50, 120)), np.zeros(120, dtype=bool))
    assert len(result) == parts
    assert (result[0].earliest, result[-1].last) == (20, 99)
    assert (result[0].opens_after, result[-1].closes_before) == (Limit.COLD, Limit.HOT)


def test_the_reason_of_an_edge_is_what_binds_beside_it_and_not_what_binds_elsewhere() -> None:
    day = every_other(60)
    success = np.full(60, 0.9)
    success[:20], success[40:] = 0.2, 0.3
    # Frost rules the winter before; in the last days before the edge it is the cold soil.
    limits = failing(success, FROST=slice(0, 15), COLD=slice(15, 20), HEAT=slice(40, 44), LIGHT=slice(44, 60))
    (window,) = windows(day, success, limits, np.zeros(60, dtype=bool))
    assert (window.opens_after, window.closes_before) == (Limit.COLD, Limit.HEAT)
    assert window.probability == pytest.approx(0.9)
    # Without a best day of its own the whole window counts as best.
    assert (window.best_from, window.best_to) == (window.earliest, window.last)


def test_a_window_at_the_ends_of_what_is_looked_at_has_no_reason_there() -> None:
    success = np.full(30, 0.9)
    (window,) = windows(every_other(30), success, failing(success), np.arange(30) == 7)
    assert (window.opens_after, window.closes_before, window.open_ended) == (None, None, True)
    assert (window.best_from, window.best_to) == (14, 14)


def test_a_crop_without_a_window_is_told_what_stands_in_its_way_on_its_likeliest_days() -> None:
    success = np.full(50, 0.1)
    success[30:35] = 0.6
    limits = failing(success, COLD=slice(0, 30), SEASON=slice(30, 35), WINTER=slice(35, 50))
    assert main_limit(limits, success) is Limit.SEASON
    assert spans_of(joined(every_other(50), success)) == []


def test_best_days_of_a_slow_crop_are_those_that_are_ripe_about_as_soon_as_any() -> None:
    """Common practice, no source: leeks and parsnips go in early and take the season they get."""
    day = np.arange(0, 100, 10)
    success, worth, eager = np.full(10, 0.9), np.ones(10), np.zeros(10, dtype=bool)
    harvest_d = np.full(10, 130.0)
    slow, quick = crop("parsnip"), crop("radish")
    assert list(day[best_days(slow, day, success, worth, harvest_d, eager)]) == [0, 10]
    eager[4:7] = True
    assert list(day[best_days(quick, day, success, worth, harvest_d, eager)]) == [40, 50, 60]
    # A poor harvest is never best, however eagerly it starts.
    worth[5] = 0.5
    assert list(day[best_days(quick, day, success, worth, harvest_d, eager)]) == [40, 60]
    assert not best_days(quick, day, success - 0.2, worth, harvest_d, eager).any()


def test_quick_and_full_is_near_the_best_of_the_sensible_days_only() -> None:
    half_d = np.array([4.0, 10.0, 14.0, 16.0, 30.0])
    share = np.array([0.9, 0.9, 0.85, 0.7, 0.9])
    success = np.array([0.5, 0.9, 0.9, 0.9, 0.9])
    assert list(quick_and_full(half_d, share, success)) == [True, True, True, False, False]
    assert not quick_and_full(half_d, share, success * 0.5).any()
