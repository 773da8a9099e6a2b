"""Reading an archive into a new garden, completely or not at all with file, line and reason."""

from __future__ import annotations

import csv
import shutil
import tempfile
from collections.abc import Iterable, Iterator
from itertools import count, islice
from pathlib import Path
from typing import IO, Any
from uuid import uuid4

from django.core.exceptions import ValidationError
from django.db import DataError, IntegrityError, connection, transaction

from cloche.apart.running import Limits, Refused, TooMuch, run_apart
from cloche.apps.gardens.flows import found_garden
from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.models import LoggedHour
from cloche.apps.places.flows import note_change_in
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.selectors import in_the_way, overlap
from cloche.apps.records.archive.columns import Column, Unreadable
from cloche.apps.records.archive.progress import Progress
from cloche.apps.records.archive.table import crop_keys
from cloche.apps.records.archive.tables import GARDEN, LOGGED, NORMALS, TABLES, Table
from cloche.apps.records.archive.write import FORMAT, photo_name
from cloche.apps.shared import clock
from cloche.apps.shared.http import fingerprint
from cloche.bridge.services import crops
from cloche.bridge.values import border

BATCH, MOST_LINE = 5000, 60_000
MOST_BYTES = (2_000_000_000, 2_000_000, 8_000_000, 4_000_000_000)
"""Unpacked: of a table, of the description, of a picture, of all together."""
LIMITS = Limits(memory_bytes=700_000_000, cpu_s=300, wall_s=600, file_bytes=MOST_BYTES[0])
Numbers = dict[str, dict[int, int]]


class NotTaken(ValueError):
    """Raised for an archive that cannot be read; the message tells where and why. Nothing is stored."""


def read_archive(file: IO[bytes], owner: User, progress: Progress | None = None) -> Garden:
    """Read an archive into a new garden of its owner.

    A separate process unpacks it (cloche.apart.unpack). Raises NotTaken.
    """
    with tempfile.TemporaryDirectory(prefix="cloche-archive-") as folder:
        source = Path(folder) / "archive.zip"
        with source.open("wb") as out:
            shutil.copyfileobj(file, out)
        return _read_folder(_unpacked(source), owner, progress or Progress())


def _unpacked(source: Path) -> Path:
    folder = source.with_name("unpacked")
    folder.mkdir()
    try:
        run_apart("unpack", None, LIMITS, str(source), str(folder), *(str(n) for n in MOST_BYTES))
    except Refused as refusal:
        raise NotTaken(str(refusal)) from refusal
    except TooMuch as limit:
        raise NotTaken(f"Unpacking it takes more {limit} than one archive is given.") from limit
    source.unlink()
    return folder


def _read_folder(folder: Path, owner: User, progress: Progress) -> Garden:
    _refuse_strange(folder)
    progress.begin(sum(_lines_in(table) for table in folder.glob("*.csv")))
    try:
        with transaction.atomic():
            return _garden_of(folder, owner, progress)
    except (IntegrityError, DataError) as twice:
        raise NotTaken(f"Two rows say the same thing twice, or one what cannot be: {str(twice).splitlines()[0]}") from twice


def _lines_in(table: Path) -> int:
    with table.open("rb") as file:
        return sum(piece.count(b"\n") for piece in iter(lambda: file.read(1_000_000), b""))


def _refuse_strange(folder: Path) -> None:
    try:
        version = border.read_json((folder / "datapackage.json").read_bytes(), MOST_BYTES[1])["cloche_format"]
    except (OSError, KeyError, ValueError, TypeError) as lack:
        raise NotTaken("There is no description of a Cloche garden in it (datapackage.json).") from lack
    if version != FORMAT:
        raise NotTaken(f"It is written in format {str(version)[:20]}; this Cloche reads format {FORMAT}.")


