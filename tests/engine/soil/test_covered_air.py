"""The covered balance itself: it closes, it becomes open ground when the cover is nothing, and it answers sun and opening."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st

from cloche_engine.covers.kinds import LIES_M, STILL_AIR_W_MK, kind
from cloche_engine.soil.covered_air import (
    FILM_RISING_W_M2K,
    SOIL_RISING_W_M2K,
    STILL_W_M2K,
    Cover,
    Inside,
    air_exchange_w_m2k,
    covered_balance,
    fog_on,
)
from cloche_engine.soil.soil_surface import (
    PSYCHROMETER_KPA_K,
    SOIL_EMISSIVITY,
    WIND_W_M2K,
    Hour,
    SoilSurface,
    convection_w_m2k,
    open_balance,
    vapour_curve,
)
from cloche_engine.weather.sky import KELVIN, STEFAN_BOLTZMANN

KINDS = ["film_tunnel", "glass_frame", "twin_wall_arch", "film_on_soil", "bell", "fleece", "black_film", "polytunnel"]


def cover(key: str, opening: float = 0.0) -> Cover:
    of = kind(key)
    optics = (of.solar, of.absorbs, of.catches, of.infrared, of.emissivity, of.wet_infrared, of.wet_emissivity)
    shape = (of.conductance_w_m2k, of.gap_m, of.area_ratio, of.leans, of.stands)
    return Cover(*optics, *shape, of.leak_m_h, of.open_m_h, of.permeable, opening, np.inf, 1.0, 1.0, 1.0)


def settled(soil_surface: SoilSurface, over: Cover, hour: Hour, first_c: float) -> tuple[float, Inside]:
    """Surface and inside when nothing moves any more."""
    surface, inside = first_c, Inside(hour.air, hour.air, hour.air, 0.0, hour.vapour)
    for _ in range(30):
        balance, inside = covered_balance(soil_surface, over, hour, first_c, surface, inside)
        surface = balance.s0 + balance.s1 * first_c
    return surface, inside


def weather(sun: float, air: float, sky: float, wind: float, humidity: float, low: float = 0.0, puddles: float = 0.0) -> Hour:
    """sky: its infrared over that of a black body of the air's warmth; low: beam on an upright face over the sun."""
    infrared = sky * STEFAN_BOLTZMANN * (air + KELVIN) ** 4
    return Hour(sun, air, infrared, wind, humidity * vapour_curve(air)[0], 0.8 * low * sun, low * sun, puddles)


def rising(difference_k: float, upwards: float) -> float:
    """Free convection from a face whose warmth differs by half a kelvin from spot to spot."""
    spread_k = float(np.hypot(difference_k, 0.5))
    share = 0.5 + 0.5 * difference_k / spread_k
    return (share * upwards + (1 - share) * 0.3) * float(np.cbrt(spread_k))


weathers = st.builds(
    weather,
    sun=st.floats(0, 900),
    air=st.floats(-10, 30),
    sky=st.floats(0.65, 1.0),
    wind=st.floats(0.3, 6),
    humidity=st.floats(0.3, 1.0),
    low=st.floats(0, 2),
    puddles=st.floats(0, 1),
)


@given(weathers, st.sampled_from(KINDS), st.sampled_from([0.0, 0.3]), st.floats(0, 22), st.floats(0.05, 1))
def test_what_comes_in_goes_out_or_into_the_ground(hour: Hour, key: str, opening: float, first_c: float, wet: float) -> None:
    """Energy of a covered bed, reckoned here anew from its temperatures and vapour: sun and sky in, all else out. Not over soil
    that gives no vapour at all: dew that falls on it and cannot rise again has no balance within an hour."""
    soil_surface, over = SoilSurface(0.8, 12.0, 1.0, wet), cover(key, opening)
    surface, inside = settled(soil_surface, over, hour, first_c)
    fog = fog_on(inside.vapour, inside.inner_c)
    infrared = over.infrared + fog * (over.wet_infrared - over.infrared)
    emissivity = over.emissivity + fog * (over.wet_emissivity - over.emissivity)

    def radiated(temperature_c: float) -> float:
        return STEFAN_BOLTZMANN * (temperature_c + KELVIN) ** 4

    through = SOIL_EMISSIVITY * infrared
    into_ground = soil_surface.conductance * (surface - first_c)
    light = over.solar * hour.sun * (1 - 0.08 * fog)
    sun = (soil_surface.absorbs * (1 - over.catches) + over.catches) * light + over.absorbs * hour.sun
    sun += over.solar * (1 - 0.08 * fog) * (over.leans * hour.toward + over.stands * hour.around)
    sky = (through + emissivity) * hour.sky
    outward = through * radiated(surface) + emissivity * radiated(inside.outer_c)
    slope = emissivity * 4 * STEFAN_BOLTZMANN * (inside.outer_c + KELVIN) ** 3
    blows = convection_w_m2k(inside.outer_c - hour.air, hour.wind, 1.0) * over.area_ratio
    sides = (blows + (over.area_ratio - 1.0) * slope) * (inside.outer_c - hour.air)
    exchange = air_exchange_w_m2k(over, hour.wind, inside.air_c - hour.air, opening)
    lift = vapour_curve(inside.outer_c)[0] - hour.vapour
    puddles = hour.puddles * blows / PSYCHROMETER_KPA_K * max(lift, 0.0) if over.gap_m <= LIES_M else 0.0
    carried = puddles + exchange * (inside.air_c - hour.air + (inside.vapour - hour.vapour) / PSYCHROMETER_KPA_K)
    assert sun + sky == pytest.approx(into_ground + outward + sides + carried, abs=0.02 * (sun + sky) + 5.0)


