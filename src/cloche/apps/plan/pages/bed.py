"""A bed's plan: what stands where, what is free when, what touches the cover, what the seed is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.places.models import Place
from cloche.apps.places.selectors import PlaceCover, roofs_from
from cloche.apps.plan import advice, courses, texts
from cloche.apps.plan.courses import Grows
from cloche.apps.plants import selectors as plants
from cloche.apps.plants.models import BedShape, Planting
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in, viability
from cloche.bridge.services import beds, crops
from cloche.bridge.values.units import Units
from cloche.drawing import bed_plan, scale, under_roof
from cloche.drawing.geometry import Linear, Tick, month_starts

MOST_NAMED, MOST_GONE = 3, 30
SHADES_FROM_M = 0.6
"""Lower crops throw no shadow worth drawing (assumption)."""


@dataclass(frozen=True)
class PatchLine:
    """A planting as drawn and described; `at` is its corner and size in cm, or None if not on the plan."""

    planting: Planting
    name: str
    number: int | None
    state: str
    kind: str
    drawn: bed_plan.DrawnPatch | None
    at: tuple[float, float, float, float] | None
    seed: str

    @property
    def short(self) -> str:
        """Return as much of name and number as fits the patch."""
        whole = f"{self.name} {self.number}" if self.number else self.name
        fits = self.drawn.letters if self.drawn else len(whole)
        if len(whole) <= fits:
            return whole
        return self.name if len(self.name) <= fits else self.name[: fits - 1].rstrip(" ,") + "…"

    @property
    def label(self) -> str:
        """Describe the planting in a sentence for screen readers."""
        count = f", {self.number}" if self.number else ""
        return f"{self.name}{count}: {self.state}"


@dataclass(frozen=True)
class BedPage:
    """Context of plan/bed.html.

    `ground` is the colour of the soil now and `ink` one that is legible on it; `shade_at` describes the time of the shadows.
    """

    headline: str
    sub: str
    shape: BedShape
    plan: bed_plan.BedPlan
    ground: str
    ink: str
    patches: list[PatchLine]
    off: list[PatchLine]
    season: SeasonOfBed | None
    roof: under_roof.UnderRoof | None
    roof_text: list[str]
    order: list[tuple[str, str]]
    seed: list[str]
    warnings: list[str]
    free: list[str]
    gone: list[PatchLine]
    shade_at: str

    @property
    def step(self) -> float:
        """Return the side of a grid square for the script [cm]."""
        return round(100 * self.shape.square_m, 1)


def bed_page(place: Place, units: Units, today: date, shade: tuple[date, float] | None = None) -> BedPage:
    """Build the page of a bed, with shadows for a day and hour of solar time if given."""
    known, shape = courses.known_of(place, today), plants.shape_of(place, units)
    rows = plants.plantings_at(place)
    made = list(sowings_in(place.garden).filter(packet__isnull=False, finished=True))
    latitude = place.garden.latitude_deg
    there = [row for row in rows if row.ended_on is None or row.ended_on > today]
    growing = {row.pk: known.grows(row) for row in there if row.crop_key}
    gone = sorted((row for row in rows if row not in there), key=lambda row: row.ended_on or today, reverse=True)
    lines = [_line(row, growing.get(row.pk), shape, units, today, latitude, shade, made) for row in there]
    laid, off = [line for line in lines if line.at], [line for line in lines if not line.at]
    soil_c = known.ground.data.far_mid_c[0] if known.ground else None
    roof, roof_text = _roof(place, shape, [growing[row.pk] for row in there if row.pk in growing], today, units)
    return BedPage(
        headline=_headline(place, lines, today),
        sub=_sub(shape, units),
        shape=shape,
        plan=bed_plan.bed_plan(shape.length_m, shape.width_m, shape.square_m, shape.runs_deg),
        ground=scale.colour(soil_c) if soil_c is not None else "",
        ink=scale.ink_on(soil_c) if soil_c is not None else scale.DARK_INK,
        patches=laid,
        off=off,
        season=season_of([growing[row.pk] for row in there if row.pk in growing], today),
        roof=roof,
        roof_text=roof_text,
        order=_order(there, growing, today),
        seed=[f"{line.name}: {line.seed}" for line in lines if line.seed],
        warnings=[*advice.of_plantings(there, today), *_warnings(rows, there, today)],
        free=_free(lines, growing, today),
        gone=[_line(row, None, shape, units, today, latitude, None, made) for row in gone[:MOST_GONE]],
        shade_at=_shade_text(shade),
    )


def patch_of(planting: Planting) -> beds.Patch | None:
    """Return the contents of a planting's patch, or None for reserved ground."""
    if not planting.crop_key:
        return None
    own = planting.plant_m, planting.row_m, planting.per_station
    return beds.patch(planting.crop_key, (planting.length_m, planting.width_m), planting.layout, own, planting.thinning)


