"""Import of files: preview first, then add the valid rows, never the same row twice."""

from __future__ import annotations

import hashlib
from dataclasses import asdict, dataclass
from typing import Any

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.flows import change_site
from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.flows import note_change_at, note_change_in
from cloche.apps.places.models import Place
from cloche.apps.readings.files import mapping as maps
from cloche.apps.readings.files.stations import station_text
from cloche.apps.readings.files.tables import Table, UnreadableFile, decode, is_sheet, read_table, sheet_text
from cloche.apps.readings.models import FileSource, IncomingFile, Reading
from cloche.apps.shared import clock
from cloche.apps.shared.quota import refuse_beyond
from cloche.apps.shared.sources import Source
from cloche.apps.weather.models import DailyWeather
from cloche.apps.work import queue
from cloche.bridge.values.units import Units
from cloche_engine.local_time import standard_offset_h
from cloche_engine.weather.stations import NotAnEpw, TypicalYear, typical_year

BATCH, AT_ONCE, SAMPLED = 2000, 5000, 50
"""Rows a batch, and how many are taken while one waits."""
TAKE_FILE = "readings.take_file"


@dataclass(frozen=True)
class Preview:
    """What an import would do: rows to add, rows already stored (same or different value), and refused rows."""

    fresh: list[tuple[Any, ...]]
    already_here: int
    differing: list[maps.BadRow]
    bad: list[maps.BadRow]

    @property
    def refused(self) -> list[maps.BadRow]:
        """Return all refused rows in order of line."""
        return sorted([*self.bad, *self.differing], key=lambda row: row.line)


def is_typical_year(upload: UploadedFile) -> bool:
    """Return whether a file is a typical meteorological year in EPW format, by its name."""
    return (upload.name or "").lower().endswith(".epw")


def take_typical_year(garden: Garden, upload: UploadedFile) -> TypicalYear:
    """Set the garden's monthly normals from an EPW file. Raises UnreadableFile."""
    _refuse_large(upload)
    try:
        year = typical_year(decode(upload.read()))
    except NotAnEpw as refusal:
        raise UnreadableFile(str(refusal)) from refusal
    garden.normal_lows_c, garden.normal_highs_c = ([round(float(v), 1) for v in side] for side in (year.low_c, year.high_c))
    change_site(garden)
    return year


def _refuse_large(upload: UploadedFile) -> None:
    limit = settings.CLOCHE_IMPORT_LIMIT_BYTES
    if (upload.size or 0) > limit:
        size = (upload.size or 0) / 1e6
        raise UnreadableFile(
            _("The file has {size} MB; at most {limit} MB are accepted at a time. Split it by year.").format(
                size=f"{size:.0f}", limit=f"{limit / 1000000.0:.0f}"
            )
        )


def text_of(upload: UploadedFile) -> str:
    """Return a file's rows as text. Raises UnreadableFile."""
    _refuse_large(upload)
    data = upload.read()
    return sheet_text(data) if is_sheet(data) else decode(data)


def receive(garden: Garden, person: User, kind: str, upload: UploadedFile) -> IncomingFile:
    """Store an uploaded file until its columns are explained. Raises UnreadableFile."""
    text = text_of(upload)
    if kind == "weather":
        text = station_text(text.replace("\r\n", "\n")) or text
    table = read_table(text)
    IncomingFile.objects.filter(garden=garden, user=person).exclude(state=IncomingFile.State.TAKING).delete()
    known = _remembered(garden, kind, table)
    mapping = asdict(_first_guess(kind, table, garden, units_of(person))) | (known or {})
    return IncomingFile.objects.create(
        garden=garden,
        user=person,
        kind=kind,
        name=(upload.name or "file.csv")[:200],
        # PostgreSQL's text cannot hold NUL; a stray one in a text file carries nothing.
        text=text.replace("\x00", ""),
        mapping=mapping,
        familiar=known is not None,
    )


