"""A sowing's life in words: from seed to the bed, where it stood when, and what comes next."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.bench import climate as climates
from cloche.apps.bench import texts
from cloche.apps.bench.life import life_of
from cloche.apps.bench.pages.bench import SHOWS
from cloche.apps.bench.selectors import planting_from
from cloche.apps.forecasts.selectors import ground_of
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing, Step
from cloche.bridge.services import crops
from cloche.bridge.services.planting import BENCH_KINDS
from cloche.bridge.values.units import Units


@dataclass(frozen=True)
class Happened:
    """A step that is past; pk None: it belongs to the sowing itself and is put right there. place: where it stood from then."""

    day: date
    when: str
    text: str
    place: Place | None = None
    pk: int | None = None


@dataclass(frozen=True)
class LifePage:
    """Context of bench/life.html. coming: what is due, (when, what, whether now)."""

    headline: str
    sub: str
    past: list[Happened]
    coming: list[tuple[str, str, bool]]
    warn: str


def life_page(sowing: Sowing, garden: Garden, units: Units, today: date) -> LifePage:
    """One sowing's."""
    crop = crops.crop(sowing.crop_key)
    out = planting_from(garden, {sowing.crop_key}).get(sowing.crop_key)
    planted = any(step.kind == Step.Kind.PLANTED for step in sowing.steps.all())
    raised = sowing.place.kind in BENCH_KINDS or sowing.sown_in_id is not None
    life = life_of(sowing, garden, sowing.place, today, out)
    due = [] if planted or not raised else life.due
    ground = ground_of(sowing.place)
    climate = climates.climate_of(ground) if ground else None
    habit = climates.habit(climate, crop) if climate and life.up >= SHOWS and not planted else None
    return LifePage(
        headline=_("{name}, sown on {day}, now in {place}.").format(
            name=words.sentence(crop.name_plural), day=words.day(sowing.sown_on, today), place=sowing.place.name
        ),
        sub=_age(life.raised.half_on, today),
        past=_past(sowing, units, today),
        coming=[(texts.when(on, today), texts.due_text(life, what, on, today, units), on <= today) for what, on in due],
        warn=texts.habit_text(crop, climate, habit, units) if climate else "",
    )


def _age(half_on: date | None, today: date) -> str:
    if half_on is None:
        return _("Not known to come up yet.")
    if half_on > today:
        return _("Half of them should be up by {day}.").format(day=words.day(half_on, today))
    weeks = (today - half_on).days / 7
    if weeks < 1:
        return _("Up for a few days.")
    return _("Up for about {weeks}.").format(weeks=words.count(round(weeks), "week", "weeks"))


def _past(sowing: Sowing, units: Units, today: date) -> list[Happened]:
    seeds = _("{count} sown").format(count=words.count(sowing.seeds, "seed", "seeds")) if sowing.seeds else _("sown")
    first = sowing.sown_in or sowing.place
    happened = [Happened(sowing.sown_on, words.day(sowing.sown_on, today), words.sentence(seeds), first)]
    happened += [
        Happened(count.on, words.day(count.on, today), _("{up} up").format(up=count.up)) for count in sowing.counts.all()
    ]
    happened += [
        Happened(step.on, words.day(step.on, today), _step(step, units), step.place, step.pk) for step in sowing.steps.all()
    ]
    return sorted(happened, key=lambda event: event.day)


def _step(step: Step, units: Units) -> str:
    text = words.sentence(str(Step.Kind(step.kind).label))
    if step.cell_m is not None:
        text = _("{text} into {length}").format(text=text, length=units.length_text(step.cell_m))
    return text
