"""Frost dates weighed from a site's own years and its typical weather."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.forecast.frosts import HALF_WEIGHT_YEARS, RECORD, REGION, TYPED, frost_dates, frosts_of
from cloche_engine.forecast.weather import own_days
from cloche_engine.inputs import Day
from cloche_engine.site.estimate import normals_at
from cloche_engine.weather.record import DailyRecord
from tests.engine.forecast.test_forecasting import inputs

SITE = (48.1, 11.6, 520.0)
TODAY = date(2026, 12, 1)
NORMALS = normals_at(*SITE)


def record(years: int, last: date = date(2000, 3, 20)) -> DailyRecord:
    """So many years whose nights are below freezing until the same day of spring, and from 1 November on."""
    days = [date(2000, 1, 1) + timedelta(days=n) for n in range(365 * years + years // 4 + 200)]
    low = np.array([-2.0 if (d.month, d.day) <= (last.month, last.day) or d.month >= 11 else 5.0 for d in days])
    return DailyRecord.of(days[0], low, low + 10.0)


def test_without_own_days_the_region_alone_counts() -> None:
    frosts = frosts_of(None, NORMALS, SITE[0], TODAY)
    assert frosts.source == REGION
    assert frosts.own is None
    assert frosts.frosts == frosts.typical
    dates = frost_dates(frosts, SITE[0], TODAY)
    assert (dates.years, dates.own_usual, dates.typical_usual) == (0, None, None)


def test_own_years_take_over_gradually() -> None:
    alone = frosts_of(None, NORMALS, SITE[0], TODAY).frosts.spring
    assert alone is not None
    usual = []
    for years in (1, 4, 20):
        frosts = frosts_of(record(years), NORMALS, SITE[0], TODAY)
        assert frosts.own is not None
        assert frosts.own.spring is not None
        assert frosts.frosts.spring is not None
        share = frosts.own.years / (frosts.own.years + HALF_WEIGHT_YEARS)
        assert frosts.frosts.spring[1] == pytest.approx(share * frosts.own.spring[1] + (1 - share) * alone[1])
        usual.append(frosts.frosts.spring[1])
    assert alone[1] > usual[0] > usual[1] > usual[2]
    assert frosts_of(record(20), NORMALS, SITE[0], TODAY).source == RECORD
    assert frosts_of(record(1), NORMALS, SITE[0], TODAY).source == REGION
    assert frosts_of(record(1), replace(NORMALS, source="typed"), SITE[0], TODAY).source == TYPED


def test_the_difference_is_kept_to_be_shown() -> None:
    dates = frost_dates(frosts_of(record(8), NORMALS, SITE[0], TODAY), SITE[0], TODAY)
    assert dates.own_usual is not None
    assert dates.typical_usual is not None
    assert dates.own_usual[0] == date(2027, 3, 20)
    assert dates.spring is not None
    assert dates.own_usual[0] < dates.spring[1] < dates.typical_usual[0]  # type: ignore[operator]


def test_where_own_years_have_no_frost_the_one_that_counts_more_decides() -> None:
    mild = record(20)
    mild = replace(mild, low_c=np.full(len(mild), 6.0))
    assert frosts_of(mild, NORMALS, SITE[0], TODAY).frosts.spring is None
    few = record(1)
    few = replace(few, low_c=np.full(len(few), 6.0))
    assert frosts_of(few, NORMALS, SITE[0], TODAY).frosts.spring is not None


def test_a_few_missing_days_are_bridged_and_a_month_is_not() -> None:
    days = [date(2025, 6, 1) + timedelta(days=n) for n in range(100)]
    missing = {*range(20, 23), *range(50, 80)}
    rows = [Day(day, 5.0, 15.0) for n, day in enumerate(days) if n not in missing]
    known = own_days(replace(inputs(), weather=rows, today=date(2026, 1, 1)))
    assert known is not None
    assert np.isfinite(known.low_c[:55]).all()
    assert np.isnan(known.low_c[60:75]).all()
    assert own_days(replace(inputs(), weather=[])) is None
