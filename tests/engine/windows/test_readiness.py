"""What is comfortable at a measured soil temperature, against facts of the trade (common practice, no source)."""

import numpy as np
import pytest

from cloche_engine.crops.catalogue import catalogue, crop
from cloche_engine.windows.readiness import Readiness, readiness, sowable, steady_outlook

CROPS = list(catalogue().values())
SIXTY_F = 15.5


def keys(soil_c: float, comfortable_only: bool = True) -> set[str]:
    return {v.crop.key for v in sowable(CROPS, soil_c, comfortable_only)}


def test_at_sixty_fahrenheit_pea_beet_carrot_turnip_and_radish_go_in_direct() -> None:
    assert {"pea", "beet", "carrot", "turnip", "radish"} <= keys(SIXTY_F)


def test_at_sixty_fahrenheit_melon_and_okra_do_not() -> None:
    assert not {"muskmelon", "watermelon", "okra"} & keys(SIXTY_F)


def test_the_school_of_the_bare_minimum_lists_melon_and_okra_with_what_it_costs() -> None:
    listed = {v.crop.key: v for v in sowable(CROPS, SIXTY_F, comfortable_only=False)}
    for key in ("muskmelon", "okra"):
        assert listed[key].readiness is Readiness.AT_MINIMUM
        assert listed[key].cost_days > 7
        assert listed[key].cost_share > 0.1


def test_crops_that_are_raised_are_not_sown_direct() -> None:
    assert not {"tomato", "pepper", "eggplant", "celery"} & keys(22.0, comfortable_only=False)


def test_fifty_fahrenheit_lettuce_spinach_and_carrot_come_up_slowly_and_fifteen_more_transforms_them() -> None:
    for key in ("lettuce", "spinach", "carrot"):
        cold, warm = steady_outlook(crop(key), 10.0), steady_outlook(crop(key), 10.0 + 15 / 1.8)
        assert np.isfinite(cold.days)
        assert warm.days < 0.6 * cold.days


@pytest.mark.parametrize(
    ("key", "soil_c", "expected"),
    [
        ("tomato", 5.0, Readiness.ASLEEP),
        ("tomato", 12.0, Readiness.AT_MINIMUM),
        ("tomato", 20.0, Readiness.COMFORTABLE),
        ("lettuce", 31.0, Readiness.TOO_HOT),
    ],
)
def test_warming_soil_wakes_then_suits_then_stops_a_crop(key: str, soil_c: float, expected: Readiness) -> None:
    assert readiness(crop(key), soil_c) is expected


def test_a_verdict_inside_the_range_costs_nothing() -> None:
    steady = steady_outlook(crop("radish"), 18.0)
    assert steady.cost_days == 0
    assert steady.cost_share == 0


def test_what_would_never_come_up_is_not_offered() -> None:
    for soil_c in (-1.0, 1.0, 2.0, 16.0, 35.0):
        assert all(v.share > 0 and np.isfinite(v.days) for v in sowable(CROPS, soil_c, comfortable_only=False))


def test_soonest_up_comes_first() -> None:
    days = [v.days for v in sowable(CROPS, 18.0)]
    assert days == sorted(days)
