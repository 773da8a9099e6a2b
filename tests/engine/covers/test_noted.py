"""A cover that was seen open or shut: what was seen goes before how it is usually aired."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod, Noted, Vent
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, Site

SITE = Site(48.0, 15.0, 300.0, 1.0)
DAYS = 4
WAVE = AnnualWave.of_months(np.array([-1, 1, 5, 10, 15, 18, 20, 19, 15, 10, 4, 0], dtype=float))
FRAME = CoverPeriod(kind("glass_frame"), 0.0, 1e6)


def air_under(cover: CoverPeriod) -> np.ndarray:
    """Air under it through four clear April days, by hour [°C]."""
    columns = [np.full((DAYS, 1), value) for value in (3.0, 15.0, 0.9)]
    dry = [np.zeros((DAYS, 1)), np.full((DAYS, 1), 2.0), np.zeros((DAYS, 1))]
    weather = hours_of(DailyRecord(date(2026, 4, 20), *columns, *dry), SITE)
    run = simulate([Place(Bed(), WAVE, (cover,)).case(weather, Parameters.typical(1))], [0.05])[0]
    assert run.air_c is not None
    return np.asarray(run.air_c)[:, 0]


def test_a_frame_that_was_opened_is_cooler_from_that_hour_until_it_was_shut() -> None:
    opened = replace(FRAME, noted=(Noted(58.0, 64.0, 0.8),))
    usual, seen = air_under(FRAME), air_under(opened)
    assert seen[:58] == pytest.approx(usual[:58])
    assert (seen[59:64] < usual[59:64] - 5).all()
    assert abs(seen[80] - usual[80]) < 2.0


def test_a_frame_that_was_shut_all_day_is_hotter_than_its_rule_would_have_it() -> None:
    aired = replace(FRAME, vent=Vent(0.4, None, None, 22.0))
    shut = replace(aired, noted=(Noted(48.0, 72.0, 0.0),))
    assert air_under(shut)[48:72].max() > air_under(aired)[48:72].max() + 5
    assert air_under(shut)[24:48].max() == pytest.approx(air_under(aired)[24:48].max())


def test_what_was_seen_moves_with_the_run() -> None:
    moved = replace(FRAME, noted=(Noted(58.0, 64.0, 0.8),)).shifted(24.0)
    assert moved.noted == (Noted(34.0, 40.0, 0.8),)
    assert moved.aired_at(35.0).vent == Vent(0.8)
    assert moved.aired_at(41.0) is moved
