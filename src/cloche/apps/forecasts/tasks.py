"""Forecasts, worked out outside requests.

The engine is loaded by the worker that first runs one, not by every process that can ask for one.
"""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.forecasts.status import WORK_OUT_YEAR, stale_places
from cloche.apps.places.flows import WORK_OUT, key_of
from cloche.apps.places.models import Place
from cloche.apps.work import failures, queue


@app.task(name=WORK_OUT)
def work_out(place_id: int) -> None:
    """Refresh the forecast of a place if it is outdated."""
    from cloche.apps.forecasts import flows

    flows.refresh_if_stale(place_id)


@app.task(name=WORK_OUT_YEAR)
def work_out_year(place_id: int, year: int) -> None:
    """Compute a place's soil for a past year."""
    from cloche.apps.forecasts import flows

    place = Place.objects.filter(pk=place_id).select_related("garden").first()
    if place is not None:
        flows.work_out_year(place, year)


def look_round() -> int:
    """Queue every place whose forecast is due and return their number.

    A place whose last try failed waits for its time; it keeps no other waiting.
    """
    due = {key_of(pk): {"place_id": pk} for pk in stale_places()}
    failures.discard_obsolete(WORK_OUT, due)  # a place that is fresh after all has nothing left to be told
    return queue.put_due(WORK_OUT, due, queue.NIGHTLY)
