"""Sheets bent for what is to stand under them, lids that slope, and props."""

from __future__ import annotations

import itertools
from math import cos, pi, radians, sin

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pvlib.irradiance import aoi_projection
from scipy.integrate import quad
from scipy.optimize import brentq

from cloche_engine.covers.bend import bend, bends_over, sheet_for, snow_strength
from cloche_engine.covers.kinds import kind
from cloche_engine.covers.slope import noon_gain, propped, slope_deg
from cloche_engine.weather.sun import declination_rad

INCH = 0.0254


def test_a_sheet_of_26_inches_over_a_strip_of_18() -> None:
    """Common practice, no source: greens touch it after some weeks, at about twenty centimetres. The height by SciPy."""
    bent = bend(26 * INCH, 18 * INCH)
    angle = brentq(lambda a: sin(a) / a - 18 / 26, 0.1, 3.0)
    radius = 26 * INCH / (2 * angle)
    assert bent.height_m == pytest.approx(radius * (1 - cos(angle)), rel=1e-6)
    assert bent.height_m == pytest.approx(0.20, abs=0.01)
    area, _ = quad(lambda x: np.sqrt(radius**2 - x**2) - radius * cos(angle), -9 * INCH, 9 * INCH)
    assert bent.mean_height_m == pytest.approx(area / (18 * INCH), rel=1e-4)


@given(st.floats(0.4, 3.0), st.floats(0.1, 0.6), st.floats(0.03, 0.3))
def test_a_bend_that_is_found_has_the_room_and_a_nearer_one_has_not(sheet_m: float, share: float, plant_m: float) -> None:
    strip_m = share * sheet_m
    fit = bends_over(sheet_m, strip_m, plant_m)
    if fit is None:
        return
    assert fit.bend.plantable_m(plant_m) == fit.plantable_m >= strip_m
    nearer = fit.bend.spread_m - 0.01 * sheet_m
    if nearer > 0.35 * sheet_m:
        assert bend(sheet_m, nearer).plantable_m(plant_m) < strip_m


@pytest.mark.parametrize(("strip_m", "plant_m"), [(0.35, 0.12), (0.45, 0.2), (0.9, 0.3)])
def test_the_narrowest_sheet_is_just_wide_enough(strip_m: float, plant_m: float) -> None:
    sheet_m = sheet_for(strip_m, plant_m)
    assert bends_over(sheet_m, strip_m, plant_m) is not None
    assert bends_over(sheet_m - 0.02, strip_m, plant_m) is None


def test_a_wider_bend_covers_more_and_bears_less_snow() -> None:
    """Common practice, no source: a wider bend covers more ground but sags under snow."""
    spreads = [0.64, 0.75, 0.85, 0.95]
    bears = [snow_strength(bend(1.0, spread), 1.0) for spread in spreads]
    assert all(lighter > other for lighter, other in itertools.pairwise(bears))
    assert bears[0] == pytest.approx(1.0, abs=0.02)
    # By the formula itself, E I = 1: a half circle has a = π/2.
    radius = 1.0 / pi
    assert snow_strength(bend(1.0, 2 / pi), 1.0) * (4 - 1) / radius**3 == pytest.approx(3 / radius**3, rel=1e-6)


@pytest.mark.parametrize("latitude_deg", [52.0, 48.0, 36.0, -41.0])
@pytest.mark.parametrize("day", [21, 80, 172, 355])
@pytest.mark.parametrize("away_deg", [0.0, 45.0])
def test_the_noon_sun_on_a_lid_is_pvlibs(latitude_deg: float, day: int, away_deg: float) -> None:
    height_deg = 90 - abs(latitude_deg - np.degrees(float(declination_rad(day))))
    toward = 180.0 if latitude_deg > np.degrees(float(declination_rad(day))) else 0.0
    on_lid = float(aoi_projection(17.0, toward + away_deg, 90 - height_deg, toward))
    gain = noon_gain(day, latitude_deg, 17.0, away_deg)
    assert gain == pytest.approx(on_lid / sin(radians(height_deg)), rel=1e-6)


def test_in_polar_night_no_lid_gains_anything() -> None:
    assert noon_gain(355, 69.0, 20.0) is None


def test_a_box_of_usual_heights_is_the_usual_frame() -> None:
    usual = kind("glass_frame")
    own = usual.boxed(1.2, 0.25, 0.35)
    assert own.gap_m == pytest.approx(usual.gap_m)
    assert own.area_ratio == pytest.approx(usual.area_ratio, abs=0.02)
    assert slope_deg(1.0, 0.2, 0.2 + np.tan(radians(12))) == pytest.approx(12.0)


def test_props_open_by_their_height() -> None:
    opened = [propped(height) for height in (0.0, 0.015, 0.065, 0.1, 0.2, 1.0)]
    assert opened[0] == 0.0
    assert opened == sorted(opened)
    assert opened[-1] == 1.0
