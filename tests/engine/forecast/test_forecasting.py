from datetime import UTC, date, datetime, timedelta
from functools import cache
from zoneinfo import ZoneInfo

import pytest

from cloche.bridge.services.crops import chosen, crop
from cloche_engine.api import forecast
from cloche_engine.errors import UnknownCrop
from cloche_engine.forecast.steps import know_weather
from cloche_engine.inputs import Day, ForecastInputs
from cloche_engine.local_time import standard_offset_h
from cloche_engine.results import ForecastResult

TODAY = date(2026, 4, 22)


def inputs(days_read: int = 8, mean_c: float = 12.0, **values: object) -> ForecastInputs:
    readings = []
    for back in range(days_read, 0, -1):
        day = datetime(2026, 4, 22, tzinfo=UTC) - timedelta(days=back)
        readings.append((2 * back, day + timedelta(hours=5.5), 0.05, mean_c - 2))
        readings.append((2 * back + 1, day + timedelta(hours=14.5), 0.05, mean_c + 3))
    weather = [Day(TODAY - timedelta(days=back), 4.0, 15.0) for back in range(40, -1, -1)]
    site = {
        "kind": "open",
        "seed_depth_m": 0.05,
        "latitude_deg": 48.0,
        "longitude_deg": 15.0,
        "elevation_m": 300.0,
        "timezone": ZoneInfo("Europe/Vienna"),
        "today": TODAY,
        "readings": readings,
        "weather": weather,
        "typed_normals": None,
        "seed": 1,
    }
    return ForecastInputs(**(site | values))  # type: ignore[arg-type]


@cache
def usual() -> ForecastResult:
    return forecast(inputs())


def test_a_week_of_readings_gives_windows_for_every_crop() -> None:
    ground, outlooks = usual().ground, usual().crops
    assert {o.crop_key for o in outlooks} == {crop.key for crop in chosen()}
    assert ground.readings_used == 16
    assert sum(bool(o.windows) for o in outlooks) > 15


def test_the_same_evidence_gives_the_same_answer_to_the_digit() -> None:
    assert forecast(inputs()) == usual()


def test_the_course_covers_three_weeks_back_and_a_fortnight_on_by_the_hour() -> None:
    ground = usual().ground
    assert len(ground.near_mid_c) == (21 + 14) * 24
    assert ground.start == datetime(2026, 3, 31, 23, tzinfo=UTC)
    assert all(
        low <= mid <= high for low, mid, high in zip(ground.near_low_c, ground.near_mid_c, ground.near_high_c, strict=True)
    )


def test_the_band_widens() -> None:
    band = usual().ground.band_k
    assert band[1] < band[7] < band[14] * 1.2


def test_more_readings_never_widen_the_band_on_average() -> None:
    """Over beds that read cooler and warmer than reckoned."""
    means = []
    for days in (1, 4, 12):
        beds = [forecast(inputs(days, mean_c, crops=("pea",))).ground.band_k for mean_c in (10.0, 11.0, 12.0, 13.0, 14.0)]
        means.append(sum(sum(band.values()) / len(band) for band in beds))
    assert means[0] >= means[1] >= means[2]


def test_a_wild_reading_is_reported_not_dropped() -> None:
    request = inputs()
    wild = (999, request.readings[-1][1] - timedelta(hours=3), 0.05, 31.0)
    ground = forecast(inputs(readings=[*request.readings, wild])).ground
    assert list(ground.strange) == [999]
    assert ground.readings_used == 17


def test_without_readings_or_weather_there_is_still_an_answer_and_a_wide_band() -> None:
    result = forecast(inputs(days_read=0, weather=[]))
    ground, outlooks = result.ground, result.crops
    assert ground.readings_used == 0
    assert ground.normals_source == "region"
    assert ground.band_k[7] > usual().ground.band_k[7]
    assert {o.crop_key for o in outlooks} == {crop.key for crop in chosen()}


def test_in_the_south_april_is_autumn() -> None:
    south = forecast(inputs(latitude_deg=-41.0, longitude_deg=173.0, timezone=ZoneInfo("Pacific/Auckland"), weather=[]))
    mean = south.ground.far_mid_c
    assert mean[90] < mean[0] - 3
    assert mean[270] > mean[90] + 5


@pytest.mark.parametrize(
    ("zone", "hours"),
    [("Europe/Vienna", 1), ("Pacific/Auckland", 12), ("America/Denver", -7), ("Asia/Kolkata", 5.5), ("Europe/Dublin", 0)],
)
@pytest.mark.parametrize("day", [date(2026, 1, 15), date(2026, 7, 15)])
def test_standard_time_knows_no_summer(zone: str, hours: float, day: date) -> None:
    assert standard_offset_h(ZoneInfo(zone), day) == hours


def test_a_leap_day_and_new_year_are_just_days() -> None:
    result = forecast(inputs(today=date(2028, 2, 29), readings=[], weather=[]))
    assert result.ground.day == date(2028, 2, 29)
    assert all(w.earliest >= date(2028, 2, 29) for o in result.crops for w in o.windows)


def test_small_volumes_outdoors_swing_more_than_the_bed_and_a_room_less() -> None:
    swings = {}
    for kind in ("open", "tub", "cells", "tray"):
        ground = forecast(inputs(days_read=0, kind=kind, crops=("pea",))).ground
        assert len(ground.field_c) == len(ground.field_depths_m)
        assert (max(ground.field_depths_m) <= 0.06) == (kind in ("cells", "tray"))
        day = ground.near_mid_c[20 * 24 : 21 * 24]
        swings[kind] = max(day) - min(day)
    assert swings["cells"] > swings["open"] + 1
    assert swings["tub"] > 0.8 * swings["open"]
    assert swings["tray"] < 0.5 * swings["open"]


def test_years_that_a_service_made_up_say_nothing_about_frost_at_the_site() -> None:
    """The usual climate of the region stays the source until days of the site's own are there."""
    mild = [Day(TODAY - timedelta(days=back), 9.0, 20.0) for back in range(12 * 365, -1, -1)]
    own = know_weather(inputs(weather=mild))
    made_up = know_weather(inputs(weather=mild, record_is_simulated=True))
    assert (own.frosts.source, made_up.frosts.source) == ("record", "region")
    assert made_up.frosts != own.frosts


def test_crops_of_a_gardens_own_come_with_the_question_and_are_forgotten_after_it() -> None:
    key = "own_0a1b2c3d"
    own = {key: {"of": "carrot", "name": "Purple carrot", "plural": "purple carrots", "values": {}}}
    assert {row.crop_key for row in forecast(inputs(crops=(key,), own=own)).crops} == {key}
    with pytest.raises(UnknownCrop):
        crop(key)
