"""Columns side by side are the same as one by one, to the digit, whatever stands beside them and whether they freeze."""

from __future__ import annotations

from datetime import date

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil import hours, simulate
from cloche_engine.soil.bed import Bed, Parameters, SmallVolume
from cloche_engine.soil.conduction import Ready
from cloche_engine.soil.layers import Columns
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.side_by_side import BESIDE, Blocks, in_blocks
from cloche_engine.soil.simulate import Trajectory
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, HourlyWeather
from tests.engine.weathers import SITE

WAVE = AnnualWave(9.0, 9.5, 203.0)
DEPTHS = (0.0, 0.025, 0.05, 0.3)
DAYS = 12


def spring_weather(days: int, colder_k: float) -> HourlyWeather:
    """Changeable days of March, one member, and colder."""
    rng = np.random.default_rng(3)
    mean = 8.0 - colder_k + rng.normal(0, 1.5, (days, 1))
    half = rng.uniform(2, 5, (days, 1))
    return hours_of(DailyRecord.of(date(2026, 3, 20), mean - half, mean + half), SITE)


def drawn(members: int, seed: int) -> Parameters:
    """Each member another soil."""
    rng = np.random.default_rng(seed)
    typical = Parameters.typical(members)
    varied = {name: rng.uniform(0.7, 1.4, members) for name in ("sun", "conduction", "capacity", "convection", "evaporation")}
    return Parameters(**(typical.__dict__ | varied))


def run(colder_k: float, members: int = 11) -> list[Trajectory]:
    weather = spring_weather(DAYS, colder_k)
    covered = (CoverPeriod(kind("fleece"), 0.0, 1e6),)
    places = [
        Place(Bed(), WAVE),
        Place(Bed(), WAVE, covered),
        Place(Bed(raised_m=0.3), WAVE),
        Place(Bed(texture="potting", volume=SmallVolume(0.06, 10.0)), WAVE),
    ]
    alike = [place for place in places if place.bed.volume is None]
    runs = simulate.simulate([place.case(weather, drawn(members, i)) for i, place in enumerate(alike)], DEPTHS)
    return runs + simulate.simulate([places[3].case(weather, drawn(members, 9))], (0.0, 0.03))


def none_beside(columns: Columns, ready: Ready) -> Blocks:
    """No block at all: every column is stepped by itself."""
    blocks = in_blocks(columns, ready)
    return blocks._replace(sided=blocks.sided[:0])


@pytest.mark.parametrize("colder_k", [0.0, 7.0, 14.0])
def test_side_by_side_is_one_by_one_to_the_digit(colder_k: float, monkeypatch: pytest.MonkeyPatch) -> None:
    beside = run(colder_k)
    monkeypatch.setattr(simulate, "in_blocks", none_beside)
    for alone, other in zip(run(colder_k), beside, strict=True):
        for name in ("soil_c", "surface_c", "air_c", "flux_w_m2", "moist"):
            assert np.array_equal(getattr(alone, name), getattr(other, name)), name
        assert np.array_equal(alone.end.soil, other.end.soil)


def test_that_cold_there_is_ice_and_without_cold_there_is_none() -> None:
    assert min(float(run_alone.soil_c.min()) for run_alone in run(14.0)) < -0.1
    assert float(run(0.0)[0].soil_c[:, 2].min()) > 0.0


def test_a_case_is_the_same_alone_and_among_others() -> None:
    weather = spring_weather(DAYS, 3.0)
    cases = [Place(Bed(), WAVE).case(weather, drawn(count, count)) for count in (BESIDE - 3, BESIDE + 5, 3)]
    together = simulate.simulate(cases, DEPTHS)
    for case, among in zip(cases, together, strict=True):
        assert np.array_equal(simulate.simulate([case], DEPTHS)[0].soil_c, among.soil_c)
    assert hours.BESIDE == BESIDE
