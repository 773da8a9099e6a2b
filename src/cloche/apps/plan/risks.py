"""What speaks against the days that a plan says, and a better day: the same prospect as the crop's own page has."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.plants.models import Planting
from cloche.apps.shared import words
from cloche.apps.windows import prospects
from cloche.bridge.services import crops


def of_plantings(plantings: Iterable[Planting], today: date) -> list[str]:
    """A sentence for each planting that is still to go in and would fail more often than not on its day; one query."""
    meant = [
        planting
        for planting in plantings
        if planting.crop_key and planting.planted_on is None and planting.planned_on is not None
    ]
    outlooks = prospects.outlooks_of([(planting.place_id, planting.crop_key) for planting in meant])
    risks = []
    for planting in meant:
        outlook = outlooks.get((planting.place_id, planting.crop_key, planting.is_seeded))
        on = max(planting.planned_on or today, today)
        judged = prospects.prospect_on(outlook, on, today) if outlook else None
        if outlook is None or judged is None or not judged.is_risky:
            continue
        name = words.sentence(crops.crop(planting.crop_key).name_plural)
        text = prospects.warning(judged, name, today)
        better = prospects.better_than(outlook, judged, today)
        if better is not None:
            chance = words.likely(better.chance)
            text += " " + _("{day} would be better: it succeeds {likely}.").format(
                day=words.sentence(words.day(better.on, today)), likely=chance
            )
        risks.append(text)
    return risks
