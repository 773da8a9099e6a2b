"""Making forecasts new: computed outside any request, stored whole or not at all."""

from __future__ import annotations

import logging
from dataclasses import asdict, replace
from datetime import timedelta

from django.db import connection, transaction

from cloche.apps.forecasts.flows.changes import keep_changes
from cloche.apps.forecasts.inputs import described
from cloche.apps.forecasts.models import CropOutlook, Forecast, ModelSnapshot
from cloche.apps.forecasts.pooled import pass_on
from cloche.apps.forecasts.stale import stale, stale_places
from cloche.apps.forecasts.under import seen_under
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.speech import speak_for
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import clock
from cloche.apps.sowings.flows.follow import followed, keep_outlooks
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.weather import selectors as weather_selectors
from cloche.bridge.services import crops, forecasting
from cloche.bridge.values.inputs import ForecastInputs

log = logging.getLogger("cloche.forecast")
LOCK_CLASS = 0x50C1


def refresh(place: Place) -> Forecast:
    """Run the place's forecast for the garden's today and replace the stored one."""
    input_revision = place.input_revision
    inputs = inputs_of(place)
    result = forecasting.forecast(inputs)
    before = Forecast.objects.filter(place=place).values_list("ground__cover_evidence", flat=True).first() or {}
    with transaction.atomic():
        forecast, _ = Forecast.objects.update_or_create(
            place=place,
            defaults={
                "made_at": clock.now(),
                "day": inputs.today,
                "input_revision": input_revision,
                "model_version": crops.MODEL_VERSION,
                "ground": asdict(result.ground),
                "watch": result.watch,
            },
        )
        ModelSnapshot.objects.update_or_create(place=place, defaults={"packed": result.snapshot})
        keep_changes(place, result.crops, inputs.today)
        CropOutlook.objects.filter(place=place).delete()
        CropOutlook.objects.bulk_create(CropOutlook(place=place, **asdict(days)) for days in result.crops)
        keep_outlooks(result.sown)
        pass_on(place, before, result.ground.cover_evidence)
    return forecast


def refresh_if_stale(place_id: int) -> bool:
    """Refresh one place if its forecast is missing, of another day or overtaken by evidence; returns whether it was.

    Two workers may be asked at once: a place being worked on is locked and skipped.
    """
    garden = Garden.objects.filter(places__pk=place_id).first()
    return garden is not None and _refresh_locked(garden, place_id)


def refresh_stale() -> int:
    """Refresh every place that needs it, here and now; returns how many."""
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
    """All that a place's forecast rests on today."""
    garden = place.garden
    speak_for(garden)
    sowings = list(sowings_in(garden))
    return replace(
        described(place, sowings),
        readings=measured.readings_since(place, clock.now() - timedelta(days=forecasting.PAST_D), clock.now()),
        weather=weather_selectors.weather_days(garden),
        under=seen_under(place, clock.now() - timedelta(days=forecasting.PAST_D)),
        sown=tuple(followed(place, sowings, clock.today(garden.timezone))),
    )
