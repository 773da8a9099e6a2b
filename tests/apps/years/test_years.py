"""Year against year: what is kept of the soil, what is worked out of earlier years, and what the page says."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import numpy as np
import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import keep_days, refresh, work_out_year
from cloche.apps.forecasts.inputs import build_inputs
from cloche.apps.forecasts.models import SoilYear
from cloche.apps.forecasts.selectors import daily_soil
from cloche.apps.forecasts.status import ask_for_earlier
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants.models import PlantEvent, Planting
from cloche.apps.weather.models import DailyWeather
from cloche.apps.years.models import Sign
from cloche.apps.years.pages import first_of, year_name
from cloche.bridge.services.years import short_days
from tests.conftest import NOW
from tests.factories import make_garden, make_place, make_reading, write_air

TODAY = NOW.date()


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def soil(place: Place, year: int, shift_c: float = 0.0, until: date | None = None) -> None:
    """A year of soil: a wave from 1 °C in January to 21 °C in July."""
    first = date(year, 1, 1)
    days = [first + timedelta(days=i) for i in range(365)]
    wave = 11 - 10 * np.cos(2 * np.pi * (np.arange(365) - 15) / 365) + shift_c
    keep_days(place, 0.05, {day: float(value) for day, value in zip(days, wave, strict=True) if until is None or day < until})


def page(client: Client, garden: Garden, query: str = "") -> str:
    return client.get(reverse("years", args=[garden.pk]) + query).content.decode()


def test_a_forecast_leaves_its_past_days_behind(bed: Place) -> None:
    make_reading(bed, NOW - timedelta(days=1), 9.0)
    ground = refresh(bed).ground
    row = SoilYear.objects.get()
    known = [value for value in row.mean_c if value is not None]
    assert (row.year, len(known)) == (2026, 21)
    yesterday = (TODAY - timedelta(days=1) - date(2026, 1, 1)).days
    assert row.mean_c[yesterday] == pytest.approx(sum(ground.near_mid_c[20 * 24 : 21 * 24]) / 24, abs=0.01)


def test_a_leap_year_has_its_day_and_years_meet(bed: Place) -> None:
    keep_days(bed, 0.05, {date(2024, 12, 31): 3.0, date(2025, 1, 1): 4.0, date(2024, 2, 29): 1.0})
    assert daily_soil(bed, None, date(2024, 12, 30), 3) == [None, 3.0, 4.0]
    assert daily_soil(bed, None, date(2024, 2, 28), 3) == [None, 1.0, None]


def test_a_year_gone_by_is_drawn_to_what_was_read(bed: Place) -> None:
    write_air(bed.garden, date(2025, 1, 1), 365, 4.0, 14.0)
    assert work_out_year(bed, 2025) == 365
    plain = daily_soil(bed, None, date(2025, 4, 1), 30)
    for day in range(20):
        for hour in (5, 14):
            make_reading(bed, NOW.replace(year=2025, month=4, day=1, hour=hour) + timedelta(days=day), 15.0)
    work_out_year(bed, 2025)
    drawn = daily_soil(bed, None, date(2025, 4, 1), 30)
    far = daily_soil(bed, None, date(2025, 8, 1), 1)
    assert all(abs((value or 0) - 15.0) < 1.5 for value in drawn[5:15])
    assert abs((plain[8] or 0) - 15.0) > abs((drawn[8] or 0) - 15.0)
    assert far[0] is not None
    assert SoilYear.objects.get(year=2025).measured == 20


def test_days_without_weather_are_not_made_up(bed: Place) -> None:
    write_air(bed.garden, date(2025, 3, 1), 60)
    DailyWeather.objects.filter(day__range=(date(2025, 3, 20), date(2025, 3, 21))).delete()
    known = work_out_year(bed, 2025)
    assert 60 <= known <= 62
    assert daily_soil(bed, None, date(2025, 3, 20), 1)[0] is not None
    assert daily_soil(bed, None, date(2025, 6, 1), 1) == [None]


def test_years_with_weather_are_asked_for_once(bed: Place) -> None:
    assert not ask_for_earlier(bed, TODAY)
    write_air(bed.garden, date(2024, 1, 1), 300)
    assert ask_for_earlier(bed, TODAY)
    work_out_year(bed, 2024)
    assert not ask_for_earlier(bed, TODAY)


def test_a_spring_that_runs_ahead_says_so(signed_in: Client, bed: Place) -> None:
    for year in (2023, 2024, 2025):
        soil(bed, year)
    soil(bed, 2026, 1.4, until=TODAY)
    given = page(signed_in, bed.garden)
    assert "days ahead of its usual spring" in given
    assert "the mean of 3 other years" in given
    assert given.count('<text class="year"') == 4
    soil(bed, 2026, -1.4, until=TODAY)
    assert "days behind its usual spring" in page(signed_in, bed.garden)


def test_sowings_of_a_crop_stand_side_by_side(signed_in: Client, bed: Place) -> None:
    soil(bed, 2025)
    for ago, ups in ((400, (20, 78)), (35, ())):
        sowing = bed.sowings.create(crop_key="pea", sown_on=TODAY - timedelta(days=ago), seeds=100, depth_m=0.03)
        for number, up in enumerate(ups):
            sowing.counts.create(on=sowing.sown_on + timedelta(days=15 + 8 * number), up=up)
    given = page(signed_in, bed.garden, "?crop=pea")
    assert "<td>23 days</td><td>78</td>" in given
    assert 'class="sown up"' in given


def test_what_stood_and_what_died_tells_a_kind_s_limit(signed_in: Client, bed: Place) -> None:
    kale = Planting.objects.create(place=bed, crop_key="kale", planted_on=date(2025, 8, 1), origin="raised")
    PlantEvent.objects.create(planting=kale, kind="stood", on=date(2026, 1, 12), number=4, lowest_c=-12.0)
    PlantEvent.objects.create(planting=kale, kind="died", on=date(2026, 1, 12), number=4, cause="slugs", lowest_c=-12.0)
    PlantEvent.objects.create(planting=kale, kind="grows", on=date(2026, 2, 20))
    given = page(signed_in, bed.garden)
    assert "assumed to survive about −12" in given
    assert build_inputs(bed, []).limits["kale"] == -12.0
    assert "the list says −10.0°" in given
    assert "started growing again on 20 February" in given


def test_signs_are_written_down_with_the_soil_they_were_seen_in(signed_in: Client, bed: Place) -> None:
    soil(bed, 2025)
    soil(bed, 2026, until=TODAY)
    url = reverse("add_sign", args=[bed.garden_id])
    signed_in.post(url, {"name": "First dandelion", "on": "2025-04-02"})
    signed_in.post(url, {"name": "first dandelion", "on": "2026-04-05"})
    given = page(signed_in, bed.garden)
    assert "2 April 2025 (soil" in given
    assert "the first week of 10°" in given
    refused = signed_in.post(url, {"name": "Swallows", "on": "2026-08-01"})
    assert refused.status_code == 422
    assert "in the future" in refused.content.decode()
    signed_in.post(reverse("remove_sign", args=[bed.garden_id, Sign.objects.earliest("pk").pk]))
    assert Sign.objects.count() == 1


def test_the_south_begins_its_year_in_july(person: Any) -> None:
    garden = make_garden(person, "South", latitude_deg=-38.0, longitude_deg=145.0, timezone_name="Australia/Melbourne")
    first = first_of(garden, date(2026, 4, 22))
    assert (first, year_name(first)) == (date(2025, 7, 1), "2025/26")
    assert year_name(first_of(make_garden(person, "North"), date(2026, 4, 22))) == "2026"


def test_ten_hours_go_in_autumn_and_return_in_late_winter() -> None:
    """Common practice, no source: about 50° north days are too short from late October to mid February."""
    gone, back = short_days(2025, 50.0) or (date.min, date.min)
    assert date(2025, 10, 20) <= gone <= date(2025, 11, 3)
    assert date(2026, 2, 8) <= back <= date(2026, 2, 18)
    south = short_days(2026, -43.0)
    assert south is not None
    assert south[0].month == 5
    assert short_days(2025, 20.0) is None


def test_a_garden_without_beds_and_a_bed_without_days_say_so(signed_in: Client, garden: Garden) -> None:
    assert "Add a bed first" in page(signed_in, garden)
    make_place(garden)
    assert "No soil temperatures are known yet" in page(signed_in, garden)
