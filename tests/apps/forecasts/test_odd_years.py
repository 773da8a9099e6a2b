"""What a year can bring: every page still answers in numbers, whatever is missing or beyond the usual."""

import re
from collections.abc import Callable
from datetime import date

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from tests.conftest import NOW
from tests.factories import make_place, make_reading, read_twice_daily, write_air

FIRST = date(2026, 3, 1)


def polar_day(garden: Garden) -> Place:
    """The sun does not set at 78° north from late April on."""
    garden.latitude_deg = 78.0
    garden.save()
    write_air(garden, FIRST, 52, low_c=-14, high_c=-8)
    return read_place(garden, -5.0, -4.0)


def a_month_without_weather(garden: Garden) -> Place:
    write_air(garden, FIRST, 12)
    write_air(garden, date(2026, 4, 15), 7)
    return read_place(garden, 7.0, 12.0)


def a_year_without_weather(garden: Garden) -> Place:
    write_air(garden, date(2025, 3, 1), 20)
    return read_place(garden, 7.0, 12.0)


def no_readings(garden: Garden) -> Place:
    write_air(garden, FIRST, 52)
    return make_place(garden)


def readings_long_ago(garden: Garden) -> Place:
    write_air(garden, FIRST, 52)
    place = make_place(garden)
    make_reading(place, NOW.replace(year=2025), 8.0)
    return place


def seed_on_the_surface(garden: Garden) -> Place:
    write_air(garden, FIRST, 52)
    place = make_place(garden, seed_depth_m=0.0)
    read_twice_daily(place, 5, NOW, 5.0, 16.0)
    return place


def deep_snow(garden: Garden) -> Place:
    write_air(garden, FIRST, 52, low_c=-8, high_c=-1)
    garden.weather.filter(day__gte=date(2026, 4, 10)).update(snow_m=0.6, wind_m_s=0.5)
    return read_place(garden, 0.3, 0.4)


def read_place(garden: Garden, early_c: float, late_c: float) -> Place:
    place = make_place(garden)
    read_twice_daily(place, 5, NOW, early_c, late_c)
    return place


ODD = (
    polar_day,
    a_month_without_weather,
    a_year_without_weather,
    no_readings,
    readings_long_ago,
    seed_on_the_surface,
    deep_snow,
)


@pytest.mark.parametrize("odd", ODD, ids=lambda made: made.__name__)
def test_no_page_shows_what_is_not_a_number(signed_in: Client, garden: Garden, odd: Callable[[Garden], Place]) -> None:
    place = odd(garden)
    refresh(place)
    ours = (garden.pk, place.pk)
    addresses = [reverse(name, args=[garden.pk]) for name in ("today", "ground", "what_wakes", "weather")]
    addresses += [reverse("place", args=ours), reverse("crop_in_place", args=[*ours, "pea"])]
    for address in addresses:
        response = signed_in.get(address)
        assert response.status_code == 200, address
        assert not re.search(r"\b(nan|inf|NaN|Infinity)\b|\bNone\b(?! (yet|is just|typed))", response.content.decode()), address
    ground = Forecast.objects.get(place=place).ground
    assert len(ground.near_mid_c) > 24 * 14
    assert all(v is not None and -60 < v < 70 for v in ground.near_mid_c + ground.far_mid_c)


def test_snow_that_was_noted_keeps_the_ground_at_its_own_warmth(garden: Garden) -> None:
    """Ten degrees of frost are not felt under 60 cm."""
    under, bare = deep_snow(garden), make_place(garden, "Swept bed")
    garden.weather.filter(day__gte=date(2026, 4, 10)).update(low_c=-13, high_c=-7)
    refresh(under)
    garden.weather.update(snow_m=0.0, rain_mm=0.0)
    refresh(bare)
    lowest = [min(Forecast.objects.get(place=p).ground.near_mid_c[19 * 24 : 21 * 24]) for p in (under, bare)]
    assert lowest[0] > lowest[1] + 1
    assert lowest[0] > -1.5