def by_itself(garden: Garden, upload: UploadedFile) -> IncomingFile:
    """Return an unsaved file whose columns are already understood: a weather station's days or a known heading.

    Raises UnreadableFile.
    """
    text = text_of(upload)
    days = station_text(text.replace("\r\n", "\n"))
    table = read_table(days or text)
    kind, known = "weather", None
    if days is None:
        remembered = ((kind, _remembered(garden, kind, table)) for kind in IncomingFile.Kind.values)
        kind, known = next(((kind, mapping) for kind, mapping in remembered if mapping is not None), ("", None))
        if known is None:
            raise UnreadableFile(_("The columns of this file are not known yet. Import one like it by hand under Files first."))
    mapping = known or asdict(_first_guess(kind, table, garden, Units()))
    lacking = maps.missing_roles(kind, maps.Mapping(**mapping))
    if lacking:
        raise UnreadableFile(lacking[0])
    return IncomingFile(
        garden=garden, kind=kind, name=upload.name or "", text=(days or text).replace("\x00", ""), mapping=mapping
    )


def take_now(incoming: IncomingFile) -> Preview:
    """Add new rows of an unsaved file in batches and return its preview.

    Raises ValidationError if the garden is full.
    """
    previewed = preview(incoming)
    _refuse_beyond(incoming, previewed)
    for start in range(0, len(previewed.fresh), BATCH):
        with transaction.atomic():
            _add(incoming, previewed.fresh[start : start + BATCH])
    if previewed.fresh:
        _note_all(incoming)
    return previewed


def _refuse_beyond(incoming: IncomingFile, previewed: Preview) -> None:
    if incoming.kind != "weather":
        known = Reading.objects.filter(place__garden=incoming.garden).count()
        refuse_beyond("values", known + len(previewed.fresh))


def _signature(table: Table) -> str:
    return hashlib.sha256("\x1f".join(name.strip().lower() for name in table.header).encode()).hexdigest()


def _remembered(garden: Garden, kind: str, table: Table) -> dict[str, Any] | None:
    """Return what the columns meant last time, without places that no longer exist."""
    source = garden.file_sources.filter(kind=kind, signature=_signature(table)).first()
    if source is None:
        return None
    place = source.mapping.get("place_id")
    there = place is not None and garden.places.filter(pk=place).exists()
    return dict(source.mapping) | {"place_id": place if there else None}


def _first_guess(kind: str, table: Table, garden: Garden, units: Units) -> maps.Mapping:
    names = {name.lower() for name in garden.places.values_list("name", flat=True)}
    cells = [table.samples(column, SAMPLED) for column in range(len(table.header))]
    roles = maps.guess_roles(kind, table.header, cells, names)
    dated = next((roles.index(role) for role in ("datetime", "date") if role in roles), None)
    order = maps.guess_order(table.samples(dated, SAMPLED)) if dated is not None else "iso"
    places = list(garden.places.values_list("pk", flat=True)[:2])
    only_place = places[0] if len(places) == 1 else None
    unit, length = maps.guess_unit(table.header, units.temperature), maps.guess_length(table.header, units.length)
    return maps.Mapping(roles, unit, length, order, place_id=only_place)


def mapping_of(incoming: IncomingFile) -> maps.Mapping:
    """Return the column mapping chosen so far."""
    return maps.Mapping(**incoming.mapping)


def remember(incoming: IncomingFile, mapping: maps.Mapping) -> None:
    """Store the column mapping."""
    incoming.mapping = asdict(mapping)
    incoming.save(update_fields=["mapping"])


def preview(incoming: IncomingFile) -> Preview:
    """Compare every row with stored data under the mapping; writes nothing."""
    parsed = maps.parse(incoming.kind, read_table(incoming.text), mapping_of(incoming), _setting(incoming.garden))
    known: dict[Any, tuple[float, ...]] = (
        _known_days(incoming.garden) if incoming.kind == "weather" else _known_readings(incoming.garden, parsed)
    )
    keys = 1 if incoming.kind == "weather" else 3
    fresh, differing, same = [], [], 0
    for values, line in zip(parsed.good, parsed.good_line, strict=True):
        stored = known.get(values[:keys] if keys > 1 else values[0])
        if stored is None:
            fresh.append(values)
        elif all(abs(a - b) < 0.006 for a, b in zip(stored, values[keys:], strict=False)):
            same += 1
        else:
            reason = _("Another value is already recorded for that time and has been kept.")
            differing.append(maps.BadRow(line, reason, " · ".join(str(v) for v in values)[:120]))
    return Preview(fresh, same, differing, parsed.bad)


def _setting(garden: Garden) -> maps.Setting:
    places = list(garden.places.all())
    offset = standard_offset_h(garden.timezone, clock.today(garden.timezone))
    by_name = {place.name.lower(): place.pk for place in places}
    return maps.Setting(garden.timezone, offset, by_name, {p.pk: p.seed_depth_m for p in places}, clock.now())