def _line(
    planting: Planting,
    grows: Grows | None,
    shape: BedShape,
    units: Units,
    today: date,
    latitude_deg: float,
    shade: tuple[date, float] | None,
    made: list[Sowing],
) -> PatchLine:
    patch = patch_of(planting)
    kind = "left" if grows is None else "planned" if planting.planted_on is None else "standing"
    at = plants.box_of(planting)
    drawn = None
    if at is not None:
        day = shade[0] if shade else today
        share = grows.course.grown_on(day) if grows and grows.up <= day else 0.0
        stations = patch.stations if patch else []
        family = crops.crop(planting.crop_key).family if patch else ""
        drawn = bed_plan.patch_of(
            at,
            stations,
            patch.spacing.plant_m if patch else 1.0,
            family,
            share,
            _cast(grows, latitude_deg, shade),
            shape.runs_deg,
            bed_plan.font_cm(shape.length_m, shape.width_m),
        )
    alive = None
    seeded = (
        planting.origin in (Planting.Origin.SOWN, Planting.Origin.RAISED, Planting.Origin.SETS) and planting.planted_on is None
    )
    if patch and seeded and planting.packet:
        alive = viability(planting.packet, today, made).rate
    cm = None if at is None else tuple(round(100 * value, 1) for value in at)
    number = texts.how_many(planting, patch)
    seed = texts.seed_line(planting, patch, alive) if patch and seeded else ""
    return PatchLine(planting, texts.name_of(planting), number, texts.state(planting, grows, today), kind, drawn, cm, seed)  # type: ignore[arg-type]


def _cast(grows: Grows | None, latitude_deg: float, shade: tuple[date, float] | None) -> tuple[float, float] | None:
    """Return where the top of the plants throws its shadow [m], or None."""
    if grows is None or shade is None or grows.up > shade[0]:
        return None
    height = grows.course.height_on(shade[0])
    falls = beds.shadow_of(*shade, latitude_deg)
    return None if falls is None or height < SHADES_FROM_M else (height * falls.east, height * falls.north)


def _headline(place: Place, lines: list[PatchLine], today: date) -> str:
    late = [line for line in lines if line.kind == "planned" and line.planting.planned_on and line.planting.planned_on < today]
    coming = sorted(
        (line for line in lines if line.kind == "planned" and line.planting.planned_on and line.planting.planned_on >= today),
        key=lambda line: line.planting.planned_on or today,
    )
    stands = [line.name for line in lines if line.kind == "standing"]
    if late:
        names = words.listed([line.name for line in late], MOST_NAMED)
        return _("{place}: {names} should have been sown or planted by now.").format(place=place.name, names=names)
    if coming:
        day = words.day(coming[0].planting.planned_on or today, today)
        return _("{place}: {name} comes next, on {day}.").format(place=place.name, name=coming[0].name, day=day)
    if stands:
        return _("{place}: {names}.").format(place=place.name, names=words.listed(sorted(set(stands)), MOST_NAMED))
    return _("{place} is empty.").format(place=place.name)


def _sub(shape: BedShape, units: Units) -> str:
    size = _("{length} by {width}, in squares of {square}").format(
        length=units.length_text(shape.length_m),
        width=units.length_text(shape.width_m),
        square=units.length_text(shape.square_m),
    )
    return _("{size}. Drag a patch, or select it and use the arrow keys. Its form has everything in numbers.").format(size=size)


def _roof(
    place: Place, shape: BedShape, growing: list[Grows], today: date, units: Units
) -> tuple[under_roof.UnderRoof | None, list[str]]:
    """Return the cross-section under the lowest cover, and when each crop reaches it."""
    there = [cover for cover in roofs_from(place, today) if cover.stands_on(today)]
    rooms = [(cover, room) for cover in there if (room := courses.room_under(cover.key, cover.item, shape))]
    if not rooms or not growing:
        return None, []
    cover, room = min(rooms, key=lambda pair: pair[1].middle_m)
    rows, touching = [], []
    for plant in growing:
        across = courses.across_m(plant.planting, shape)
        on = plant.course.touches(courses.clear_m(plant.planting, shape, room))
        weeks = [plant.course.height_on(today + timedelta(weeks=2 * i)) for i in range(under_roof.STEPS)]
        rows.append((texts.crop_name(plant.planting), across / shape.width_m, weeks))
        if on is not None and on <= today + timedelta(weeks=20):
            when = (
                _("touches the cover now")
                if on <= today
                else _("touches the cover about {day}").format(day=words.day(on, today))
            )
            touching.append(f"{texts.crop_name(plant.planting)}: {when}.")
    drawn = under_roof.under_roof(room.middle_m, room.side_m, room.shape, rows)
    free = _("Nothing touches the cover in the coming weeks: it is {height} high.")
    return drawn, [
        *_beyond(cover, shape, units),
        *(touching or [free.format(height=units.length_text(room.middle_m))]),
    ]


def _beyond(cover: PlaceCover, shape: BedShape, units: Units) -> list[str]:
    """Warn that a cover is shorter than the bed."""
    covered_m = cover.covered_m
    if covered_m is None or covered_m > shape.length_m - shape.square_m / 2:
        return []
    text = _("{cover} is over {covered} of the bed’s {length}. Plants beyond it are uncovered.")
    return [
        text.format(
            cover=words.sentence(cover.name), covered=units.length_text(covered_m), length=units.length_text(shape.length_m)
        )
    ]


