"""What comes next for plants that are raised: both schools of heat, cells that fill, hardening before planting out."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.crops.raising import HARDEN_D
from cloche_engine.heat.source import AFTER_ALL_D, CORNER_W_K, ROOM_W_K, kwh_a_day
from cloche_engine.windows.raised_life import (
    STEPS_C,
    STURDY_D,
    Due,
    HeatOffRule,
    Raised,
    heat_off_on,
    next_steps,
    out_on,
    turned_down_to,
    weeks_in_cell,
)

TODAY = date(2026, 3, 20)
UP = date(2026, 3, 14)


HALF, ALL, FIRST, KEPT = HeatOffRule.HALF, HeatOffRule.ALL, HeatOffRule.FIRST, HeatOffRule.KEPT


def days(raised: Raised, key: str = "tomato", rule: HeatOffRule = HALF, today: date = TODAY) -> dict[Due, date]:
    return dict(next_steps(raised, crop(key), rule, today))


def test_makers_say_off_at_half_and_growers_when_all_are_up_and_a_leaf_shows() -> None:
    """Common practice, no source: three to seven days after all are up."""
    raised = Raised(UP, UP + timedelta(days=4), heated=True)
    assert heat_off_on(raised, HALF) == UP
    assert heat_off_on(raised, ALL) == UP + timedelta(days=4 + AFTER_ALL_D)
    assert 3 <= AFTER_ALL_D <= 7
    leaf = Raised(UP, UP + timedelta(days=4), leaf_on=UP + timedelta(days=6), heated=True)
    assert heat_off_on(leaf, ALL) == UP + timedelta(days=6)
    assert heat_off_on(Raised(None, None, heated=True), ALL) is None
    assert heat_off_on(Raised(UP, UP, first_on=UP - timedelta(days=3), heated=True), FIRST) == UP - timedelta(days=3)


def test_heat_that_is_off_or_was_never_there_is_not_asked_for() -> None:
    assert Due.HEAT_OFF in days(Raised(UP, UP, heated=True))
    assert Due.HEAT_OFF not in days(Raised(UP, UP, heated=False))
    assert Due.HEAT_OFF not in days(Raised(UP, UP, heated=True, heat_is_off=True))


def test_set_points_go_down_for_warm_crops_under_a_thermostat_only() -> None:
    assert Due.TURN_DOWN in days(Raised(UP, UP, heated=True, start_c=20.0))
    assert Due.TURN_DOWN not in days(Raised(UP, UP, heated=True))
    assert Due.TURN_DOWN not in days(Raised(UP, UP, heated=True, start_c=20.0), "leek")
    assert Due.TURN_DOWN not in days(Raised(UP, UP, heated=True, start_c=18.0, lowered_on=(TODAY,)))


def test_plants_kept_on_the_heat_go_down_in_steps_and_are_never_taken_off() -> None:
    """Common practice, no source: germinated at 20 °C, then 16 °C once up, then 14 °C to grow on."""
    fresh = Raised(UP, UP, heated=True, start_c=20.0)
    assert days(fresh, "leek", KEPT)[Due.TURN_DOWN] == UP
    assert turned_down_to(fresh, KEPT) == STEPS_C[0] == 16.0
    lowered = replace(fresh, start_c=16.0, lowered_on=(UP + timedelta(days=2),))
    assert days(lowered, "leek", KEPT)[Due.TURN_DOWN] == UP + timedelta(days=2 + STURDY_D)
    assert turned_down_to(lowered, KEPT) == 14.0
    assert Due.TURN_DOWN not in days(replace(lowered, start_c=14.0), "leek", KEPT)
    assert Due.HEAT_OFF not in days(fresh, "tomato", KEPT)


@pytest.mark.parametrize(("cell_m", "weeks"), [(0.03, 4), (0.04, 5), (0.07, 7), (0.09, 9)])
def test_a_wider_cell_lasts_longer(cell_m: float, weeks: int) -> None:
    """Common practice, no source: plug trays a month, 3 in pots seven or eight weeks."""
    assert weeks_in_cell(cell_m) == pytest.approx(weeks, abs=0.5)


def test_potted_on_is_counted_from_the_last_potting_and_left_out_where_they_go_out_before() -> None:
    first = days(Raised(UP, UP, cell_m=0.04))[Due.POT_ON]
    again = days(Raised(UP, UP, cell_m=0.07, potted_on=first))[Due.POT_ON]
    assert (first - UP).days in range(30, 38)
    assert (again - first).days in range(45, 55)
    assert Due.POT_ON not in days(Raised(UP, UP, cell_m=0.09, plant_from=UP + timedelta(days=30)), "lettuce")


def test_they_are_hardened_before_they_go_out_and_go_out_grown() -> None:
    raised = Raised(UP, UP, plant_from=date(2026, 5, 15))
    dates = days(raised)
    assert dates[Due.PLANT] == date(2026, 5, 15)
    assert dates[Due.HARDEN] == date(2026, 5, 15) - timedelta(days=HARDEN_D)
    # Beds are warm long before they are grown: they wait on the bench.
    early = out_on(Raised(UP, UP, plant_from=TODAY), crop("tomato"), TODAY)
    assert early is not None
    assert (early - UP).days >= 7 * crop("tomato").raise_weeks - 8
    # Late in spring hardening begins no sooner than today.
    late = date(2026, 6, 10)
    dates = days(Raised(UP, UP, plant_from=late), today=late)
    assert dates[Due.HARDEN] == late
    assert dates[Due.PLANT] == late + timedelta(days=HARDEN_D)
    begun = Raised(UP, UP, plant_from=late, hardening_on=late - timedelta(days=5))
    dates = days(begun, today=late)
    assert Due.HARDEN not in dates
    assert dates[Due.PLANT] == late + timedelta(days=3)


def test_nothing_is_asked_of_seed_that_is_not_known_to_come_up() -> None:
    assert days(Raised(None, None, plant_from=TODAY)) == {}
    assert out_on(Raised(UP, UP), crop("tomato"), TODAY) is None


def test_a_room_is_dear_to_warm_and_a_corner_cheap() -> None:
    """Common practice, no source."""
    assert kwh_a_day(ROOM_W_K, 4.0) == pytest.approx(3.84)
    assert kwh_a_day(CORNER_W_K, 4.0) < kwh_a_day(ROOM_W_K, 4.0) / 10
    assert kwh_a_day(ROOM_W_K, -2.0) == 0.0
