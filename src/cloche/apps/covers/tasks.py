"""Questions that take the engine long, outside requests."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.covers import flows
from cloche.apps.places.models import Cover, Place


@app.task(name=flows.ANSWER_BED)
def answer_bed(cover_id: int, place_id: int) -> None:
    """Compute the effect of a cover on a bed, unless either has been deleted."""
    cover = Cover.objects.filter(pk=cover_id, removed_at__isnull=True).select_related("garden").first()
    place = Place.objects.filter(pk=place_id, forecast__isnull=False).select_related("forecast", "garden").first()
    if cover is not None and place is not None and place.garden_id == cover.garden_id:
        flows.answer_bed(cover, place)


@app.task(name=flows.MOVE_SEASON)
def move_season(place_id: int, keys: list[str]) -> None:
    """Compute the windows of a bed under some covers, unless it has been deleted."""
    place = Place.objects.filter(pk=place_id, forecast__isnull=False).select_related("forecast", "garden").first()
    if place is not None:
        flows.answer_seasons(place, keys)
