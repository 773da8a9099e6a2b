"""Stored forecasts as each process remembers them: they change only when a place is worked out again, and pages of a large
garden read dozens at once."""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from typing import Any, NamedTuple
from uuid import UUID

from django.db.models import Count, Max, Min

from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.gardens.models import Garden
from cloche_engine.results import Window

RECORDS = ("ground", "frosts", "cover_evidence", "nights", "watch")
MOST_PLACES = 128
"""A fifth of a megabyte each."""


class BriefOutlook(NamedTuple):
    """A crop in a place by the suitable method, with its windows only."""

    place_id: int
    crop_key: str
    method: str
    sow_now: bool
    half_d: float | None
    hopeless: bool
    windows: list[Window]
    main_limit: str


@lru_cache(maxsize=MOST_PLACES)
def _records(stored: UUID) -> dict[str, Any]:
    """Return the cached records of one forecast, filled on demand."""
    return {}


@lru_cache(maxsize=4 * MOST_PLACES)
def _outlooks(place_id: int, first: int, last: int, number: int) -> list[BriefOutlook]:
    """Return cached outlooks. They are replaced rather than changed, so their numbers identify a version."""
    return []


def fill(forecasts: Iterable[Forecast]) -> None:
    """Load the records that were left out of some forecasts, in at most one query."""
    those = [(forecast, forecast.stored) for forecast in forecasts]
    lacking = [forecast.pk for forecast, stored in those if stored is not None and not _records(stored)]
    if lacking:
        for row in Forecast.objects.filter(pk__in=lacking).values("stored", *RECORDS):
            _records(row.pop("stored")).update(row)
    for forecast, stored in those:
        # What was stored anew in between is read by itself.
        if stored is not None:
            for name, record in _records(stored).items():
                setattr(forecast, name, record)


def outlooks_in(garden: Garden) -> list[BriefOutlook]:
    """Return every crop in every place by the suitable method, in at most two queries."""
    rows = CropOutlook.objects.filter(place__garden=garden, better=True)
    lots = rows.order_by("place_id").values_list("place_id").annotate(Min("pk"), Max("pk"), Count("pk"))
    by_lot = {lot[0]: _outlooks(*lot) for lot in lots}
    lacking = [place_id for place_id, kept in by_lot.items() if not kept]
    if lacking:
        read: dict[int, list[BriefOutlook]] = {place_id: [] for place_id in lacking}
        for row in rows.filter(place_id__in=lacking).order_by("pk").values_list(*BriefOutlook._fields):
            read[row[0]].append(BriefOutlook(*row))
        for place_id, outlooks in read.items():
            # At once: another thread never finds it half filled.
            by_lot[place_id][:] = outlooks
    return [outlook for kept in by_lot.values() for outlook in kept]
