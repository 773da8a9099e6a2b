"""The covered balance itself: it closes, it becomes open ground when the cover is nothing, and it answers sun and opening."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche.core.covers.air import SHELTERED_WIND, Cover, Inside, air_exchange_w_m2k, covered_balance
from cloche.core.covers.kinds import kind
from cloche.core.soil.skin import SOIL_EMISSIVITY, Hour, Skin, convection_w_m2k, open_balance
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN

KINDS = ["film_tunnel", "glass_frame", "twin_wall_arch", "film_on_soil", "bell"]


def cover(key: str, opening: float = 0.0) -> Cover:
    of = kind(key)
    return Cover(
        of.solar,
        (1 - of.solar) * 0.35,
        of.infrared,
        of.emissivity,
        of.wet_infrared,
        of.wet_emissivity,
        of.conductance_w_m2k,
        of.gap_m,
        of.area_ratio,
        of.air_changes_h,
        of.open_changes_h,
        opening,
        np.inf,
        1.0,
    )


def settled(skin: Skin, over: Cover, hour: Hour, first_c: float) -> tuple[float, Inside]:
    """Surface and inside when nothing moves any more."""
    surface, inside = first_c, Inside(hour.air, hour.air, hour.air, 0.0)
    for _ in range(30):
        balance, inside = covered_balance(skin, over, hour, first_c, surface, inside)
        surface = balance.s0 + balance.s1 * first_c
    return surface, inside


weathers = st.builds(
    Hour,
    sun=st.floats(0, 900),
    air=st.floats(-10, 30),
    sky=st.floats(200, 380),
    wind=st.floats(0.3, 6),
    vapour=st.floats(0.2, 1.5),
)


@given(weathers, st.sampled_from(KINDS), st.sampled_from([0.0, 0.3]), st.floats(0, 22))
def test_what_comes_in_goes_out_or_into_the_ground(hour: Hour, key: str, opening: float, first_c: float) -> None:
    """Energy of a dry covered bed, reckoned here anew from the four temperatures: sun and sky in, all else out."""
    skin, over = Skin(0.8, 12.0, 1.0, 0.0), cover(key, opening)
    surface, inside = settled(skin, over, hour, first_c)
    area = over.area_ratio

    def radiated(temperature_c: float) -> float:
        return STEFAN_BOLTZMANN * (temperature_c + KELVIN) ** 4

    through = SOIL_EMISSIVITY * over.infrared
    into_ground = skin.conductance * (surface - first_c)
    sun = (skin.absorbs * over.solar + over.absorbs) * hour.sun
    sky = (through + over.emissivity) * hour.sky
    outward = through * radiated(surface) + over.emissivity * radiated(inside.outer_c)
    slope = over.emissivity * 4 * STEFAN_BOLTZMANN * (inside.outer_c + KELVIN) ** 3
    sides = ((4.0 + 3.5 * SHELTERED_WIND * hour.wind) * area + (area - 1.0) * slope) * (inside.outer_c - hour.air)
    carried = air_exchange_w_m2k(over, hour.wind, opening) * (inside.air_c - hour.air)
    # Half of what the cover itself takes up of the sun is told to each face.
    assert sun + sky == pytest.approx(into_ground + outward + sides + carried, abs=0.02 * (sun + sky) + 2.0)


@given(weathers, st.floats(0, 22))
def test_a_cover_that_is_nothing_is_open_ground(hour: Hour, first_c: float) -> None:
    """All light and infrared let through, no film, air inside as outside, the same exchange with the wind, dry ground."""
    nothing = Cover(1.0, 0.0, 1.0, 0.0, 1.0, 0.0, 1e6, 0.35, 1.0, 1e7, 0.0, 0.0, np.inf, 1.0)
    skin, hour = Skin(0.8, 12.0, 1.0, 0.0), hour._replace(vapour=0.0)  # nor does dew fall
    surface, inside = settled(skin, nothing, hour, first_c)
    assert inside.air_c == pytest.approx(hour.air, abs=0.01)
    # What the cover's still air passes on, told to the open ground as its exchange with the wind.
    warmer = surface - inside.air_c
    below = 1.0 + 0.05 / nothing.gap_m + (1.6 if warmer > 0 else 0.3) * np.cbrt(abs(warmer))
    same = Skin(0.8, 12.0, below / convection_w_m2k(warmer, hour.wind, 1.0), 0.0)
    found = surface
    for _ in range(20):
        balance = open_balance(same, hour, first_c, found)
        found = balance.s0 + balance.s1 * first_c
    assert surface == pytest.approx(found, abs=0.1)


@given(weathers, st.sampled_from(KINDS), st.floats(0, 22), st.floats(20, 300))
def test_more_sun_is_warmer_inside(hour: Hour, key: str, first_c: float, more: float) -> None:
    """Over dry ground: over wet ground a film changes what infrared it lets through as it fogs up and clears."""
    skin = Skin(0.8, 12.0, 1.0, 0.0)
    (_, dull), (_, bright) = (settled(skin, cover(key), when, first_c) for when in (hour, hour._replace(sun=hour.sun + more)))
    assert bright.air_c > dull.air_c - 0.05


@given(weathers, st.sampled_from(["film_tunnel", "glass_frame", "twin_wall_arch", "bell"]), st.floats(0, 22))
def test_opening_never_takes_the_air_further_from_the_outside(hour: Hour, key: str, first_c: float) -> None:
    skin = Skin(0.8, 12.0, 1.0, 0.0)
    away = [abs(settled(skin, cover(key, share), hour, first_c)[1].air_c - hour.air) for share in (0.0, 0.1, 0.4, 1.0)]
    assert all(after <= before + 0.05 for before, after in pairwise(away))
