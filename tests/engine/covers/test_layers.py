"""Two covers over each other, and covers that end: what the physics of each alone make of both."""

from datetime import date

import numpy as np
import pytest

from bench.gains import weather_of
from cloche_engine.covers.kinds import kind, kinds
from cloche_engine.covers.periods import CoverPeriod, Noted, Vent, as_one
from cloche_engine.protection.nested import inside
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.record import HourlyWeather
from tests.engine.weathers import FOR_EVER_H, spell, trajectories, under

LAYERED = [("fleece", "fleece"), ("fleece", "film_tunnel"), ("film_tunnel", "film_tunnel"), ("fleece", "glass_frame")]
CLEAR = {"low_c": -3, "high_c": 9, "sun_share": 0.95, "wind_m_s": 1, "rain_mm": 0, "every_d": 0}
CLEAR |= {"date": "04-10", "days": 8, "latitude_deg": 48, "elevation_m": 560}


@pytest.fixture(scope="module")
def clear() -> HourlyWeather:
    """Eight clear days in April with a night frost each."""
    return weather_of({name: str(value) for name, value in CLEAR.items()})[0]


def run(weather: HourlyWeather, *covers: CoverPeriod) -> Trajectory:
    place = Place(Bed(), AnnualWave(9.0, 10.0, 203.0), covers)
    return simulate([place.case(weather, Parameters.typical(1))], [0.0, 0.05])[0]


def night_c(trajectory: Trajectory) -> float:
    """The last three nights."""
    return float(trajectory.air_c[-72:].reshape(3, 24).min(axis=1).mean())


@pytest.mark.parametrize(("lower", "upper"), LAYERED)
def test_both_are_warmer_by_night_than_either_and_much_as_one_run_within_the_other(
    clear: HourlyWeather, lower: str, upper: str
) -> None:
    """Two ways to the same end: both as one cover, and the ground below the lower one in the weather that the upper one makes
    over bare ground. The second knows nothing of what the lower one keeps from the upper one, and so is rather too warm."""
    both = night_c(run(clear, under(lower), under(upper)))
    alone = [night_c(run(clear, under(key))) for key in (lower, upper)]
    around = inside(under(upper), run(clear, under(upper)), clear)
    nested = night_c(run(around, under(lower)))
    assert both > max(alone) + 1.0
    assert both == pytest.approx(nested, abs=3.0)


@pytest.mark.parametrize(("lower", "upper"), LAYERED)
def test_two_let_less_light_in_than_either_and_no_more_than_there_is(lower: str, upper: str) -> None:
    """Stokes' pile of plates: two sheets pass no more than the product, and what is thrown back and forth between them."""
    low, up = kind(lower), kind(upper)
    both = low.under(up)
    least = low.solar * up.solar
    assert least <= both.solar <= min(low.solar, up.solar)
    assert both.solar + both.absorbs <= 1.0
    assert both.infrared + both.emissivity <= 1.0
    assert both.leak_m_h < min(low.leak_m_h, up.leak_m_h)
    assert both.conductance_w_m2k < min(low.conductance_w_m2k, up.conductance_w_m2k)


def test_kinds_in_layers_are_what_their_parts_make() -> None:
    layered = [kind for kind in kinds().values() if kind.parts]
    assert {kind.parts for kind in layered} == set(LAYERED)
    for both in layered:
        lower, upper = (kind(key) for key in both.parts)
        assert both.solar == lower.under(upper).solar
        assert not both.is_box
        assert not both.bends


def test_the_lower_one_lies_beneath_however_they_were_put_on(clear: HourlyWeather) -> None:
    ways = [run(clear, *order) for order in ((under("fleece"), under("glass_frame")), (under("glass_frame"), under("fleece")))]
    np.testing.assert_array_equal(*(way.air_c for way in ways))


def test_only_while_both_are_there() -> None:
    weather = spell(date(2026, 4, 1), -3.0, 9.0, 0.9)
    until = 24.0 * 13
    over = CoverPeriod(kind("film_tunnel"), 0.0, FOR_EVER_H)
    alone, both = trajectories(weather, [over]), run(weather, over, CoverPeriod(kind("fleece"), until, FOR_EVER_H))
    before = slice(0, int(until))
    assert both.air_c[before].mean() == pytest.approx(run(weather, over).air_c[before].mean(), abs=1e-4)
    assert night_c(both) > night_c(run(weather, over)) + 0.5
    assert len(alone) == 1


def test_what_is_seen_open_is_open_through_both_and_a_shut_one_keeps_the_air_in() -> None:
    fleece, tunnel = under("fleece"), under("film_tunnel", vent=Vent(1.0))
    both = as_one([tunnel, fleece])
    assert both is not None
    wide = as_one([tunnel, under("fleece", vent=Vent(1.0))])
    assert wide is not None
    assert both.vent == Vent(1.0)
    assert wide.kind.leak_m_h + wide.kind.open_m_h > both.kind.leak_m_h + both.kind.open_m_h
    seen = (Noted(0.0, FOR_EVER_H, 0.6),)
    shut = [under(key, noted=seen) for key in ("fleece", "film_tunnel")]
    noted = as_one(cover.aired_at(5.0) for cover in shut)
    assert noted is not None
    assert noted.vent.opening == 0.6
    assert noted.kind.open_m_h > 0
    assert as_one([]) is None


def test_a_short_cover_warms_the_ground_less_than_a_long_one_and_a_bell_least() -> None:
    """A bottle does not warm three metres: ground loses heat to what lies open on all sides of a short cover."""
    weather = spell(date(2026, 4, 1), 2.0, 14.0, 0.8, days=10)
    long, short, shorter = (
        run(weather, under("film_tunnel", width_m=0.9, length_m=length)).at(0.05)[-24:].mean() for length in (None, 1.0, 0.4)
    )
    bare = run(weather).at(0.05)[-24:].mean()
    assert bare < shorter < short < long
    wide, narrow = (run(weather, under("bell", width_m=width)).at(0.05)[-24:].mean() for width in (0.6, 0.2))
    assert bare < narrow < wide