def _order(there: list[Planting], growing: dict[int, Grows], today: date) -> list[tuple[str, str]]:
    """Return the tasks in order of date, for printing."""
    waiting = [row for row in there if row.planted_on is None and row.crop_key]
    rows = sorted(waiting, key=lambda row: growing[row.pk].begins)
    lines = []
    for row in rows:
        patch = patch_of(row)
        count = texts.how_many(row, patch) or 0
        way = _("sow") if row.origin == Planting.Origin.SOWN else _("plant")
        what = f"{way} {count} {texts.plants_of(row) if count != 1 else texts.crop_name(row)}"
        day = words.day(row.planned_on, today) if row.planned_on else _("when there is room")
        lines.append((day, what))
    return lines


def _warnings(rows: list[Planting], there: list[Planting], today: date) -> list[str]:
    """Warn of crop families that return too soon and of overlapping patches."""
    past = [(row.crop_key, row.planted_on.year) for row in rows if row.crop_key and row.planted_on]
    early: dict[beds.TooSoon, list[str]] = {}
    for row in there:
        if not row.crop_key:
            continue
        year = (row.planted_on or row.planned_on or today).year
        near = [(key, when) for key, when in past if when < year]
        if soon := beds.come_too_soon(row.crop_key, year, near):
            early.setdefault(soon, []).append(texts.crop_name(row))
    sentences = [texts.too_soon(names, soon) for soon, names in early.items()]
    laid = [(row, box) for row in there if (box := plants.box_of(row))]
    for i, (row, box) in enumerate(laid):
        for other, other_box in laid[i + 1 :]:
            if plants.overlap(box, other_box):
                names = texts.name_of(row), texts.name_of(other)
                sentences.append(_("{name} and {other} overlap.").format(name=names[0], other=names[1]))
    return sentences


def _free(lines: list[PatchLine], growing: dict[int, Grows], today: date) -> list[str]:
    """Describe when ground becomes free, earliest first."""
    ends = [(growing[line.planting.pk].until, texts.crop_name(line.planting)) for line in lines if line.kind == "standing"]
    dated = [(until, name) for until, name in ends if until is not None]
    late = [_("as soon as {name} has been cleared").format(name=name) for until, name in dated if until <= today]
    coming = sorted((until, name) for until, name in dated if until > today)
    return late + [_("{day}, after {name}").format(day=words.day(until, today), name=name) for until, name in coming]


def _shade_text(shade: tuple[date, float] | None) -> str:
    if shade is None:
        return ""
    return _("Shade on {day} at {hour} by the sun.").format(day=words.day(shade[0]), hour=words.hour(int(shade[1])))


WIDTH, ROW, LEFT, TOP = 820.0, 26.0, 150.0, 24.0


AHEAD_D, MOST_AHEAD_D, BACK_D, MARGIN_D, GROWS_D = 200, 456, 45, 10, 60
"""Days that are shown at least; at most the fifteen months that windows look ahead; behind; beyond the last end; and of what
has no end in sight."""


@dataclass(frozen=True)
class Bar:
    """Time bar of a planting.

    It starts at x; `up_x` marks emergence, and `planned` one not yet planted.
    """

    name: str
    y: float
    x: float
    width: float
    up_x: float
    planned: bool
    open_ended: bool
    text: str


@dataclass(frozen=True)
class SeasonOfBed:
    """Time bars of a bed above one axis of months."""

    width: float
    height: float
    bars: list[Bar]
    months: list[Tick]
    today_x: float
    left: float


def season_of(growing: Sequence[Grows], today: date) -> SeasonOfBed | None:
    """Return the time bars of a bed, or None without plantings."""
    if not growing:
        return None
    rows = sorted(growing, key=lambda row: (row.begins, texts.name_of(row.planting)))
    first = max(min(rows[0].begins, today), today - timedelta(days=BACK_D))
    ends = max(row.until or row.begins + timedelta(days=GROWS_D) for row in rows)
    last = today + timedelta(days=min(max((ends - today).days + MARGIN_D, AHEAD_D), MOST_AHEAD_D))
    x = Linear(0, (last - first).days, LEFT, WIDTH - 8)
    bars = []
    for number, row in enumerate(rows):
        begin, end = max(row.begins, first), min(max(row.until, today) if row.until else last, last)
        start, stop = x((begin - first).days), x(max((end - first).days, 0))
        text = f"{words.day(row.begins, today)} – {words.day(row.until, today) if row.until else '…'}"
        bars.append(
            Bar(
                texts.crop_name(row.planting),
                TOP + number * ROW,
                round(start, 1),
                round(max(stop - start, 3.0), 1),
                round(min(max(x((row.up - first).days), start), max(stop, start)), 1),
                row.planting.planted_on is None,
                row.until is None or row.until > last,
                text,
            )
        )
    months = [Tick(round(x((day - first).days), 1), words.short_month(day)) for day in month_starts(first, last)]
    return SeasonOfBed(WIDTH, TOP + len(rows) * ROW + 8, bars, months, round(x((today - first).days), 1), LEFT)
