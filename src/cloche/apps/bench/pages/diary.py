"""A hotbed's diary: what was filled, its core, how it sank, in order of the days."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.places.models import Hotbed, HotbedFill, HotbedNote, Place
from cloche.apps.shared import words
from cloche.bridge.services import hotbeds
from cloche.bridge.values.units import Units

FLUSH_C, SUNK = 45.0, 0.25
"""A core that hot is in its first flush; so much sunk asks for a top-up (common practice, no source)."""


@dataclass(frozen=True)
class DiaryLine:
    """A line: kind and number, for striking it out; "" where it is the bed's own first fill."""

    day: date
    when: str
    text: str
    kind: str
    pk: int


@dataclass(frozen=True)
class DiaryPage:
    """Context of bench/diary.html."""

    headline: str
    lines: list[DiaryLine]


def diary_page(place: Place, units: Units, today: date) -> DiaryPage:
    """Of one hotbed."""
    bed = Hotbed.objects.filter(place=place).first()
    notes, fills = list(place.hotbed_notes.all()), list(place.hotbed_fills.all())
    lines = [DiaryLine(fill.on, words.day(fill.on, today), _fill(fill, units), "fill", fill.pk) for fill in fills]
    lines += [DiaryLine(note.on, words.day(note.on, today), _note(note, units), "note", note.pk) for note in notes]
    if bed is not None:
        lines.append(DiaryLine(bed.filled_on, words.day(bed.filled_on, today), _filled(bed, units), "", 0))
    return DiaryPage(_headline(place, bed, notes, units, today), sorted(lines, key=lambda line: line.day))


def _headline(place: Place, bed: Hotbed | None, notes: list[HotbedNote], units: Units, today: date) -> str:
    if bed is None:
        return _("Say first what {name} is built of.").format(name=place.name)
    age = words.count((today - bed.filled_on).days, "day", "days")
    cores = [note for note in notes if note.core_c is not None]
    heights = [note for note in notes if note.height_m is not None]
    if heights and bed.depth_m and (bed.depth_m - (heights[-1].height_m or 0.0)) / bed.depth_m >= SUNK:
        sunk = units.length_text(bed.depth_m - (heights[-1].height_m or 0.0))
        return _("{name} has sunk {sunk} in {age}: top it up while there is still heat below.").format(
            name=place.name, sunk=sunk, age=age
        )
    if cores and (cores[-1].core_c or 0.0) >= FLUSH_C:
        core = units.temperature_text(cores[-1].core_c or 0.0, 0)
        return _("{name} is in its first flush, {core} at the core: nothing is planted into it yet.").format(
            name=place.name, core=core
        )
    return _("{name} was filled {age} ago.").format(name=place.name, age=age)


def _stuff(material: str, depth_m: float, trodden: str, units: Units) -> str:
    names, treads = dict(hotbeds.materials()), dict(hotbeds.treads())
    return _("{depth} of {material}, {trodden}").format(
        depth=units.length_text(depth_m), material=names.get(material, material), trodden=treads.get(trodden, trodden)
    )


def _filled(bed: Hotbed, units: Units) -> str:
    return _("Filled: {stuff}").format(stuff=_stuff(bed.material, bed.depth_m, bed.trodden, units))


def _fill(fill: HotbedFill, units: Units) -> str:
    return _("Filled again: {stuff}").format(stuff=_stuff(fill.material, fill.depth_m, fill.trodden, units))


def _note(note: HotbedNote, units: Units) -> str:
    parts = []
    if note.core_c is not None:
        parts.append(_("core {core}").format(core=units.temperature_text(note.core_c, 0)))
    if note.height_m is not None:
        parts.append(_("stands {height}").format(height=units.length_text(note.height_m)))
    if note.note:
        parts.append(note.note)
    return words.sentence(", ".join(parts))
