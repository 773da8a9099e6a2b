"""Facts of the trade (common practice, no source) against windows at a temperate site, and elsewhere where that is said."""

from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.germination.emergence import SeedBed, develop, hours_to_emergence
from cloche_engine.germination.steady import days_to_emergence
from cloche_engine.quantities import celsius_from_fahrenheit
from cloche_engine.windows.limits import HALF, Limit, lost_at_c
from cloche_engine.windows.outlook import Outlook, sowing_outlook
from tests.engine.windows.years import CANDIDATES, FIRST, bed

JUNE = (date(2026, 5, 25) - FIRST).days


def look(key: str, **year: float) -> Outlook:
    return sowing_outlook(crop(key), bed(**year), CANDIDATES)  # type: ignore[arg-type]


def days(key: str, fahrenheit: float) -> float:
    return float(days_to_emergence(celsius_from_fahrenheit(fahrenheit), crop(key)))


def test_broad_beans_come_up_comfortably_from_about_ten_degrees() -> None:
    bean = crop("broad_bean")
    assert float(days_to_emergence(10.0, bean, depth_m=bean.sowing_depth_m)) < 35
    assert float(days_to_emergence(5.0, bean, depth_m=bean.sowing_depth_m)) > 35


def test_carrots_wake_at_forty_to_forty_five_and_slowly() -> None:
    assert 40 < days("carrot", 41) < 90
    assert days("carrot", 60) < days("carrot", 45) / 2


def test_peppers_want_seventy_to_ninety() -> None:
    assert days("pepper", 80) < 12
    assert days("pepper", 60) > 2 * days("pepper", 75)


def test_okra_is_best_at_eighty_to_ninety_and_hardly_up_before_june() -> None:
    assert celsius_from_fahrenheit(78) < crop("okra").rate.fastest_c < celsius_from_fahrenheit(100)
    result = look("okra", mean_c=11.0)
    first = result.windows[0].earliest
    assert first + result.days_to[HALF, 1, first] >= JUNE


def test_peas_are_sown_last_so_long_before_the_hot_days_as_they_take() -> None:
    """Where spring turns hot: pods no longer fill where most days pass some 29 °C, 85 °F (common practice, no source)."""
    year = bed(mean_c=15.5)
    result = sowing_outlook(crop("pea"), year, CANDIDATES)
    window = result.windows[0]
    assert window.closes_before in (Limit.HEAT, Limit.HOT)
    hot_day = int(np.argmax(np.median(year.season.air.high_c, axis=1) > 29.0))
    ripe = window.last + result.harvest_d[window.last]
    assert ripe <= hot_day + 15
    assert ripe > hot_day - 15


@pytest.mark.parametrize("key", ["spinach", "lettuce", "radish", "carrot"])
def test_a_cover_moves_cool_crops_some_two_to_six_weeks(key: str) -> None:
    """A low closed cover: soil some 4 to 5 K warmer, nights 2 to 3 K (see docs/engine.md)."""
    plain = look(key).windows[0].earliest
    covered = look(key, soil_shift_k=5.5, shelter_k=2.5).windows[0].earliest
    assert 10 <= plain - covered <= 45 or covered == 0


def test_radish_is_ready_in_about_twenty_five_days() -> None:
    radish = crop("radish")
    for soil_c in (15.0, 20.0):
        assert float(days_to_emergence(soil_c, radish)) + radish.maturity_d == pytest.approx(25, abs=4)


@pytest.mark.parametrize(
    ("key", "weeks"), [("potato_first_early", (10, 12)), ("potato_second_early", (12, 16)), ("potato_maincrop", (16, 20))]
)
def test_potatoes_take_their_weeks_from_planting(key: str, weeks: tuple[int, int]) -> None:
    grown = crop(key)
    soil = np.full(60 * 24, 12.0)
    shoots = float(hours_to_emergence(develop(SeedBed.of(soil), grown), [0], grown)[0, 0, 0]) / 24
    assert weeks[0] <= (shoots + grown.maturity_d) / 7 <= weeks[1] + 0.5


def test_under_ten_hours_of_light_nothing_is_sown_but_what_stands_the_winter() -> None:
    autumn = bed(first=date(2026, 9, 1), mean_c=12.0)
    lettuce = sowing_outlook(crop("lettuce"), autumn, np.arange(0, 60))
    assert lettuce.success[40:].max() < 0.2
    hard = bed(first=date(2026, 9, 1), mean_c=11.0, half_swing_k=13.0)
    garlic = sowing_outlook(crop("garlic_autumn"), hard, np.arange(0, 90))
    assert garlic.windows
    planted = FIRST.replace(month=9) + timedelta(days=garlic.windows[0].earliest)
    assert planted >= date(2026, 9, 10)


def test_autumn_onions_are_sown_in_late_summer_neither_early_nor_late() -> None:
    result = sowing_outlook(crop("onion_autumn"), bed(first=date(2026, 6, 1), mean_c=10.5), np.arange(0, 150))
    window = result.windows[-1]
    start, end = (date(2026, 6, 1) + timedelta(days=d) for d in (window.earliest, window.last))
    assert date(2026, 7, 20) <= start <= date(2026, 9, 5)
    assert end <= date(2026, 10, 5)
    assert window.opens_after is Limit.FORWARD


def test_a_winter_too_hard_closes_autumn_sowing() -> None:
    result = sowing_outlook(crop("broad_bean_autumn"), bed(first=date(2026, 9, 1), mean_c=3.0), np.arange(0, 90))
    assert not result.windows
    assert result.failing[Limit.WINTER].max() > 0.5


@pytest.mark.parametrize(
    ("keys", "low_c", "high_c"),
    [(("pea", "wheat", "barley", "oats"), 4.0, 5.1), (("rapeseed", "mustard"), 2.0, 3.0), (("flax",), 4.5, 5.5)],
)
def test_field_seed_starts_where_growers_say(keys: tuple[str, ...], low_c: float, high_c: float) -> None:
    """Common practice, no source: most field seed at 5 °C or so, peas and cereals at 4 to 5, hardy oilseeds at 2 to 3."""
    for key in keys:
        assert low_c <= crop(key).minimum_c <= high_c, key


def test_field_crops_are_sown_in_the_order_in_which_frost_spares_them() -> None:
    """Common practice, no source: cereals and pulses regrow from below the ground and go in first, oilseeds after them, and
    tender seed last."""
    keys = ("sunflower", "flax", "pea", "rapeseed", "wheat", "buckwheat", "vetch")
    order = sorted(keys, key=lambda key: lost_at_c(crop(key)))
    assert order == ["wheat", "vetch", "pea", "rapeseed", "flax", "sunflower", "buckwheat"]
    assert crop("pea").life.regrows
    assert not crop("rapeseed").life.regrows
