"""Windows hold as often as they say.

Data: thirty years of daily air at Brussels, from the data of the PyPI package aquacrop 3.1.0 (Apache-2.0). The
benchmark has the same over 300 made-up springs; here are fewer, to be quick.
"""

from collections.abc import Sequence
from functools import cache

import numpy as np
import pytest

from bench import reliability
from bench.reliability import Stated

SPRINGS = 9


@pytest.fixture(scope="module")
def made_up() -> list[Stated]:
    return reliability.over(reliability.synthetic, range(40)) + [stated for climate in in_each_climate() for stated in climate]


@cache
def in_each_climate() -> list[list[Stated]]:
    each = range(len(reliability.climates()))
    judged = reliability.over_each(reliability.synthetic_in, [(at, number) for at in each for number in range(SPRINGS)])
    return [[stated for spring in judged[at * SPRINGS : (at + 1) * SPRINGS] for stated in spring] for at in each]


@pytest.fixture(scope="module")
def real() -> list[Stated]:
    return reliability.over(reliability.replayed, reliability.years()[::2])


def held_at_eighty(judged: Sequence[Stated]) -> float:
    rows = {name: held for name, _, _, held in reliability.table(judged)}
    return rows["75% to 85%"]


def test_days_stated_at_eighty_hold_seventy_five_to_eighty_five_times_in_made_up_springs(made_up: list[Stated]) -> None:
    assert 0.75 <= held_at_eighty(made_up) <= 0.85


def test_windows_hold_to_harvest_in_all_four_climates() -> None:
    for climate, judged in zip(reliability.climates(), in_each_climate(), strict=True):
        stated, held = reliability.windows_hold(judged)
        assert abs(stated - held) < 0.05, climate.name


def test_and_in_the_real_years_each_foretold_from_the_others(real: list[Stated]) -> None:
    assert 0.75 <= held_at_eighty(real) <= 0.85


def test_no_bin_is_far_from_what_it_says(made_up: list[Stated], real: list[Stated]) -> None:
    for judged in (made_up, real):
        for name, count, stated, held in reliability.table(judged):
            assert abs(held - stated) < 0.07, (name, count, stated, held)


def test_what_is_stated_tells_the_good_days_from_the_bad(made_up: list[Stated]) -> None:
    stated, held = (np.concatenate([getattr(row, side) for row in made_up]) for side in ("stated", "held"))
    base = held.mean()
    assert ((stated - held) ** 2).mean() < 0.5 * base * (1 - base)
