"""Making forecasts new: computed outside any request, stored whole or not at all."""

from __future__ import annotations

import logging
from dataclasses import asdict
from datetime import timedelta

from django.db import connection, transaction
from django.db.models import F, Q, QuerySet

from cloche.apps.gardens import clock
from cloche.apps.gardens.models import Garden, Place
from cloche.apps.readings import selectors as measured
from cloche.apps.windows.models import CropOutlook, Forecast
from cloche.bridge import crops, forecasting

log = logging.getLogger("cloche.forecast")
LOCK_CLASS = 0x50C1


def refresh(place: Place) -> Forecast:
    """Run the place's forecast for the garden's today and replace the stored one."""
    evidence_number = place.evidence
    evidence = _evidence(place)
    ground, outlooks = forecasting.forecast(evidence)
    with transaction.atomic():
        forecast, _ = Forecast.objects.update_or_create(
            place=place,
            defaults={
                "made_at": clock.now(),
                "day": evidence.today,
                "evidence": evidence_number,
                "model_version": crops.MODEL_VERSION,
                "ground": asdict(ground),
            },
        )
        CropOutlook.objects.filter(place=place).delete()
        CropOutlook.objects.bulk_create(CropOutlook(place=place, **asdict(days)) for days in outlooks)
    return forecast


def refresh_stale() -> int:
    """Refresh every place whose forecast is missing, of another day or overtaken by evidence; returns how many.

    Two keepers may run at once: a place being worked on is locked and skipped.
    """
    done = 0
    for garden in Garden.objects.all():
        stale = _stale(garden).values_list("pk", flat=True)
        for pk in list(stale):
            done += _refresh_locked(garden, pk)
    return done


def _refresh_locked(garden: Garden, pk: int) -> int:
    with transaction.atomic():
        # An advisory lock, not a row lock: recording a reading must never wait for a forecast.
        with connection.cursor() as cursor:
            cursor.execute("SELECT pg_try_advisory_xact_lock(%s, %s)", [LOCK_CLASS, pk])
            held = cursor.fetchone()[0]
        place = _stale(garden).filter(pk=pk).first() if held else None
        if place is None:
            return 0
        refresh(place)
    log.info("forecast of place %s in garden %s refreshed", pk, garden.pk)
    return 1


def _stale(garden: Garden) -> QuerySet[Place]:
    other = (
        Q(forecast__isnull=True)
        | ~Q(forecast__day=clock.today(garden.timezone))
        | ~Q(forecast__evidence=F("evidence"))
        | ~Q(forecast__model_version=crops.MODEL_VERSION)
    )
    return garden.places.filter(other)


def _evidence(place: Place) -> forecasting.Evidence:
    garden = place.garden
    return forecasting.Evidence(
        kind=place.kind,
        seed_depth_m=place.seed_depth_m,
        latitude_deg=garden.latitude_deg,
        longitude_deg=garden.longitude_deg,
        elevation_m=garden.elevation_m,
        timezone=garden.timezone,
        today=clock.today(garden.timezone),
        readings=measured.readings_since(place, clock.now() - timedelta(days=forecasting.PAST_D)),
        weather=measured.weather_rows(garden),
        typed_normals=_typed_normals(garden),
        seed=garden.pk,
    )


def _typed_normals(garden: Garden) -> tuple[list[float], list[float]] | None:
    lows, highs = garden.normal_lows_c, garden.normal_highs_c
    return (lows, highs) if lows and highs else None
