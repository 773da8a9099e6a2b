"""What was written down of a hotbed, of a source of heat, and of a sowing’s life."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.bench import selectors as climates
from cloche.apps.bench import texts
from cloche.apps.bench.life import Life, life_of, ripe_on, waits_to_go_out
from cloche.apps.bench.pages.bench import SHOWS
from cloche.apps.bench.selectors import heat_on, planting_from
from cloche.apps.covers.pages.hotbed import hot_text
from cloche.apps.forecasts.selectors import ground_of
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatTest, Hotbed, HotbedFill, HotbedNote, Place
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing, Step
from cloche.bridge.services import crops, hotbeds
from cloche.bridge.services.hotbeds import EVEN_K, layer_for, spread_k
from cloche.bridge.values.units import Units
from cloche.drawing import scale
from cloche_engine.places.kinds import BENCH_KINDS

SUNK = 0.25
"""So much of its height gone asks for a top-up (common practice, no source)."""


@dataclass(frozen=True)
class DiaryLine:
    """An entry with kind and number to delete it, "" for the first filling of the bed."""

    day: date
    when: str
    text: str
    kind: str
    pk: int


@dataclass(frozen=True)
class DiaryPage:
    """Context of bench/diary.html."""

    headline: str
    sub: str
    lines: list[DiaryLine]


def diary_page(place: Place, units: Units, today: date) -> DiaryPage:
    """Return the diary of one hotbed."""
    bed = Hotbed.objects.filter(place=place).first()
    notes, fills = list(place.hotbed_notes.all()), list(place.hotbed_fills.all())
    lines = [DiaryLine(fill.on, words.day(fill.on, today), _fill(fill, units), "fill", fill.pk) for fill in fills]
    lines += [DiaryLine(note.on, words.day(note.on, today), _note(note, units), "note", note.pk) for note in notes]
    if bed is not None:
        lines.append(DiaryLine(bed.filled_on, words.day(bed.filled_on, today), _filled(bed, units), "", 0))
        if bed.topped_up_on is not None:
            on = bed.topped_up_on
            lines.append(DiaryLine(on, words.day(on, today), _("Topped up with half as much again"), "", 0))
    return DiaryPage(*_headline(place, bed, notes, fills, units, today), sorted(lines, key=lambda line: line.day))


def sunk_m(bed: Hotbed, notes: list[HotbedNote], fills: list[HotbedFill]) -> tuple[float, float]:
    """Return by how much the heap has sunk since it was last filled, and how high it was then [m]; 0 if not measured."""
    high = now = bed.depth_m
    events: list[HotbedNote | HotbedFill] = [*notes, *fills]
    for event in sorted(events, key=lambda event: event.on):
        if isinstance(event, HotbedFill):
            high = now = now + event.depth_m
        elif event.height_m is not None:
            now = event.height_m
    return max(high - now, 0.0), high


def _headline(
    place: Place, bed: Hotbed | None, notes: list[HotbedNote], fills: list[HotbedFill], units: Units, today: date
) -> tuple[str, str]:
    if bed is None:
        return _("First enter what {name} is built of.").format(name=place.name), ""
    age = words.count((today - bed.filled_on).days, "day", "days")
    hot = hot_text(place, units, today)
    if hot:
        return hot, ""
    sunk, high = sunk_m(bed, notes, fills)
    if sunk >= SUNK * high:
        text = _("{name} has sunk by {sunk} in {age}. Top it up while there is still heat below.")
        room = _(
            "If its frame stands on the ground, plants have {sunk} more room below the lid, and more shade from the boards. "
            "A frame that stands on the heap has sunk with it."
        )
        length = units.length_text(sunk)
        return text.format(name=place.name, sunk=length, age=age), room.format(sunk=length)
    return _("{name} was filled {age} ago.").format(name=place.name, age=age), _(
        "Core temperatures teach the forecast how hot this heap gets and how soon it fades."
    )


def _stuff(material: str, depth_m: float, trodden: str, units: Units) -> str:
    names, treads = dict(hotbeds.materials()), dict(hotbeds.treads())
    return _("{depth} of {material}, {trodden}").format(
        depth=units.length_text(depth_m), material=names.get(material, material), trodden=treads.get(trodden, trodden)
    )


def _filled(bed: Hotbed, units: Units) -> str:
    return _("Filled: {stuff}").format(stuff=_stuff(bed.material, bed.depth_m, bed.trodden, units))


def _fill(fill: HotbedFill, units: Units) -> str:
    return _("Topped up: {stuff}").format(stuff=_stuff(fill.material, fill.depth_m, fill.trodden, units))


def _note(note: HotbedNote, units: Units) -> str:
    parts = []
    if note.core_c is not None:
        parts.append(_("core {core}").format(core=units.temperature_text(note.core_c, 0)))
    if note.height_m is not None:
        parts.append(_("{height} high").format(height=units.length_text(note.height_m)))
    if note.note:
        parts.append(note.note)
    return words.sentence(", ".join(parts))


SHOWN = 3


@dataclass(frozen=True)
class Spot:
    """A place on the temperature map with its number and colours."""

    text: str
    colour: str
    ink: str


@dataclass(frozen=True)
class TestLine:
    """A test in words and as rows of three spots."""

    pk: int
    when: str
    text: str
    rows: list[list[Spot]]


def test_lines(place: Place, units: Units, today: date) -> list[TestLine]:
    """Return the latest tests of a place."""
    return [
        TestLine(heat_test.pk, words.day(heat_test.on, today), _text(heat_test, place, units, today), _rows(heat_test, units))
        for heat_test in place.heat_tests.all()[:SHOWN]
    ]


def _rows(heat_test: HeatTest, units: Units) -> list[list[Spot]]:
    spots = [
        Spot("–", "none", "currentColor")
        if value is None
        else Spot(units.temperature_text(value, 0), scale.colour(value), scale.ink_on(value))
        for value in heat_test.spots
    ]
    return [spots[i : i + 3] for i in (0, 3, 6)]


def _text(heat_test: HeatTest, place: Place, units: Units, today: date) -> str:
    parts = []
    if heat_test.minutes is not None:
        period = heat_on(place, today)
        text = _("It reached its set-point after {minutes}.")
        if period is not None and period.control != period.Control.THERMOSTAT:
            text = _("It was as warm as it gets after {minutes}.")
        parts.append(text.format(minutes=words.count(heat_test.minutes, "minute", "minutes")))
    spread = spread_k(heat_test.spots)
    if spread is not None:
        parts.append(_("The warmest and coldest spots differ by {spread}.").format(spread=units.difference_text(spread, 0)))
        if spread > EVEN_K:
            period = heat_on(place, today)
            layer = layer_for(spread) if period is None or not period.cable_m else layer_for(spread, _spacing(period))
            text = _("Another {layer} or so of moist sand or vermiculite over the heat would reduce that to {even}.")
            parts.append(text.format(layer=units.length_text(layer), even=units.difference_text(EVEN_K, 0)))
        else:
            parts.append(_("That is even enough."))
    return " ".join(parts)


def _spacing(period: object) -> float:
    """Return the distance between runs of a cable, its area over its length."""
    return period.area_m2 / period.cable_m  # type: ignore[attr-defined, no-any-return]


@dataclass(frozen=True)
class Happened:
    """A past step. `pk` is None for the sowing itself, which is corrected on its own page; `place` is where it stood from then
    on.
    """

    day: date
    when: str
    text: str
    place: Place | None = None
    pk: int | None = None


@dataclass(frozen=True)
class LifePage:
    """Context of bench/life.html; `coming` holds due steps (when, what, whether now).

    `heated` tells whether the plants are still on the heat.
    """

    headline: str
    sub: str
    past: list[Happened]
    coming: list[tuple[str, str, bool]]
    warn: str
    heated: bool


def life_page(sowing: Sowing, garden: Garden, units: Units, today: date) -> LifePage:
    """Return the page of one sowing."""
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
        sub=f"{_age(life.raised.half_on, today)} {_ripe(life, today)}".rstrip(),
        past=_past(sowing, units, today),
        coming=[(texts.when(on, today), texts.due_text(life, what, on, today, units), on <= today) for what, on in due],
        warn=texts.habit_text(crop, climate, habit, units) if climate else "",
        heated=life.raised.heated and raised and not planted and not life.raised.heat_is_off,
    )


def _age(half_on: date | None, today: date) -> str:
    if half_on is None:
        return _("No date for half up yet.")
    if half_on > today:
        return _("Half of the seedlings should be up by {day}.").format(day=words.day(half_on, today))
    weeks = (today - half_on).days / 7
    if weeks < 1:
        return _("Seedlings have been up for a few days.")
    return _("Seedlings have been up for about {weeks}.").format(weeks=words.count(round(weeks), "week", "weeks"))


def _ripe(life: Life, today: date) -> str:
    ripe = ripe_on(life, today)
    if ripe is None or ripe < today:
        return ""
    day = words.day(ripe, today)
    if life.out is not None and waits_to_go_out(life):
        return _("Planted out in {bed} as soon as they can be, they are ready to harvest about {day}.").format(
            bed=life.out[1].name, day=day
        )
    return _("They should be ready to harvest about {day}.").format(day=day)


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
    if step.start_c is not None:
        text = _("Thermostat turned down to {set_point}").format(set_point=units.temperature_text(step.start_c, 0))
    return text