def _known_readings(garden: Garden, parsed: maps.Parsed) -> dict[Any, tuple[float, ...]]:
    if not parsed.good:
        return {}
    times = [row[1] for row in parsed.good]
    rows = Reading.objects.current().filter(
        place__garden=garden, place_id__in={row[0] for row in parsed.good}, taken_at__range=(min(times), max(times))
    )
    return {(p, at, round(d, 4)): (t,) for p, at, d, t in rows.values_list("place", "taken_at", "depth_m", "temperature_c")}


def _known_days(garden: Garden) -> dict[Any, tuple[float, ...]]:
    return {day: (low, high) for day, low, high in garden.weather.values_list("day", "low_c", "high_c")}


def take_rows(incoming: IncomingFile) -> int | None:
    """Add new rows and return how many, or None where a background job takes over because there are too many.

    Raises ValidationError if the garden is full.

    Rows added by someone meanwhile are skipped. What the columns mean is remembered for the next file of this heading.
    """
    _remember_source(incoming)
    previewed = preview(incoming)
    _refuse_beyond(incoming, previewed)
    if len(previewed.fresh) > AT_ONCE:
        incoming.state, incoming.total, incoming.done = IncomingFile.State.TAKING, len(previewed.fresh), 0
        incoming.save(update_fields=["state", "total", "done"])
        queue.put(TAKE_FILE, key_of_file(incoming.pk), file_id=incoming.pk)
        return None
    with transaction.atomic():
        _add(incoming, previewed.fresh)
        _note(incoming, previewed.fresh)
        incoming.delete()
    return len(previewed.fresh)


def key_of_file(file_id: int) -> str:
    """Return the key of a long file in the job queue and the list of failures."""
    return f"file-{file_id}"


def take_long(incoming: IncomingFile) -> None:
    """Add new rows in complete batches, so that another worker can continue after an interruption."""
    fresh = preview(incoming).fresh
    incoming.total = max(incoming.total, incoming.done + len(fresh))
    for start in range(0, len(fresh), BATCH):
        part = fresh[start : start + BATCH]
        with transaction.atomic():
            _add(incoming, part)
            incoming.done += len(part)
            incoming.save(update_fields=["done", "total"])
    with transaction.atomic():
        _note_all(incoming)
        incoming.state, incoming.text = IncomingFile.State.TAKEN, ""
        incoming.save(update_fields=["state", "text"])


def _remember_source(incoming: IncomingFile) -> None:
    values = {"mapping": incoming.mapping}
    signature = _signature(read_table(incoming.text))
    FileSource.objects.update_or_create(garden=incoming.garden, kind=incoming.kind, signature=signature, defaults=values)


def _add(incoming: IncomingFile, rows: list[tuple[Any, ...]]) -> None:
    if incoming.kind == "weather":
        _add_days(incoming.garden, rows)
    else:
        _add_readings(incoming, rows)


def _note(incoming: IncomingFile, rows: list[tuple[Any, ...]]) -> None:
    """Schedule recalculation of the forecasts that depend on new rows."""
    if rows and incoming.kind == "weather":
        note_change_in(incoming.garden)
        return
    for place in Place.objects.filter(pk__in={row[0] for row in rows}):
        note_change_at(place)


def _note_all(incoming: IncomingFile) -> None:
    # Which rows an earlier worker added is not known any more: every place of the garden may have some.
    note_change_in(incoming.garden)


def _add_days(garden: Garden, rows: list[tuple[Any, ...]]) -> None:
    values = [dict(zip(DailyWeather.LINE, row, strict=True)) for row in rows]
    lines = [DailyWeather(garden=garden, source=Source.FILE, **line) for line in values]
    DailyWeather.objects.bulk_create(lines, batch_size=BATCH, ignore_conflicts=True)


def _add_readings(incoming: IncomingFile, rows: list[tuple[Any, ...]]) -> None:
    readings = [
        Reading(
            place_id=place_id,
            taken_at=taken_at,
            depth_m=depth_m,
            temperature_c=temperature_c,
            note=note,
            source=Source.FILE,
            entered_by_id=incoming.user_id,
        )
        for place_id, taken_at, depth_m, temperature_c, note in rows
    ]
    Reading.objects.bulk_create(readings, batch_size=BATCH, ignore_conflicts=True)
