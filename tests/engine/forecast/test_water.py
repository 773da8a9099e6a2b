"""Water under covers, from the record to what is foretold: it counts under glass and fleece, and is asked for where it
lacks."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.api import forecast
from cloche_engine.inputs import CoverSpan, Day, ForecastInputs, Operation
from cloche_engine.soil.bed import Bed, Event, Work
from tests.engine.forecast.test_forecasting import TODAY, inputs
from tests.engine.weathers import MIXED_D, spell, trajectories, under


def dry_summer(*operations: Operation, cover: str = "glass_frame") -> ForecastInputs:
    """A frame aired through two hot months without rain."""
    weather = [Day(TODAY - timedelta(days=back), 14.0, 29.0, rain_mm=0.0, sky="clear") for back in range(60, -4, -1)]
    on = CoverSpan(cover, first=TODAY - timedelta(days=60), opens="above", above_c=24.0, opening=1.0)
    return replace(inputs(0), weather=weather, covers=[on], operations=list(operations), kind="frame", crops=("pea",))


def test_the_top_dries_in_a_frame_and_watering_answers_it() -> None:
    at = inputs(1).readings[0][1]
    dry, given = forecast(dry_summer()), forecast(dry_summer(Operation("watered", at, 35.0)))
    assert dry.watch.water_d == 0
    assert given.watch.water_d != 0
    # Wet ground is cooler by day: the water is seen in what is foretold.
    assert max(given.ground.near_mid_c[21 * 24 : 24 * 24]) < max(dry.ground.near_mid_c[21 * 24 : 24 * 24])


@pytest.mark.parametrize("key", ["glass_frame", "film_tunnel", "fleece", "film_on_soil", "polytunnel"])
def test_watering_reaches_the_soil_under_every_cover_and_rain_only_through_cloth(key: str) -> None:
    dry, wet = (spell(date(2026, 4, 20), 8, 20, 0.8, days=8, rain_mm=rain) for rain in (0.0, 6.0))
    at = Event(Work.WATERED, (MIXED_D + 5) * 24 + 8.0)
    moist = [
        float(trajectories(weather, [under(key)], bed)[0].moist[-48, 0])
        for weather, bed in ((dry, Bed()), (dry, Bed().with_events(at)), (wet, Bed()))
    ]
    assert moist[1] > moist[0] + 0.05
    assert (moist[2] > moist[0] + 0.05) is (key == "fleece")


def test_the_top_drains_in_hours_on_sand_and_in_days_on_clay() -> None:
    """Above field capacity, after 40 mm in a day (common practice, no source: sand a day, loam two, clay several)."""
    weather = spell(date(2026, 3, 10), 2, 8, 0.3, days=6)
    rain = np.zeros_like(weather.rain_mm)
    rain[MIXED_D * 24 : MIXED_D * 24 + 12] = 40.0 / 12
    days = {}
    for texture in ("sand", "compost", "loam", "clay"):
        moist = trajectories(replace(weather, rain_mm=rain), [None], Bed(texture=texture))[0].moist[MIXED_D * 24 :, 0]
        over = np.flatnonzero(moist > 1.04)
        assert moist.max() > 1.04
        days[texture] = (over[-1] - 11) / 24
    assert days["sand"] < 1.1
    assert days["sand"] < days["loam"] < 3
    assert days["loam"] < days["clay"]
