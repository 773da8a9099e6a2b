"""The open surface: fluxes against their own equations solved to the end, snow, slopes, shade, small volumes, odd cases."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from scipy.optimize import brentq

from cloche_engine.heat.source import Heating
from cloche_engine.places.rooms import room
from cloche_engine.soil.bed import Bed, Parameters, SmallVolume
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.soil.soil_surface import (
    PSYCHROMETER_KPA_K,
    SOIL_EMISSIVITY,
    Hour,
    SoilSurface,
    convection_w_m2k,
    open_balance,
    vapour_curve,
)
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site
from tests.engine.weathers import WAVE, spell, trajectories

SIGMA = 5.670374e-8


def exact_surface(sun: float, air: float, sky: float, wind: float, vapour: float, first: float, wet: float) -> float:
    """The surface at which all fluxes add up to nothing."""

    def net(surface: float) -> float:
        exchange = convection_w_m2k(surface - air, wind, 1.0)
        lift = vapour_curve(surface)[0] - vapour
        latent = (wet if lift > 0 else 1.0) * exchange * lift / PSYCHROMETER_KPA_K
        gains = 0.8 * sun + SOIL_EMISSIVITY * (sky - SIGMA * (surface + 273.15) ** 4)
        return gains - exchange * (surface - air) - latent - 60.0 * (surface - first)

    return float(brentq(net, -60, 90))


def test_hour_after_hour_the_flux_is_that_of_the_full_equations() -> None:
    """Within 0.5 % of the largest flux over a day of sun, wind and a clear night, each hour starting from the last."""
    soil_surface = SoilSurface(0.8, 60.0, 1.0, 0.3)
    surface, worst, largest = 8.0, 0.0, 0.0
    for hour in range(72):
        of_day = hour % 24
        sun = max(0.0, 800 * np.sin(np.pi * (of_day - 6) / 12)) if 6 <= of_day <= 18 else 0.0
        air, first = 10 + 6 * np.sin(np.pi * (of_day - 9) / 12), 12 + 4 * np.sin(np.pi * (of_day - 11) / 12)
        weather = (sun, air, 280.0, 1.5 + np.sin(of_day), 0.8)
        balances = open_balance(soil_surface, Hour(*weather), first, surface)
        exact = 60.0 * (exact_surface(*weather, first, 0.3) - first)
        if hour >= 24:
            worst, largest = max(worst, abs(balances.a - balances.b * first - exact)), max(largest, abs(exact))
        surface = balances.s0 + balances.s1 * first
    assert worst < 0.005 * largest


def test_snow_keeps_the_soil_from_the_frost() -> None:
    deep = trajectories(spell(date(2026, 1, 5), -12, -4, 0.6, days=10, rain_mm=12.0), [None])[0]
    bare = trajectories(spell(date(2026, 1, 5), -12, -4, 0.6, days=10), [None])[0]
    assert deep.at(0.05)[-48:].mean() > bare.at(0.05)[-48:].mean() + 1
    assert np.isfinite(deep.soil_c).all()


def test_a_southward_slope_is_warmer_in_spring_and_shade_cooler() -> None:
    weather = spell(date(2026, 3, 14), 0, 12, 0.95, days=6)
    level, south, north, shaded = (
        trajectories(weather, [None], bed)[0].at(0.05)[-72:].mean()
        for bed in (Bed(), Bed(slope_deg=15), Bed(slope_deg=15, aspect_deg=0.0), Bed(shade=tuple([0.0] * 12 + [1.0] * 12)))
    )
    assert north < level < south
    assert shaded < level


def test_trays_and_raised_beds_swing_more_than_open_ground() -> None:
    weather = spell(date(2026, 4, 14), 2, 16, 0.9, days=6)
    beds = (Bed(), Bed(raised_m=0.3, width_m=0.8), Bed(texture="potting", volume=SmallVolume(0.06, 12.0)))
    swing = [np.ptp(trajectories(weather, [None], bed)[0].at(0.05)[-24:]) for bed in beds]
    assert swing[0] < swing[2]
    assert swing[0] < swing[1] * 1.05


def test_a_mat_warms_its_tray_and_a_thermostat_switches() -> None:
    """Common practice, no source: a mat without a thermostat holds a tray some 5 to 12 K over the room."""
    outside = spell(date(2026, 3, 1), 0, 8, 0.5)
    inside = room(outside)
    tray = Bed(texture="potting", volume=SmallVolume(0.06, 10.0), indoors=True, wetness=0.4)
    always = replace(tray, heating=(Heating(90.0, 0.06),))
    ruled = replace(tray, heating=(Heating(150.0, 0.06, start_c=22.0, stop_c=23.0, probe_m=0.03),))
    cases = [Place(bed, WAVE).case(inside, Parameters.typical(1)) for bed in (tray, always, ruled)]
    plain, mat, thermostat = simulate(cases, [0.03])
    over = float((mat.soil_c[-48:] - plain.soil_c[-48:]).mean())
    assert 4 < over < 13
    assert thermostat.soil_c[-48:].mean() == pytest.approx(22.5, abs=0.7)
    # It looks every ten minutes: an hour is heated for some sixths of it.
    sixths = thermostat.heat_w_m2[-72:] / 25.0
    assert np.allclose(sixths, sixths.round(), atol=1e-4)
    assert 0 < sixths.min() + sixths.max() < 12


def test_odd_days_give_numbers() -> None:
    """Polar night and midnight sun, a year's end, a leap day, calm, 60 cm of snow."""
    for latitude, first in ((78.0, date(2026, 12, 28)), (78.0, date(2026, 6, 18)), (-66.0, date(2028, 2, 27))):
        days = 6
        cold = np.full((days, 1), -25.0)
        record = DailyRecord.of(first, cold, cold + 3, rain_mm=np.full((days, 1), 50.0))
        record.wind_m_s[:], record.snow_m[:] = 0.0, 0.6
        weather = hours_of(record, Site(latitude, 15.0, 10.0, 1.0))
        trajectory = trajectories(weather, [None])[0]
        assert np.isfinite(trajectory.soil_c).all()
        assert np.isfinite(trajectory.air_c).all()


def test_members_of_a_batch_are_as_they_are_alone() -> None:
    weather = spell(date(2026, 4, 1), 2, 14, 0.7)
    place = Place(Bed(), WAVE)
    single, three = (simulate([place.case(weather, Parameters.typical(n))], [0.05])[0].at(0.05) for n in (1, 3))
    assert three[:, 2] == pytest.approx(single[:, 0], abs=1e-4)