def _garden_of(folder: Path, owner: User, progress: Progress) -> Garden:
    (site,) = _only_row(folder)
    months = sorted((row["month"], row["low_c"], row["high_c"]) for row in _rows(folder, "normals", NORMALS, progress))
    crops.set_custom_crops(site["own_crops"])
    garden = Garden(**(site | {"crops": _crops_in(site["crops"])}))
    if [month for month, *_ in months] not in ([], list(range(1, 13))):
        raise NotTaken("normals.csv: it needs each month once, or none.")
    if months:
        garden.normal_lows_c, garden.normal_highs_c = [m[1] for m in months], [m[2] for m in months]
    _refuse_contradiction(garden, "garden.csv")
    found_garden(garden, owner)
    numbers: Numbers = {}
    for table in TABLES:
        if table.model is not LoggedHour:
            _take(folder, table, garden, numbers, progress)
        if table.model is CoverPeriod:
            _refuse_two_at_once(garden)
    _take_logged(folder, numbers["probes"], progress)
    words_table = next(table for table in TABLES if table.model is LoggedHour)
    for row in _rows(folder, words_table.name, words_table.columns, progress):
        hours = LoggedHour.objects.filter(probe_id=_known(numbers, "probes", row["probe"], words_table), hour=row["hour"])
        hours.update(review=row["review"])
    note_change_in(garden)
    return garden


def _only_row(folder: Path) -> list[dict[str, Any]]:
    rows = list(islice(_rows(folder, "garden", GARDEN, Progress()), 2))
    if len(rows) != 1:
        raise NotTaken("garden.csv: it needs one row.")
    return rows


def _crops_in(text: str) -> list[str]:
    keys, known = text.split(), set(crop_keys())
    unknown = next((key for key in keys if key not in known), None)
    if unknown:
        raise NotTaken(f"garden.csv: “{unknown[:40]}” is not a crop of the catalogue.")
    return keys


def _refuse_contradiction(row: Any, where: str) -> None:
    """Refuse values that the form would refuse as contradictory."""
    try:
        row.clean()
    except ValidationError as why:
        raise NotTaken(f"{where}: {' '.join(why.messages)}") from why


def _refuse_two_at_once(garden: Garden) -> None:
    """Refuse overlapping periods of covers on one bed, or of one cover on two beds, as the forms do."""
    periods = list(CoverPeriod.objects.filter(place__garden=garden).select_related("place", "item"))
    for period in periods:
        others = [other for other in periods if other.pk > period.pk]
        same = [other for other in others if period.item_id is not None and period.item_id == other.item_id]
        other = next((other for other in same if overlap(period, other)), None) or in_the_way(
            period, [other for other in others if other.place_id == period.place_id]
        )
        if other is not None:
            raise NotTaken(
                f"covers.csv: too many covers on {period.place.name}, or one on two beds,"
                f" from {period.first} and {other.first}."
            )


def _take(folder: Path, table: Table, garden: Garden, numbers: Numbers, progress: Progress) -> None:
    own = numbers.setdefault(table.name, {})
    if table.later and not (folder / f"{table.name}.csv").exists():
        return
    waiting: list[tuple[int, Any]] = []
    for index, row in enumerate(_rows(folder, table.name, table.columns, progress)):
        number = row.pop(table.number, 0) if table.number else 0
        if table.number and number in own:
            raise NotTaken(f"{table.name}.csv: the number {number} stands there twice.")
        own[number] = 0
        for column in table.refers:
            wanted = row.pop(column, None)
            row[f"{column}_id"] = None if wanted is None else _known(numbers, table.refers[column], wanted, table)
        instance = table.model(**row, **_added(table, garden, index, folder, number))
        _refuse_contradiction(instance, f"{table.name}.csv, row {index + 1}")
        waiting.append((number, instance))
        if len(waiting) >= BATCH:
            _store(table, waiting, own)
    _store(table, waiting, own)


def _store(table: Table, waiting: list[tuple[int, Any]], own: dict[int, int]) -> None:
    for (number, _), row in zip(
        waiting, table.model._default_manager.bulk_create([instance for _, instance in waiting]), strict=True
    ):
        own[number] = row.pk
    waiting.clear()


def _known(numbers: Numbers, name: str, wanted: int, table: Table) -> int:
    pk = numbers[name].get(wanted)
    if not pk:
        raise NotTaken(f"{table.name}.csv refers to number {wanted} of {name}.csv, which is not there.")
    return pk


