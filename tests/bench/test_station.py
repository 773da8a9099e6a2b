"""The function that other stations are scored with keeps its promise about what goes in and comes out."""

import numpy as np
import pandas as pd
import pytest

from bench import station

TARGET = pd.date_range("2026-04-15 00:00", periods=14 * 24, freq="h")


def weather(hourly: bool) -> pd.DataFrame:
    hours = pd.date_range("2026-04-01 00:30", periods=28 * 24, freq="h")
    frame = pd.DataFrame({"TA": 10 + 6 * np.cos(2 * np.pi * (hours.hour - 15) / 24)}, index=hours)
    if not hourly:
        frame = pd.DataFrame({"TMIN": frame["TA"].resample("D").min(), "TMAX": frame["TA"].resample("D").max()})
    frame.attrs = {"elev": 200.0, "utc": 1}
    return frame


def readings() -> pd.DataFrame:
    days = pd.date_range("2026-04-01", periods=14)
    times = days.repeat(2) + pd.to_timedelta([7.5, 16.5] * 14, unit="h")
    return pd.DataFrame({"T": [9.0, 14.0] * 14}, index=times)


@pytest.mark.parametrize("hourly", [True, False])
def test_hourly_and_daily_weather_give_nearly_the_same_course(hourly: bool) -> None:
    predicted = station.predict(weather(hourly), readings(), TARGET, 0.05, 48.0, 15.0)
    assert predicted.shape == (len(TARGET),)
    assert np.isfinite(predicted).all()
    assert predicted.mean() == pytest.approx(11.5, abs=1.5)
    assert 3 < np.ptp(predicted[:24]) < 12


def test_the_same_question_gets_the_same_answer() -> None:
    once, two = (station.predict(weather(True), readings(), TARGET, 0.05, 48.0, 15.0) for _ in range(2))
    assert (once == two).all()


def test_missing_weather_is_bridged() -> None:
    gappy = weather(True)
    gappy.iloc[200:300] = np.nan
    assert np.isfinite(station.predict(gappy, readings(), TARGET, 0.05, 48.0, 15.0)).all()


def test_readings_after_the_start_are_not_needed_and_members_give_a_band() -> None:
    spread = station.members(weather(False), readings(), TARGET, 0.05, 48.0, 15.0).std(axis=1)
    assert spread[-1] > spread[0]
