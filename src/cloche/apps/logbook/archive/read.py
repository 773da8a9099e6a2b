"""Reading an archive into a new garden: whole, or not at all with the file, the line and the reason."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from collections.abc import Iterable, Iterator
from typing import IO, Any
from uuid import uuid4

from django.db import IntegrityError, connection, transaction

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import note_change_in
from cloche.apps.gardens.flows.settle import found_garden
from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.tokens import fingerprint
from cloche.apps.logbook.archive.columns import Column, Unreadable
from cloche.apps.logbook.archive.tables import GARDEN, LOGGED, NORMALS, TABLES, Table
from cloche.apps.logbook.archive.write import FORMAT, photo_name
from cloche.apps.loggers.models import LoggedHour

BATCH = 5000
MOST_UNPACKED_BYTES = 4_000_000_000
Numbers = dict[str, dict[int, int]]


class NotTaken(ValueError):
    """The archive cannot be taken; the message says where and why. Nothing was kept of it."""


def read_archive(file: IO[bytes], owner: User) -> Garden:
    """A new garden of its owner from an archive. Raises NotTaken."""
    try:
        with zipfile.ZipFile(file) as packed, transaction.atomic():
            _refuse_strange(packed)
            return _garden_of(packed, owner)
    except zipfile.BadZipFile as broken:
        raise NotTaken("This is no zip file, or a damaged one.") from broken
    except IntegrityError as twice:
        raise NotTaken(f"Two rows say the same thing twice: {str(twice).splitlines()[0]}") from twice


def _refuse_strange(packed: zipfile.ZipFile) -> None:
    if sum(part.file_size for part in packed.infolist()) > MOST_UNPACKED_BYTES:
        raise NotTaken("Unpacked the archive would be larger than 4 GB.")
    try:
        told = json.loads(packed.read("datapackage.json"))
        version = told["cloche_format"]
    except (KeyError, ValueError, TypeError) as lack:
        raise NotTaken("There is no description of a Cloche garden in it (datapackage.json).") from lack
    if version != FORMAT:
        raise NotTaken(f"It is written in format {version}; this Cloche reads format {FORMAT}.")


def _garden_of(packed: zipfile.ZipFile, owner: User) -> Garden:
    (site,) = list(_rows(packed, "garden", GARDEN)) or _lacking("garden.csv has no row.")
    months = sorted((row["month"], row["low_c"], row["high_c"]) for row in _rows(packed, "normals", NORMALS))
    garden = Garden(**(site | {"crops": site["crops"].split()}))
    if len(months) == 12:
        garden.normal_lows_c, garden.normal_highs_c = [m[1] for m in months], [m[2] for m in months]
    try:
        garden.timezone  # noqa: B018 - raises for a name that is no zone
    except (KeyError, ValueError) as unknown:
        raise NotTaken(f"garden.csv: “{garden.timezone_name}” is no time zone.") from unknown
    found_garden(garden, owner)
    numbers: Numbers = {}
    for table in TABLES:
        if table.model is not LoggedHour:
            _take(packed, table, garden, numbers)
    _take_logged(packed, numbers["probes"])
    words_table = next(table for table in TABLES if table.model is LoggedHour)
    for row in _rows(packed, words_table.name, words_table.columns):
        hours = LoggedHour.objects.filter(probe_id=_known(numbers, "probes", row["probe"], words_table), hour=row["hour"])
        hours.update(verdict=row["verdict"])
    note_change_in(garden)
    return garden


def _lacking(said: str) -> list[Any]:
    raise NotTaken(said)


def _take(packed: zipfile.ZipFile, table: Table, garden: Garden, numbers: Numbers) -> None:
    own = numbers.setdefault(table.name, {})
    waiting: list[tuple[int, Any]] = []
    for index, row in enumerate(_rows(packed, table.name, table.columns)):
        number = row.pop(table.number, 0) if table.number else 0
        if table.number and number in own:
            raise NotTaken(f"{table.name}.csv: the number {number} stands there twice.")
        own[number] = 0
        for column in table.refers:
            asked = row.pop(column)
            row[f"{column}_id"] = None if asked is None else _known(numbers, table.refers[column], asked, table)
        waiting.append((number, table.model(**row, **_added(table, garden, index, packed, number))))
        if len(waiting) >= BATCH:
            _store(table, waiting, own)
    _store(table, waiting, own)


def _store(table: Table, waiting: list[tuple[int, Any]], own: dict[int, int]) -> None:
    for (number, _), row in zip(waiting, table.model._default_manager.bulk_create([one for _, one in waiting]), strict=True):
        own[number] = row.pk
    waiting.clear()


def _known(numbers: Numbers, name: str, asked: int, table: Table) -> int:
    found = numbers[name].get(asked)
    if not found:
        raise NotTaken(f"{table.name}.csv refers to number {asked} of {name}.csv, which is not there.")
    return found


def _added(table: Table, garden: Garden, index: int, packed: zipfile.ZipFile, number: int) -> dict[str, Any]:
    """What the file does not say of a row."""
    fields = {f.name for f in table.model._meta.get_fields()}
    added: dict[str, Any] = {"garden": garden} if "garden" in fields else {}
    if table.name == "places":
        added["walking_order"] = index
    if table.name == "visits":
        added |= {"key": uuid4(), "photo": _photo(packed, number)}
    if table.name == "loggers":
        # Nobody knows a token with this fingerprint: the device is let in again by a new one.
        added |= {"fingerprint": fingerprint(uuid4().hex), "made_at": clock.now(), "revoked_at": clock.now()}
    return added


def _photo(packed: zipfile.ZipFile, visit: int) -> bytes | None:
    name = photo_name(visit)
    return packed.read(name) if name in packed.NameToInfo else None


def _rows(packed: zipfile.ZipFile, name: str, columns: Iterable[Column]) -> Iterator[dict[str, Any]]:
    wanted = list(columns)
    try:
        entry = packed.open(f"{name}.csv")
    except KeyError as lack:
        raise NotTaken(f"{name}.csv is missing.") from lack
    with entry, io.TextIOWrapper(entry, "utf-8", newline="") as text:
        reader = csv.reader(text, strict=True)
        try:
            if next(reader, None) != [column.name for column in wanted]:
                raise NotTaken(f"{name}.csv: its heading is not {', '.join(column.name for column in wanted)}.")
            for cells in reader:
                yield _row(name, reader.line_num, wanted, cells)
        except (csv.Error, UnicodeDecodeError) as broken:
            raise NotTaken(f"{name}.csv, line {reader.line_num}: {broken}") from broken


def _row(name: str, line: int, columns: list[Column], cells: list[str]) -> dict[str, Any]:
    if len(cells) != len(columns):
        raise NotTaken(f"{name}.csv, line {line}: {len(cells)} cells instead of {len(columns)}.")
    found = {}
    for column, cell in zip(columns, cells, strict=True):
        try:
            found[column.name] = column.read(cell)
        except Unreadable as why:
            raise NotTaken(f"{name}.csv, line {line}, {column.name}: {why}.") from why
    return found


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


def _take_logged(packed: zipfile.ZipFile, probes: dict[int, int]) -> None:
    logged: list[dict[str, Any]] = []
    with connection.cursor() as cursor:
        for row in _rows(packed, "logged", LOGGED):
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
