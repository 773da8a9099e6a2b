"""Sowing rules, ways, hedges, benches and growth."""

import numpy as np
import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.windows.growth import growth_index, vigour
from cloche_engine.windows.hedge import MISHAP, Candidate, hedge
from cloche_engine.windows.methods import Method, better_method
from cloche_engine.windows.outlook import planting_outlook, sowing_outlook
from cloche_engine.windows.raised_life import raising
from cloche_engine.windows.sowing_rules import SowingRule, compare, windows_by
from tests.engine.windows.years import CANDIDATES, bed

LAST_FROST = 45.0


def chosen(key: str, frost: float | None = LAST_FROST, **year: float) -> dict[SowingRule, object]:
    outlook = sowing_outlook(crop(key), bed(**year), CANDIDATES)  # type: ignore[arg-type]
    choices = compare(outlook, windows_by(outlook, frost))
    return {choice.sowing_rule: choice for choice in choices}


@pytest.mark.parametrize("key", ["carrot", "pea", "snap_bean", "cucumber"])
def test_the_bare_minimum_is_never_later_than_comfort_and_fails_no_less(key: str) -> None:
    by = chosen(key)
    minimum, comfortable = by[SowingRule.MINIMUM], by[SowingRule.COMFORTABLE]
    assert minimum.day <= comfortable.day  # type: ignore[attr-defined]
    assert minimum.fails >= comfortable.fails - 0.05  # type: ignore[attr-defined]
    assert min(choice.lost_d for choice in by.values()) == 0  # type: ignore[attr-defined]


def test_the_calendar_goes_by_the_frost_alone_hardy_first_tender_last() -> None:
    """Common practice, no source: five weeks before, a fortnight before, ten days after."""
    days = [chosen(key)[SowingRule.CALENDAR].day for key in ("spinach", "carrot", "cucumber")]  # type: ignore[attr-defined]
    assert days == [10, 31, 55]
    # A date that is long past leaves the rest of the season.
    past, sure = (chosen("cucumber", frost=f)[SowingRule.CALENDAR].day for f in (-200.0, None))  # type: ignore[attr-defined]
    assert past is not None
    assert past > sure
    assert chosen("cucumber", frost=None)[SowingRule.CALENDAR].day == 0  # type: ignore[attr-defined]


def test_what_stands_the_winter_and_what_is_planted_out_has_no_schools() -> None:
    year = bed()
    assert windows_by(sowing_outlook(crop("garlic_autumn"), year, CANDIDATES), LAST_FROST) == {}
    assert windows_by(planting_outlook(crop("tomato"), year, CANDIDATES), LAST_FROST) == {}


def test_a_long_warm_season_sows_in_place_what_a_short_one_raises() -> None:
    def method(key: str, mean_c: float) -> Method:
        year = bed(mean_c=mean_c)
        return better_method(*(look(crop(key), year, CANDIDATES) for look in (sowing_outlook, planting_outlook)))

    assert method("pumpkin", 14.0) is Method.DIRECT
    assert method("pumpkin", 8.5) is Method.TRANSPLANTED
    assert better_method(None, planting_outlook(crop("tomato"), bed(), CANDIDATES)) is Method.TRANSPLANTED
    assert better_method(sowing_outlook(crop("carrot"), bed(), CANDIDATES), None) is Method.DIRECT


def test_planting_out_is_counted_back_through_hardening_and_the_bench_s_own_warmth() -> None:
    """Common practice, no source: tomatoes six to eight weeks, leeks nine to eleven."""
    tomato = crop("tomato")
    warm, cool = raising(tomato, 24.0), raising(tomato, 16.0)
    assert warm is not None
    assert cool is not None
    assert 6 <= warm.sow_d / 7 <= 8
    assert cool.sow_d > warm.sow_d + 3
    assert warm.up_d == cool.up_d
    assert raising(tomato, 5.0) is None
    leek = raising(crop("leek"), 18.0)
    assert leek is not None
    assert 9 <= leek.sow_d / 7 <= 11


def test_a_bench_that_warms_is_read_day_by_day() -> None:
    steady = raising(crop("pepper"), [22.0] * 200, plant_day=100)
    warming = raising(crop("pepper"), [16.0 + 0.1 * d for d in range(200)], plant_day=100)
    same = raising(crop("pepper"), 22.0, plant_day=100)
    assert steady is not None
    assert same is not None
    assert warming is not None
    assert steady.sow_d == pytest.approx(same.sow_d, abs=1)
    assert warming.sow_d > steady.sow_d


def test_one_sure_sowing_is_enough_and_unsure_ones_are_split() -> None:
    sure = Candidate(0, 10, np.ones(40))
    assert hedge([sure], 0.9).reached == pytest.approx(1 - MISHAP)
    half = np.arange(40) % 2
    plan = hedge([Candidate(0, 10, half.astype(float)), Candidate(1, 30, 1.0 - half)], 0.8)
    assert len(plan.parts) == 2
    assert plan.chance[0] == pytest.approx(0.45)
    assert plan.reached == pytest.approx(0.9)
    assert plan.lost_mean == pytest.approx(0.5)
    assert plan.lost_worst == pytest.approx(0.5)


def test_a_hedge_takes_the_fewest_and_does_not_sow_twice_on_neighbouring_days() -> None:
    rng = np.random.default_rng(1)
    many = [Candidate(p, d, (rng.random(40) < 0.6).astype(float)) for p in range(3) for d in range(0, 60, 2)]
    plan = hedge(many, 0.95)
    assert plan.reached >= 0.95
    assert plan.chance == sorted(plan.chance)
    for part in plan.parts:
        near = [o for o in plan.parts if o is not part and o.place == part.place and abs(o.day - part.day) < 6]
        assert near == []
    assert hedge([], 0.9).parts == []
    assert hedge([Candidate(0, 1, np.zeros(40))], 0.9).parts == []


def test_growth_is_best_at_its_best_and_none_beyond_its_ends() -> None:
    """The beta function of three cardinal temperatures [YanHunt1999]: 1 at the optimum, 0 at both ends."""
    for key, best in (("lettuce", 18.0), ("tomato", 26.0)):
        index = growth_index(np.arange(-5.0, 45.0, 0.5), crop(key))
        assert index.max() == pytest.approx(1.0)
        assert np.arange(-5.0, 45.0, 0.5)[index.argmax()] == best
        assert index[0] == index[-1] == 0
    # By hand for cool crops at 10 °C: 21/13 * (8/16) ** (16/13) = 0.688.
    assert float(growth_index(10.0, crop("lettuce"))) == pytest.approx(0.688, abs=0.001)
    assert [vigour(x) for x in (0.7, 0.3, 0.1)] == ["thrive", "slow", "survive"]
