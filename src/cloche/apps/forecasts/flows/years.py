"""Soil of days gone by, kept by the year: forecasts forget what lies weeks back, and look no further."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import date, datetime, time, timedelta

from django.db import transaction

from cloche.apps.forecasts.inputs import described
from cloche.apps.forecasts.models import SoilYear
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import clock
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.weather import selectors as weather_selectors
from cloche.bridge.values.layout import NEAR_PAST_D
from cloche.bridge.values.stored import PlaceForecast

A_DAY_H = 24


def keep_soil(place: Place, ground: PlaceForecast) -> None:
    """What a forecast knows of the days before its own; the latest word counts."""
    first, hours = ground.day - timedelta(days=NEAR_PAST_D), ground.near_mid_c
    means = {first + timedelta(days=i): sum(hours[i * A_DAY_H : (i + 1) * A_DAY_H]) / A_DAY_H for i in range(NEAR_PAST_D)}
    behind = ground.day - timedelta(days=len(ground.kwh_behind))
    keep_days(place, ground.depth_m, means, kwh={behind + timedelta(days=i): kwh for i, kwh in enumerate(ground.kwh_behind)})


@transaction.atomic
def keep_days(
    place: Place,
    depth_m: float,
    means: Mapping[date, float | None],
    readings: Mapping[int, int] | None = None,
    kwh: Mapping[date, float] | None = None,
) -> None:
    """Write days into their years. readings: days with readings by year, where they were counted; kwh: what its heat used."""
    used = kwh or {}
    for year in {day.year for day in (*means, *used)}:
        row = SoilYear.objects.filter(place=place, year=year).first()
        row = row or SoilYear(place=place, year=year, depth_m=depth_m, mean_c=[None] * 366)
        row.depth_m = depth_m
        for day, mean in means.items():
            if day.year == year and mean is not None:
                row.mean_c[(day - date(year, 1, 1)).days] = round(mean, 2)
        for day, energy in used.items():
            if day.year == year:
                row.kwh = row.kwh or [None] * 366
                row.kwh[(day - date(year, 1, 1)).days] = round(energy, 3)
        if readings is not None:
            row.measured = readings.get(year, 0)
        row.save()


def work_out_year(place: Place, year: int) -> int:
    """A year gone by, from its weather and readings; returns how many of its days are known."""
    from cloche.bridge.services.hindcast import soil_of

    garden, zone = place.garden, place.garden.timezone
    today = clock.today(zone)
    last = min(date(year, 12, 31), today - timedelta(days=1))
    first = date(year, 1, 1)
    begin, end = (datetime.combine(day, time(), tzinfo=zone) for day in (first - timedelta(days=60), last + timedelta(days=1)))
    readings = measured.readings_since(place, begin, end)
    inputs = replace(
        described(place, list(sowings_in(garden))), readings=readings, weather=weather_selectors.weather_days(garden)
    )
    soil = soil_of(inputs, first, last)
    days = {at.astimezone(zone).date() for _, at, _, _ in readings if at.astimezone(zone).year == year}
    keep_days(place, place.seed_depth_m, soil, {year: len(days)})
    return sum(value is not None for value in soil.values())
