"""Questions that take the engine long, outside requests."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.gardens.models import Cover, Place
from cloche.apps.warming.flows import bed_answers


@app.task(name=bed_answers.ANSWER_BED)
def answer_bed(cover_id: int, place_id: int) -> None:
    """What one cover would do on one bed; what is gone meanwhile is left alone."""
    cover = Cover.objects.filter(pk=cover_id, removed_at__isnull=True).select_related("garden").first()
    place = Place.objects.filter(pk=place_id, forecast__isnull=False).select_related("forecast", "garden").first()
    if cover is not None and place is not None and place.garden_id == cover.garden_id:
        bed_answers.answer(cover, place)