def _added(table: Table, garden: Garden, index: int, folder: Path, number: int) -> dict[str, Any]:
    """Return the values of a row that the file does not contain."""
    fields = {f.name for f in table.model._meta.get_fields()}
    added: dict[str, Any] = {"garden": garden} if "garden" in fields else {}
    if table.name == "places":
        added["walking_order"] = index
    if table.name == "visits":
        added |= {"key": uuid4(), "photo": _photo(folder, number)}
    if table.name == "loggers":
        # Nobody knows a token with this fingerprint: the device is let in again by a new one.
        added |= {"fingerprint": fingerprint(uuid4().hex), "made_at": clock.now(), "revoked_at": clock.now()}
    return added


def _photo(folder: Path, visit: int) -> bytes | None:
    picture = folder / photo_name(visit)
    return picture.read_bytes() if picture.exists() else None


def _rows(folder: Path, name: str, columns: Iterable[Column], progress: Progress) -> Iterator[dict[str, Any]]:
    file = folder / f"{name}.csv"
    if not file.exists():
        raise NotTaken(f"{name}.csv is missing.")
    with file.open(encoding="utf-8", newline="") as text:
        lines = _lines(text, name)
        wanted = _columns_there(name, list(columns), next((cells for _, cells in lines), []))
        for number, cells in lines:
            progress.step()
            yield _row(name, number, wanted, cells)


def _columns_there(name: str, columns: list[Column], heading: list[str]) -> list[Column]:
    """Return the columns an archive has: all except those newer than its version."""
    there = [column for column in columns if column.name in heading or not column.later]
    if [column.name for column in there] != heading:
        raise NotTaken(f"{name}.csv: its heading is not {', '.join(column.name for column in there)}.")
    return there


def _lines(text: IO[str], name: str) -> Iterator[tuple[int, list[str]]]:
    """Yield the number and cells of each line.

    Our cells contain no line breaks, so every line stands for itself; an overlong one is refused.
    """
    for number in count(1):
        try:
            line = text.readline(MOST_LINE)
            if not line:
                return
            if len(line) >= MOST_LINE:
                raise NotTaken(f"{name}.csv, line {number}: the line is too long.")
            yield number, next(csv.reader([line], strict=True), [])
        except (csv.Error, UnicodeDecodeError) as broken:
            raise NotTaken(f"{name}.csv, line {number}: {broken}") from broken


def _row(name: str, line: int, columns: list[Column], cells: list[str]) -> dict[str, Any]:
    if len(cells) != len(columns):
        raise NotTaken(f"{name}.csv, line {line}: {len(cells)} cells instead of {len(columns)}.")
    values = {}
    for column, cell in zip(columns, cells, strict=True):
        try:
            values[column.name] = column.read(cell)
        except Unreadable as why:
            raise NotTaken(f"{name}.csv, line {line}, {column.name}: {why}.") from why
    return values


INSERT = """
INSERT INTO loggers_reading (probe_id, at, temperature_c, shift_s, fault)
SELECT * FROM unnest(%s::int[], %s::timestamptz[], %s::real[], %s::int[], %s::smallint[])
"""
HOURS = """
INSERT INTO loggers_hour (probe_id, hour, number, sum_c, low_c, high_c)
SELECT probe_id, date_trunc('hour', at + shift_s * interval '1 second', 'UTC'), count(*), sum(temperature_c::float8),
  min(temperature_c), max(temperature_c)
FROM loggers_reading WHERE fault = 0 AND probe_id = ANY(%s) GROUP BY 1, 2
"""


def _take_logged(folder: Path, probes: dict[int, int], progress: Progress) -> None:
    logged: list[dict[str, Any]] = []
    with connection.cursor() as cursor:
        for row in _rows(folder, "logged", LOGGED, progress):
            if not probes.get(row["probe"]):
                raise NotTaken(f"logged.csv refers to number {row['probe']} of probes.csv, which is not there.")
            logged.append(row)
            if len(logged) >= BATCH:
                _store_logged(cursor, logged, probes)
        _store_logged(cursor, logged, probes)
        cursor.execute(HOURS, [list(probes.values())])


def _store_logged(cursor: Any, logged: list[dict[str, Any]], probes: dict[int, int]) -> None:
    if logged:
        columns = [[row[column.name] for row in logged] for column in LOGGED]
        cursor.execute(INSERT, [[probes[number] for number in columns[0]], *columns[1:]])
    logged.clear()
