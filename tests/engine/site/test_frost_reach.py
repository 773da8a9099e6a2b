"""Frost dates of the shipped climate against weather stations, and how far nights stray."""

from datetime import date

import numpy as np
import pytest

from bench import climate, frosts
from cloche_engine.forecast.frosts import frosts_of
from cloche_engine.site.estimate import RANGE, height_at, normals_at, typed_normals
from cloche_engine.site.frost_reach import AUTUMN, AUTUMN_LOW, NEW_FROSTS, SPRING, SPRING_LOW, STRAY_K, stray_k
from cloche_engine.weather.normals import EXTREMES

STATIONS = frosts.read(frosts.FITTED_ON)


def test_the_coefficients_are_those_that_the_stations_give() -> None:
    for season, shipped in enumerate((SPRING, AUTUMN)):
        assert frosts.fit(STATIONS, season) == pytest.approx(shipped, abs=0.006)
    for season, shipped in enumerate((SPRING_LOW, AUTUMN_LOW)):
        assert frosts.fit_lows(STATIONS, season) == pytest.approx(shipped, abs=0.006)
    assert climate.fit_range(climate.ranges()) == pytest.approx(RANGE, abs=0.006)


def test_nine_of_ten_dates_lie_within_ten_days_and_none_is_dangerously_early() -> None:
    """Published medians of 112 stations, from memory."""
    off = np.array(
        [[station.off_d(s, day) if day else np.nan for s, day in enumerate(station.given())] for station in STATIONS]
    )
    assert (np.abs(off) <= frosts.WITHIN_D).mean() >= 0.88
    assert -2 <= off[:, 0].mean() <= 3
    assert off[:, 0].min() >= -18


def test_a_station_is_met_from_the_others_alone() -> None:
    off = frosts.left_out(STATIONS)
    assert (np.abs(off) <= frosts.WITHIN_D).mean() >= 0.85


@pytest.mark.parametrize(("sd_k", "slope"), [(3.0, 0.1), (4.5, 0.2), (6.0, 0.3)])
def test_nights_stray_as_far_as_a_made_up_season_did(sd_k: float, slope: float) -> None:
    """The middle last frost of seasons drawn night by night tells their spread again. Spells are left out of the draw: each
    night has the chance that the share of new frosts leaves it."""
    rng, days = np.random.default_rng(3), np.arange(-120, 121)
    lows = slope * days + sd_k * rng.standard_normal((20000, len(days)))
    frost = (lows < 0) & (rng.random(lows.shape) < NEW_FROSTS)
    last = days[len(days) - 1 - np.argmax(frost[:, ::-1], axis=1)]
    assert stray_k(slope * float(np.median(last)), slope) == pytest.approx(sd_k, rel=0.06)


def test_nights_stray_within_what_is_known_of_any_climate() -> None:
    assert stray_k(-1.0, 0.2) == STRAY_K[0]
    assert stray_k(30.0, 0.2) == STRAY_K[1]


def test_who_types_a_warmer_spring_has_earlier_frosts() -> None:
    site = (48.1, 11.6, 520.0)
    usual = normals_at(*site)
    days = [
        frosts_of(
            None, typed_normals(usual.low_c + warmer, usual.high_c + warmer, *site), site[0], date(2027, 1, 1)
        ).frosts.spring
        for warmer in (0.0, 2.0)
    ]
    assert days[0] is not None
    assert days[1] is not None
    assert days[1][1] < days[0][1] - 7


def test_where_it_never_freezes_nights_stray_as_days_do() -> None:
    tropics = normals_at(1.35, 103.8, 15.0)
    assert tropics.night_sd_k == pytest.approx(tropics.day_sd_k * EXTREMES)


def test_the_south_mirrors_the_north() -> None:
    """Nights stray furthest in the cold half of the year, wherever that lies."""
    for latitude, longitude, winter in ((41.6, -93.7, [11, 0, 1]), (-43.5, 172.5, [5, 6, 7])):
        south = normals_at(latitude, longitude, height_at(latitude, longitude)).night_sd_k
        assert south is not None
        assert south[winter].mean() > np.delete(south, winter).mean()


def test_a_garden_on_a_hill_is_colder_and_frosts_end_later_there() -> None:
    """0.6 K in 100 m: the standard atmosphere has 0.65."""
    low, high = (normals_at(48.1, 11.6, height) for height in (500.0, 1000.0))
    assert (low.mean_c - high.mean_c) == pytest.approx(np.full(12, 3.0))


@pytest.mark.parametrize(
    ("latitude", "longitude", "metres"), [(39.77, -104.87, 1610), (48.14, 11.58, 520), (52.1, 5.18, 4), (-1.3, 36.8, 1700)]
)
def test_the_ground_is_as_high_as_towns_there_say(latitude: float, longitude: float, metres: float) -> None:
    """Heights of Denver, Munich, De Bilt and Nairobi (from memory)."""
    assert height_at(latitude, longitude) == pytest.approx(metres, abs=120)


def test_the_open_sea_lies_at_its_level() -> None:
    assert height_at(0.0, -140.0) == 0.0
