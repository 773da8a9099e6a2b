"""One spring against the others."""

from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.records.springs import YearSoil, days_ahead, degree_days, last_frost, usual_course, warm_week


def spring(year: int, shift_d: int = 0, days: int = 180) -> YearSoil:
    """Half a degree every five days, from 1 °C on."""
    return YearSoil(date(year, 1, 1), 1.0 + 0.1 * (np.arange(days) + shift_d))


def test_warmth_above_its_base() -> None:
    soil = YearSoil(date(2026, 1, 1), np.array([4.0, 6.0, 8.0, 5.0]))
    assert degree_days(soil, date(2026, 1, 4)) == 4.0
    assert degree_days(soil, date(2026, 1, 2)) == 1.0


def test_a_missing_day_is_bridged_and_a_missing_month_is_not() -> None:
    mean = np.full(20, 9.0)
    mean[4] = np.nan
    assert degree_days(YearSoil(date(2026, 1, 1), mean), date(2026, 1, 20)) == pytest.approx(80)
    mean[4:12] = np.nan
    assert degree_days(YearSoil(date(2026, 1, 1), mean), date(2026, 1, 20)) is None
    assert degree_days(YearSoil(date(2026, 1, 1), mean), date(2026, 3, 1)) is None


def test_the_first_warm_week() -> None:
    # The week's middle reaches ten degrees on its fourth day.
    assert warm_week(spring(2026)) == date(2026, 1, 1) + timedelta(days=87)
    assert warm_week(spring(2026, days=40)) is None
    assert warm_week(YearSoil(date(2026, 1, 1), np.array([12.0]))) is None


def test_a_spring_that_runs_a_week_ahead_is_a_week_ahead() -> None:
    others = [spring(2023, 3), spring(2024, -3), spring(2025)]
    now = spring(2026, 7, days=110)
    assert days_ahead(now, date(2026, 4, 20), others) == pytest.approx(7, abs=1)
    assert days_ahead(spring(2026, -7, days=110), date(2026, 4, 20), others) == pytest.approx(-7, abs=1)
    assert days_ahead(now, date(2026, 4, 20), []) is None


def test_leap_years_count_days_and_not_dates() -> None:
    assert usual_course([spring(2024, days=366), spring(2025, days=365)]).size == 365  # type: ignore[union-attr]


def test_the_last_frost_of_a_span() -> None:
    lows = {date(2026, 4, 1): -1.0, date(2026, 4, 9): -0.1, date(2026, 4, 20): 0.0, date(2026, 10, 2): -3.0}
    assert last_frost(lows, date(2026, 1, 1), date(2026, 6, 30)) == date(2026, 4, 9)
    assert last_frost({}, date(2026, 1, 1), date(2026, 6, 30)) is None


def test_a_day_beyond_what_is_known_is_not_a_number() -> None:
    assert np.isnan(spring(2026, days=10).on(date(2026, 3, 1)))
