"""Making forecasts new: computed outside any request, stored whole or not at all."""

from __future__ import annotations

import logging
from dataclasses import fields, replace
from datetime import date, timedelta

from django.db import connection, transaction

from cloche.apps.forecasts.flows.changes import keep_changes
from cloche.apps.forecasts.flows.years import keep_soil
from cloche.apps.forecasts.inputs import described
from cloche.apps.forecasts.left import keep_left
from cloche.apps.forecasts.models import CropOutlook, Forecast, ModelSnapshot
from cloche.apps.forecasts.pooled import pass_on
from cloche.apps.forecasts.stale import stale, stale_places
from cloche.apps.forecasts.under import seen_under
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.speech import speak_for
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import HotbedTray, Place
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import clock
from cloche.apps.sowings.flows.follow import followed, keep_outlooks
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.weather import selectors as weather_selectors
from cloche.bridge.services import crops, forecasting
from cloche.bridge.services.forecast_steps import PAST_D
from cloche.bridge.services.forecasting import ForecastResult
from cloche.bridge.values.inputs import ForecastInputs
from cloche.bridge.values.stored import CropDays, FrostDates

log = logging.getLogger("cloche.forecast")
LOCK_CLASS = 0x50C1


def refresh(place: Place) -> Forecast:
    """A place's inputs are gathered, its forecast is made, what it says is stored: for the garden's today."""
    revision, inputs = place.input_revision, inputs_of(place)
    return _store(place, revision, inputs.today, forecasting.forecast(inputs))


@transaction.atomic
def _store(place: Place, revision: int, today: date, result: ForecastResult) -> Forecast:
    """The whole of it or nothing, in place of what was stored."""
    before = Forecast.objects.filter(place=place).only("cover_evidence", "frosts").first()
    frosts = _since_when(result.frosts, before.frosts if before else None, today)
    forecast, _ = Forecast.objects.update_or_create(
        place=place,
        defaults={
            "made_at": clock.now(),
            "day": today,
            "input_revision": revision,
            "model_version": crops.MODEL_VERSION,
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
    """With the dates of the source that was used before, so that a change can be announced."""
    if before is None or not before.source:
        return frosts
    if before.source != frosts.source:
        return replace(frosts, before=replace(before, before=None, since=None), since=today)
    return replace(frosts, before=before.before, since=before.since)


def _outlook(place: Place, days: CropDays) -> CropOutlook:
    columns = {each.name: getattr(days, each.name) for each in fields(days)}
    return CropOutlook(place=place, **columns | {"main_limit": days.main_limit or ""})


def refresh_if_stale(place_id: int) -> bool:
    """Refresh one place if its forecast is missing, of another day or overtaken by its inputs; returns whether it was.

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
    keep_left([sowing for sowing in sowings if sowing.place_id == place.pk])
    return replace(
        described(place, sowings),
        readings=measured.readings_since(place, clock.now() - timedelta(days=PAST_D), clock.now()),
        weather=weather_selectors.weather_days(garden),
        record_is_simulated=weather_selectors.is_simulated(garden),
        under=seen_under(place, clock.now() - timedelta(days=PAST_D)),
        sown=tuple(followed(place, sowings, clock.today(garden.timezone))),
    )
