"""Bent sheets: facts of geometry."""

from math import pi

import pytest

from cloche_engine.covers.bend import bend
from cloche_engine.covers.kinds import kind
from cloche_engine.errors import OutOfRange


def test_half_a_circle_is_as_high_as_half_its_spread() -> None:
    bent = bend(pi / 2, 1.0)
    assert bent.height_m == pytest.approx(0.5)
    assert bent.mean_height_m == pytest.approx(pi / 8)
    assert bent.area_ratio == pytest.approx(pi / 2)


def test_a_flat_bend_is_a_shallow_arc() -> None:
    # Sagitta of a shallow arc: h² = 3/16 (sheet² - spread²) to first order.
    bent = bend(1.0, 0.99)
    assert bent.height_m == pytest.approx((3 / 16 * (1 - 0.99**2)) ** 0.5, rel=0.01)


def test_wider_is_lower() -> None:
    heights = [bend(1.2, spread).height_m for spread in (0.5, 0.7, 0.9, 1.1)]
    assert heights == sorted(heights, reverse=True)


def test_taller_plants_have_less_width() -> None:
    bent = bend(1.2, 0.8)
    widths = [bent.plantable_m(height) for height in (0.0, 0.1, 0.2, 0.3)]
    assert widths[0] == pytest.approx(0.8)
    assert widths == sorted(widths, reverse=True)
    assert bent.plantable_m(bent.height_m) == 0.0


@pytest.mark.parametrize("spread", [0.0, 1.2, 1.5, 0.1])
def test_no_roof_is_refused(spread: float) -> None:
    with pytest.raises(OutOfRange):
        bend(1.2, spread)


def test_the_years_take_light_and_never_all_of_it() -> None:
    sheet = kind("bent_sheet")
    assert sheet.aged(2).solar == pytest.approx(sheet.solar - 0.10)
    assert sheet.aged(40, dirty=True).solar == pytest.approx(sheet.solar - 0.25)
    assert kind("glass_pane").aged(10).solar == kind("glass_pane").solar


def test_a_bend_sets_the_air_beneath_it() -> None:
    bent = kind("bent_sheet").bent(1.2, 0.75)
    assert bent.gap_m == pytest.approx(bend(1.2, 0.75).mean_height_m)
    assert bent.area_ratio == pytest.approx(1.6)
