"""What the plan asks for today."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date

from cloche.apps.gardens.models import Garden
from cloche.apps.plan import texts
from cloche.apps.plan.pages.bed import patch_of
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.today.jobs.job import DAY_H, Job, JobKind, PlantFacts
from cloche.apps.windows.prospects import prospects_for

MOST = 12


def planned(garden: Garden, today: date) -> Iterator[Job]:
    """Plantings whose day has come, the longest meant first."""
    rows = plantings_in(garden).filter(planted_on=None, planned_on__lte=today, ended_on=None).exclude(crop_key="")
    meant = sorted(rows, key=lambda planting: (planting.planned_on or today, planting.pk))[:MOST]
    if not meant:
        return
    prospects = prospects_for([(planting.place_id, planting.crop_key, planting.is_seeded, today) for planting in meant], today)
    for planting in meant:
        sown = planting.is_seeded
        count = texts.how_many(planting, patch_of(planting)) or 0
        name = texts.plants_of(planting) if count != 1 else texts.crop_name(planting)
        prospect = prospects.get((planting.place_id, planting.crop_key, sown, today))
        chance = None if prospect is None else 1 - prospect.chance
        facts = PlantFacts(planting.pk, planting.planned_on or today, f"{count} {name}", sown, chance)
        yield Job(
            JobKind.PLANT, str(planting.pk), garden.pk, planting.place.name, planting.place_id, DAY_H, facts, planting.crop_key
        )
