"""Covers in low sun and over moist ground, as growers find them (bench/data, from memory)."""

import csv
from pathlib import Path

import numpy as np
import pandas as pd
import pytest
from pvlib import irradiance

from bench import gains
from cloche_engine.soil.bed import Bed
from cloche_engine.soil.plane import HOLLOWS_MM, low_sun_on, puddles_on

ROWS = list(csv.DictReader((Path(gains.__file__).parent / "data" / "covers_measured_low_sun.csv").read_text().splitlines()))


@pytest.fixture(scope="module")
def scored() -> list[gains.Row]:
    return list(gains.scored(ROWS))


def test_nine_of_ten_lie_where_growers_find_them(scored: list[gains.Row]) -> None:
    assert sum(row["lies"] == "in" for row in scored) >= 9


def test_a_shut_frame_on_a_clear_winter_day_is_not_a_degree_or_two_warmer(scored: list[gains.Row]) -> None:
    frames = [float(row["median"]) for row in scored if row["cover"].endswith("frame")]
    assert len(frames) == 3
    assert min(frames) >= 10


def test_what_a_sloping_lid_catches_is_pvlibs_beam_on_that_plane() -> None:
    """A lid that rises a quarter of its width: beam on its plane, per ground, by pvlib's angle of incidence."""
    weather, _site = gains.weather_of(ROWS[0])
    toward, _around = low_sun_on(Bed(), weather)
    hour = 36  # noon of the second day
    zenith, azimuth = 90 - np.degrees(weather.sun.elevation_rad[hour]), np.degrees(weather.sun.azimuth_rad[hour])
    lid = np.degrees(np.arctan(0.25))
    onto = irradiance.aoi_projection(lid, 180.0, zenith, azimuth) / np.cos(np.radians(lid))
    beam = float((weather.sun_w_m2 - weather.diffuse_w_m2)[hour, 0])
    expected = beam * onto / np.cos(np.radians(zenith))
    assert beam + 0.25 * toward[hour, 0] == pytest.approx(expected, rel=0.01)
    assert pd.Series(toward[:, 0]).max() < 1000


def test_rain_stands_on_a_film_until_the_sun_has_dried_it() -> None:
    wet = gains.weather_of(next(row for row in ROWS if row["cover"] == "black_film"))[0]
    puddles = puddles_on(wet)
    rainy, dry = wet.rain_mm.reshape(-1, 24).sum(axis=1) > HOLLOWS_MM, slice(12, 18)
    by_day = puddles.reshape(-1, 24)
    assert by_day[rainy].max(axis=1) == pytest.approx(1.0)
    before_rain = np.flatnonzero(rainy) - 1
    assert by_day[before_rain, dry].max() == 0.0