@given(weathers, st.floats(0, 22))
def test_a_cover_that_is_nothing_is_open_ground(hour: Hour, first_c: float) -> None:
    """All light and infrared let through, no film, air inside as outside, the same exchange with the wind, dry ground."""
    optics, shape = (1.0, 0.0, 0.0, 1.0, 0.0, 1.0, 0.0), (1e6, 0.35, 1.0, 0.0, 0.0)
    nothing = Cover(*optics, *shape, 1e8, 0.0, 0.0, 0.0, np.inf, 1.0, 1.0, 1.0)
    soil_surface, hour = SoilSurface(0.8, 12.0, 1.0, 0.0), hour._replace(vapour=0.0)  # nor does dew fall
    surface, inside = settled(soil_surface, nothing, hour, first_c)
    assert inside.air_c == pytest.approx(hour.air, abs=0.01)
    # What the cover's air passes on, told to the open ground as its exchange with the wind.
    below = STILL_W_M2K + 2 * STILL_AIR_W_MK / nothing.gap_m + WIND_W_M2K * hour.wind
    below += rising(surface - inside.air_c, SOIL_RISING_W_M2K)
    bare = surface
    for _ in range(20):
        same = SoilSurface(0.8, 12.0, below / convection_w_m2k(bare - hour.air, hour.wind, 1.0), 0.0)
        balance = open_balance(same, hour, first_c, bare)
        flux = balance.s0 + balance.s1 * first_c
    assert surface == pytest.approx(flux, abs=0.1)


@given(weathers, st.sampled_from(KINDS), st.floats(0, 22), st.floats(0.05, 1))
@example(weather(847.0, -2.9, 0.99, 0.42, 0.41, 1.08, 0.27), "bell", 16.0, 0.61)
def test_vapour_is_in_balance(hour: Hour, key: str, first_c: float, wet: float) -> None:
    """What the soil gives leaves with the air or condenses; the air inside holds no more than its cover lets it."""
    soil_surface, over = SoilSurface(0.8, 12.0, 1.0, wet), cover(key)
    surface, inside = settled(soil_surface, over, hour, first_c)
    exchange = air_exchange_w_m2k(over, hour.wind, inside.air_c - hour.air, 0.0)
    stirred = min(0.9 * exchange, WIND_W_M2K * hour.wind)
    least = STILL_W_M2K + 2 * STILL_AIR_W_MK / over.gap_m + stirred

    def free(difference_k: float, upwards: float) -> float:
        return least + rising(difference_k, upwards)

    lift = vapour_curve(surface)[0] - inside.vapour
    given_up = (wet if lift > 0 else 1.0) * free(surface - inside.air_c, SOIL_RISING_W_M2K) * lift
    over_full = max(inside.vapour - vapour_curve(inside.inner_c)[0], 0.0)
    condenses = free(inside.air_c - inside.inner_c, FILM_RISING_W_M2K) * over.area_ratio * over_full
    leaves = exchange * (inside.vapour - hour.vapour)
    largest = max(abs(given_up), abs(condenses), abs(leaves))
    assert given_up == pytest.approx(condenses + leaves, abs=0.07 * largest + 0.3)


@given(weathers, st.sampled_from(KINDS), st.floats(0, 22), st.floats(20, 300))
def test_more_sun_is_warmer_inside(hour: Hour, key: str, first_c: float, more: float) -> None:
    """Over dry ground, and under a film that is fogged up in both or in neither: its fog changes what infrared it lets through,
    and on the edge of it a film is one of two things."""
    soil_surface = SoilSurface(0.8, 12.0, 1.0, 0.0)
    (_, dull), (_, bright) = (
        settled(soil_surface, cover(key), when, first_c) for when in (hour, hour._replace(sun=hour.sun + more))
    )
    assume(abs(fog_on(bright.vapour, bright.inner_c) - fog_on(dull.vapour, dull.inner_c)) < 0.2)
    assert bright.air_c > dull.air_c - 0.05


@given(weathers, st.sampled_from(["glass_frame", "twin_wall_arch", "bell"]), st.floats(0, 12))
def test_opening_never_takes_the_air_further_from_the_outside(hour: Hour, key: str, warmer_k: float) -> None:
    """By more than a third of a kelvin, over ground as warm as the outside or warmer: what comes in also stirs up the cold
    that lay there. Not of film, which is one of two things on the edge of fogging up."""
    soil_surface, first_c = SoilSurface(0.8, 12.0, 1.0, 0.0), hour.air + warmer_k
    away = [abs(settled(soil_surface, cover(key, share), hour, first_c)[1].air_c - hour.air) for share in (0.0, 0.1, 0.4, 1.0)]
    assert all(after <= before + 0.35 for before, after in pairwise(away))
