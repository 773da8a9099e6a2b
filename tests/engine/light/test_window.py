"""Light through a window against pvlib, and what growers know of sills, lamps and leggy seedlings."""

from __future__ import annotations

from datetime import date

import numpy as np
import pvlib
import pytest

from cloche_engine.light.habit import Habit, coolest_for, habit_of, wanted_mol
from cloche_engine.light.lamp import Lamp, mol_of, ppfd_of
from cloche_engine.light.window import GLASS, Window, behind_glass_w_m2, daily_mol, on_pane_w_m2
from cloche_engine.places.rooms import ROOMS, room
from cloche_engine.weather.record import HourlyWeather
from tests.engine.weathers import spell


def clear(first: date) -> HourlyWeather:
    return spell(first, 0.0, 6.0, 0.95, days=2, before=0)


@pytest.mark.parametrize("aspect_deg", [0.0, 90.0, 180.0, 225.0])
@pytest.mark.parametrize("first", [date(2026, 1, 15), date(2026, 4, 1)])
def test_light_on_a_pane_is_that_of_pvlib(first: date, aspect_deg: float) -> None:
    """An upright pane under an even sky: pvlib's isotropic transposition, within 2 % of the day."""
    weather = clear(first)
    zenith = 90 - np.degrees(weather.sun.elevation_rad)
    whole, diffuse = weather.sun_w_m2[:, 0], weather.diffuse_w_m2[:, 0]
    up = np.sin(weather.sun.elevation_rad)
    direct = np.where(up > 0.03, (whole - diffuse) / np.maximum(up, 0.03), 0.0)
    azimuth = np.degrees(weather.sun.azimuth_rad)
    irradiance = pvlib.irradiance.get_total_irradiance(
        90.0, aspect_deg, zenith, azimuth, direct, whole, diffuse, albedo=0.2, model="isotropic"
    )
    ours = on_pane_w_m2(weather, aspect_deg)[:, 0]
    assert ours.sum() == pytest.approx(float(np.nansum(irradiance["poa_global"])), rel=0.02)


def test_a_sill_gets_a_few_moles_in_january_and_the_south_most() -> None:
    """Common practice, no source: a bright sill in January gives seedlings too little; a third of a metre into the room
    half."""

    def mol(aspect_deg: float, away_m: float = 0.1, shade: float = 0.0, first: date = date(2026, 1, 15)) -> float:
        behind = behind_glass_w_m2(spell(first, 0, 6, 0.4, days=4, before=0), Window(aspect_deg, shade, away_m))
        return float(daily_mol(behind).mean())

    assert mol(0.0) < mol(90.0) < mol(180.0)
    assert 1.0 < mol(180.0) < 8.0
    assert mol(180.0, away_m=1.0) < 0.4 * mol(180.0)
    assert mol(180.0, shade=0.5) == pytest.approx(0.5 * mol(180.0))
    assert mol(180.0, first=date(2026, 4, 1)) > 1.5 * mol(180.0)


def test_daily_light_of_steady_light_is_worked_by_hand() -> None:
    """200 µmol/m²s for 16 hours are 11.5 mol/m² [worked example of university extension sheets on daily light, from memory]."""
    assert mol_of(200.0, 16.0) == pytest.approx(11.52)
    assert Lamp(((5.5, 9.0), (16.0, 21.0)), ppfd=150.0).mol_a_day == pytest.approx(150 * 8.5 * 0.0036)
    steady = np.full((24, 1), 100.0)
    assert daily_mol(steady)[0, 0] == pytest.approx(mol_of(210.0, 24.0))


def test_a_lamp_close_above_gives_more_than_one_hung_high() -> None:
    """Common practice, no source: three inches above cool-season seedlings; a bulb is no grow lamp."""
    close, high = (ppfd_of(40.0, "led", 0.3, away) for away in (0.08, 0.6))
    assert close > 2 * high
    assert 100 < close < 400
    assert ppfd_of(40.0, "bulb", 0.3, 0.08) < close / 5
    assert Lamp(((6.0, 20.0),), watts=40.0).kwh_a_day == pytest.approx(0.56)


def test_warm_and_dim_stretches_and_the_same_light_is_enough_where_it_is_cool() -> None:
    """Common practice, no source: tomatoes and peppers do well at 16 °C once up; a warm dim room makes seedlings leggy; broad
    beans and onions go where it is cool and bright at once."""
    assert habit_of(4.0, 21.0, "cool") is Habit.LEGGY
    assert habit_of(4.0, 9.0, "cool") is Habit.STOCKY
    assert habit_of(5.0, 16.0, "warm") is Habit.STOCKY
    assert habit_of(5.0, 24.0, "warm") is Habit.LEGGY
    assert habit_of(0.5, 18.0, "cool") is Habit.STARVED
    assert wanted_mol(10.0, "cool") < wanted_mol(18.0, "cool")
    assert habit_of(wanted_mol(18.0, "warm"), 18.0, "warm") is Habit.STOCKY
    assert habit_of(6.0, coolest_for(6.0, "cool") - 0.1, "cool") is Habit.STOCKY


def test_the_sun_through_a_window_warms_a_tray_and_a_garage_follows_the_weather() -> None:
    outside = clear(date(2026, 3, 10))
    dim, bright = room(outside), room(outside, window=Window(180.0))
    assert dim.sun_w_m2.max() == 0.0
    assert bright.sun_w_m2.max() == pytest.approx(GLASS * on_pane_w_m2(outside, 180.0).max() / (1 + (0.1 / 0.6) ** 2))
    cold, mild = (room(spell(date(2026, 1, 1), low, low + 4, 0.4), ROOMS["garage"]).air_c[-24:].mean() for low in (-8.0, 6.0))
    assert mild - cold > 6
    warm, less = (room(spell(date(2026, 1, 1), low, low + 4, 0.4), ROOMS["living"]).air_c[-24:].mean() for low in (6.0, -8.0))
    assert warm - less < 1.5
    described = ROOMS["garage"].between(8.0, 12.0)
    assert (described.mean_c, described.swing_k) == (10.0, 2.0)
