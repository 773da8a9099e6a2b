"""Make forecasts, store them, and note how their windows moved."""

from __future__ import annotations

import logging
from collections.abc import Mapping
from dataclasses import fields, replace
from datetime import date, datetime, time, timedelta

from django.db import connection, transaction

from cloche.apps.forecasts.inputs import build_inputs, core_readings, pass_on, seen_under
from cloche.apps.forecasts.models import CropOutlook, Forecast, ModelSnapshot, SoilYear, WindowChange
from cloche.apps.forecasts.status import keep_left, stale, stale_places
from cloche.apps.gardens.language import speak_for
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import HotbedTray, Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import clock
from cloche.apps.sowings.flows import followed, keep_outlooks
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.weather import selectors as weather_selectors
from cloche_engine import api
from cloche_engine.inputs import ForecastInputs
from cloche_engine.layout import NEAR_PAST_D, PAST_D
from cloche_engine.results import MODEL_VERSION, CropDays, ForecastResult, FrostDates, PlaceForecast, Window

LEAST_D = 2
KEPT = timedelta(days=40)


def keep_changes(place: Place, crops: list[CropDays], today: date) -> None:
    """Record every window that opened, closed or moved by two days or more."""
    known = place.outlooks.filter(better=True).values_list("crop_key", "method", "windows")
    before = {(crop_key, method): windows for crop_key, method, windows in known}
    rows = []
    for crop in crops:
        if not crop.better or (crop.crop_key, crop.method) not in before:
            continue
        was, now = (_first(windows, today) for windows in (before[crop.crop_key, crop.method], crop.windows))
        if was != now and (was is None or now is None or abs((was - now).days) >= LEAST_D):
            rows.append(
                WindowChange(place=place, crop_key=crop.crop_key, method=crop.method, at=clock.now(), before=was, after=now)
            )
    WindowChange.objects.filter(place=place, at__lt=clock.now() - KEPT).delete()
    WindowChange.objects.bulk_create(rows)


def _first(windows: list[Window], today: date) -> date | None:
    # A window that is open counts from today: that another day has passed is no change.
    return max(windows[0].earliest, today) if windows else None


A_DAY_H = 24


def keep_soil(place: Place, ground: PlaceForecast) -> None:
    """Store what a forecast knows of past days, replacing earlier estimates."""
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
    """Write days to their years. `readings` counts days with readings by year, `kwh` the energy of heat."""
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
    """Compute a past year from weather and readings, and return the number of known days."""

    garden, zone = place.garden, place.garden.timezone
    today = clock.today(zone)
    last = min(date(year, 12, 31), today - timedelta(days=1))
    first = date(year, 1, 1)
    begin, end = (datetime.combine(day, time(), tzinfo=zone) for day in (first - timedelta(days=60), last + timedelta(days=1)))
    readings = _readings(place, begin, end)
    inputs = replace(
        build_inputs(place, list(sowings_in(garden))), readings=readings, weather=weather_selectors.weather_days(garden)
    )
    soil = api.soil_of(inputs, first, last)
    days = {at.astimezone(zone).date() for _, at, _, _ in readings if at.astimezone(zone).year == year}
    keep_days(place, place.seed_depth_m, soil, {year: len(days)})
    return sum(value is not None for value in soil.values())


def _readings(place: Place, start: datetime, end: datetime) -> list[tuple[int, datetime, float, float]]:
    """Return everything measured in the soil of a place, and at the core of a hotbed, oldest first."""
    cores = [row for row in core_readings(place, start) if row[1] <= end]
    return sorted(measured.readings_since(place, start, end) + cores, key=lambda row: row[1])


log = logging.getLogger("cloche.forecast")
LOCK_CLASS = 0x50C1


def refresh(place: Place) -> Forecast:
    """Collect the inputs of a place, compute its forecast for the garden's today and store it."""
    revision, inputs = place.input_revision, inputs_of(place)
    return _store(place, revision, inputs.today, api.forecast(inputs))


@transaction.atomic
def _store(place: Place, revision: int, today: date, result: ForecastResult) -> Forecast:
    """Replace the stored forecast in one transaction."""
    before = Forecast.objects.filter(place=place).only("cover_evidence", "frosts").first()
    frosts = _since_when(result.frosts, before.frosts if before else None, today)
    forecast, _ = Forecast.objects.update_or_create(
        place=place,
        defaults={
            "made_at": clock.now(),
            "day": today,
            "input_revision": revision,
            "model_version": MODEL_VERSION,
            "ground": result.ground,
            "frosts": frosts,
            "cover_evidence": result.cover_evidence,
            "nights": result.nights,
            "watch": result.watch,
        },
    )
    ModelSnapshot.objects.update_or_create(place=place, defaults={"packed": result.snapshot})
    keep_changes(place, result.crops, today)
    keep_soil(place, result.ground)
    for tray in HotbedTray.objects.filter(hotbed=place, place__removed_at__isnull=True).select_related("place"):
        note_change_at(tray.place)
    CropOutlook.objects.filter(place=place).delete()
    CropOutlook.objects.bulk_create(_outlook(place, days) for days in result.crops)
    keep_outlooks(result.sown)
    pass_on(place, before.cover_evidence if before else None, result.cover_evidence)
    return forecast


def _since_when(frosts: FrostDates, before: FrostDates | None, today: date) -> FrostDates:
    """Return the frost dates with those of the previous source, so that a change can be announced."""
    if before is None or not before.source:
        return frosts
    if before.source != frosts.source:
        return replace(frosts, before=replace(before, before=None, since=None), since=today)
    return replace(frosts, before=before.before, since=before.since)


def _outlook(place: Place, days: CropDays) -> CropOutlook:
    columns = {each.name: getattr(days, each.name) for each in fields(days)}
    return CropOutlook(place=place, **columns | {"main_limit": days.main_limit or ""})


def refresh_if_stale(place_id: int) -> bool:
    """Refresh a place whose forecast is missing or outdated, and return whether it was.

    Two workers may be asked at once: a place being worked on is locked and skipped.
    """
    garden = Garden.objects.filter(places__pk=place_id).first()
    return garden is not None and _refresh_locked(garden, place_id)


def refresh_stale() -> int:
    """Refresh all outdated places in this process and return their number."""
    return sum(refresh_if_stale(pk) for pk in stale_places())


def _refresh_locked(garden: Garden, pk: int) -> bool:
    with transaction.atomic():
        # An advisory lock, not a row lock: recording a reading must never wait for a forecast.
        with connection.cursor() as cursor:
            cursor.execute("SELECT pg_try_advisory_xact_lock(%s, %s)", [LOCK_CLASS, pk])
            snapshot = cursor.fetchone()[0]
        place = stale(garden.places.all(), clock.today(garden.timezone)).filter(pk=pk).first() if snapshot else None
        if place is None:
            return False
        refresh(place)
    log.info("forecast of place %s in garden %s refreshed", pk, garden.pk)
    return True


def inputs_of(place: Place) -> ForecastInputs:
    """Return everything a place's forecast rests on today."""
    garden = place.garden
    speak_for(garden)
    sowings = list(sowings_in(garden))
    keep_left([sowing for sowing in sowings if sowing.place_id == place.pk])
    since = clock.now() - timedelta(days=PAST_D)
    return replace(
        build_inputs(place, sowings),
        readings=_readings(place, since, clock.now()),
        weather=weather_selectors.weather_days(garden),
        record_is_simulated=weather_selectors.is_simulated(garden),
        under=seen_under(place, since),
        sown=tuple(followed(place, sowings, clock.today(garden.timezone))),
    )
