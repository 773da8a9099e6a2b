"""All beds at once: drawn small, what comes next, the season in bars."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from datetime import date, timedelta
from math import ceil

from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plan import texts
from cloche.apps.plan.pages.bed import patch_of
from cloche.apps.plants import selectors as plants
from cloche.apps.plants.models import BedShape, Planting
from cloche.apps.seed.models import Packet
from cloche.apps.shared import words
from cloche.bridge.services import crops
from cloche.drawing import bed_plan
from cloche_engine.places.kinds import BENCHES

SOON_D, SHOWN = 21, 60
SPARE = 1.1
"""A tenth more seed than the plan takes (assumption)."""


@dataclass(frozen=True)
class SmallBed:
    """Thumbnail of a bed, with the outline and kind of each patch."""

    place: Place
    plan: bed_plan.BedPlan
    patches: list[tuple[bed_plan.Box, str, str]]
    text: str


@dataclass(frozen=True)
class Meant:
    """A planned planting with its date and place; `kind` is late, soon or later."""

    planting: Planting
    when: str
    what: str
    kind: str


@dataclass(frozen=True)
class SeedNeed:
    """Seed that the plan still needs of a crop, and what the seed box holds."""

    name: str
    crop_key: str
    seeds: int
    has: str


@dataclass(frozen=True)
class PlanPage:
    """Context of plan/plan.html."""

    headline: str
    sub: str
    beds: list[SmallBed]
    meant: list[Meant]
    more: int
    seed: list[SeedNeed]


def plan_page(garden: Garden, today: date) -> PlanPage:
    """Build the plan page of a garden."""
    places = [place for place in garden.places.all() if place.kind not in BENCHES]
    there = list(plants.current_in(garden, today))
    shapes = {shape.place_id: shape for shape in BedShape.objects.filter(place__in=places)}
    waiting = sorted(
        (planting for planting in there if planting.crop_key and planting.planted_on is None and planting.place in places),
        key=lambda planting: (planting.planned_on or date.max, planting.place.walking_order, planting.pk),
    )
    done = plants.plantings_in(garden).filter(planted_on__year=today.year).count()
    meant = [_meant(planting, today) for planting in waiting[:SHOWN]]
    late = [line for line in meant if line.kind == "late"]
    return PlanPage(
        headline=_headline(meant, late, bool(there) or bool(done)),
        sub=_sub(len(waiting), done),
        beds=[
            _small(place, shapes.get(place.pk), [planting for planting in there if planting.place_id == place.pk])
            for place in places
        ],
        meant=meant,
        more=max(len(waiting) - SHOWN, 0),
        seed=seed_needed(garden, waiting),
    )


def _headline(meant: list[Meant], late: list[Meant], begun: bool) -> str:
    if not begun:
        return _("What will you grow where this year?")
    if late:
        number = len(late)
        text = ngettext(
            "One planting in the plan is late: {what}.", "{number} plantings in the plan are late, first {what}.", number
        )
        return text.format(number=number, what=f"{late[0].what}")
    if meant:
        return _("Next in the plan: {what}, {when}.").format(what=meant[0].what, when=meant[0].when)
    return _("Everything in the plan has been sown or planted.")


def _sub(waiting: int, done: int) -> str:
    return _("{done} done this year, {waiting} still planned. Choose a bed to open its plan.").format(
        done=words.count(done, "planting", "plantings"), waiting=waiting
    )


def _small(place: Place, shape: BedShape | None, rows: list[Planting]) -> SmallBed:
    shape = shape or BedShape(place=place, width_m=min(max(place.width_m, 0.2), 20.0))
    boxes = []
    for row in rows:
        if row.x_m is None or row.y_m is None:
            continue
        sides = (round(100 * value, 1) for value in (row.x_m, row.y_m, row.length_m, row.width_m))
        kind = "left" if not row.crop_key else "planned" if row.planted_on is None else "standing"
        boxes.append((bed_plan.Box(*sides), kind, texts.name_of(row)))
    names = Counter(texts.crop_name(row) for row in rows if row.crop_key)
    text = words.listed(sorted(names), 4) if names else _("nothing yet")
    return SmallBed(place, bed_plan.bed_plan(shape.length_m, shape.width_m, shape.square_m, shape.runs_deg), boxes, text)


def _meant(planting: Planting, today: date) -> Meant:
    count = texts.how_many(planting, patch_of(planting)) or 0
    name = texts.plants_of(planting) if count != 1 else texts.crop_name(planting)
    what = _("{count} {name} in {place}").format(count=count, name=name, place=planting.place.name)
    if planting.planned_on is None:
        return Meant(planting, _("without a date"), what, "later")
    kind = (
        "late" if planting.planned_on < today else "soon" if planting.planned_on <= today + timedelta(days=SOON_D) else "later"
    )
    return Meant(planting, words.day(planting.planned_on, today), what, kind)


def seed_needed(garden: Garden, waiting: list[Planting]) -> list[SeedNeed]:
    """Return the seed needed by planned plantings of each crop."""
    needs: Counter[str] = Counter()
    for planting in waiting:
        patch = patch_of(planting)
        if patch and planting.origin in (Planting.Origin.SOWN, Planting.Origin.RAISED, Planting.Origin.SETS):
            needs[planting.crop_key] += patch.seeds
    kept = Packet.objects.filter(garden=garden, removed_at__isnull=True)
    packets = Counter(kept.values_list("crop_key", flat=True))
    return [
        SeedNeed(
            crops.crop(key).name,
            key,
            ceil(number * SPARE),
            words.count(packets[key], "packet", "packets") if packets[key] else _("none in the box: buy some"),
        )
        for key, number in sorted(needs.items(), key=lambda item: crops.crop(item[0]).name)
    ]
