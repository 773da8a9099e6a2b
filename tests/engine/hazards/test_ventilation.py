"""How far to open: rules on made-up days, and the plan followed through made-up springs."""

import numpy as np
import pytest

from bench.vents import Season, cold_spring, spring
from cloche_engine.hazards.frost import plan_night
from cloche_engine.hazards.ventilation import OPENINGS, Tried, choices, plan_away, plan_day

HOURS = np.arange(24)


def day(peak_c: float, members: int = 40, spread_k: float = 1.0) -> Tried:
    """A day that peaks at 13 h; each opening takes its share of the warmth above outside, half of it at 0.12."""
    bell = np.clip(1 - np.abs(HOURS - 13) / 7, 0, None)[:, None]
    outside = 8 + 6 * bell + np.zeros(members)
    warmth = (peak_c - 14) * bell * (1 + spread_k / 20 * np.linspace(-1, 1, members))
    return Tried(OPENINGS, np.stack([outside + warmth / (1 + share / 0.12) for share in OPENINGS]), outside)


def test_a_cool_day_stays_shut() -> None:
    plan = plan_day(day(20.0), 27.0)
    assert (plan.opening, plan.risk, plan.given_away) == (0.0, 0.0, 0.0)


def test_a_hot_day_is_opened_no_further_and_no_longer_than_needed() -> None:
    plan = plan_day(day(38.0), 27.0)
    assert plan.risk_shut == 1.0
    assert plan.risk == 0.0
    assert 0 < plan.opening < 1
    assert 8 <= plan.from_h < 13 < plan.to_h <= 18
    assert plan.holds


def test_hotter_is_wider_or_longer() -> None:
    lost = [plan_day(day(peak), 27.0).given_away for peak in (24.0, 30.0, 36.0, 44.0)]
    assert lost == sorted(lost)


def test_what_no_opening_holds_is_said_so() -> None:
    hot = day(60.0)
    plan = plan_day(Tried(OPENINGS, hot.inside_c + 20, hot.outside_c + 20), 27.0)
    assert not plan.holds
    assert plan.risk == 1.0


def test_away_all_day_it_is_one_opening_for_all_of_it() -> None:
    plan = plan_away(day(38.0), 27.0, (8, 18))
    there = plan_day(day(38.0), 27.0)
    assert (plan.from_h, plan.to_h) == (8, 18)
    assert plan.opening >= there.opening
    assert plan.given_away >= there.given_away


def test_every_choice_is_told_with_what_it_risks() -> None:
    given = choices(day(38.0), 27.0, (8, 18))
    assert [plan.opening for plan in given] == list(OPENINGS)
    risks = [plan.risk for plan in given]
    assert risks == sorted(risks, reverse=True)


def test_a_night_is_left_alone_unless_it_bites() -> None:
    rng = np.random.default_rng(1)
    mild, hard = (np.stack([base + step + rng.normal(0, 0.5, 40) for step in (0, 2.5)]) for base in (3.0, -3.0))
    assert plan_night(mild, -2.0).way == 0
    plan = plan_night(hard, -2.0)
    assert plan.way == 1
    assert plan.risk < plan.risk_left


@pytest.fixture(scope="module")
def seasons() -> list[Season]:
    return [spring(seed, "twin_wall_frame", days=70) for seed in (21, 25, 26)]


def test_followed_it_hardly_ever_cooks_and_left_shut_it_does(seasons: list[Season]) -> None:
    """Every morning from an erring forecast; the benchmark counts twelve springs and several covers."""
    could, passed, shut = (sum(getattr(s, name) for s in seasons) for name in ("could_hold", "passed", "passed_shut"))
    assert passed / could < 0.02
    assert shut / could > 0.05


def test_followed_it_gives_little_warmth_away(seasons: list[Season]) -> None:
    kept, best = (sum(getattr(s, name) for s in seasons) for name in ("warmth", "warmth_foresight"))
    assert kept / best > 0.75


def test_blankets_are_laid_on_the_nights_that_need_them() -> None:
    nights = [cold_spring(seed, days=45) for seed in (31, 32)]
    could, passed, left = (sum(getattr(s, name) for s in nights) for name in ("could_hold", "passed", "passed_left"))
    assert passed / could < 0.02
    assert left / could > 0.1
