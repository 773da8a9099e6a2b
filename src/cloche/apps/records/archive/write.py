"""Writing an archive: the same garden gives the same bytes apart from the time."""

from __future__ import annotations

import csv
import io
import json
import tempfile
import zipfile
from collections.abc import Iterable, Iterator
from datetime import UTC, datetime
from typing import IO, Any

from django.db import connection

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Visit
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.tables import GARDEN, LOGGED, NORMALS, TABLES, Table

FORMAT = 3
STAMP = (2020, 1, 1, 0, 0, 0)
"""Every entry of the zip bears this time: when it was written stands in the description alone."""
IN_MEMORY_BYTES = 8_000_000
Numbers = dict[str, dict[int, int]]


def write_archive(garden: Garden, now: datetime) -> IO[bytes]:
    """Return a zip file of CSV tables with datapackage.json, as a temporary file positioned at its start."""
    out: IO[bytes] = tempfile.SpooledTemporaryFile(max_size=IN_MEMORY_BYTES)  # noqa: SIM115 - handed on
    numbers: Numbers = {}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        _entry(packed, "datapackage.json", json.dumps(described(garden, now), indent=1, ensure_ascii=False).encode())
        _csv(packed, "garden.csv", GARDEN, [garden_row(garden)])
        _csv(packed, "normals.csv", NORMALS, normals_rows(garden))
        for table in TABLES:
            _csv(packed, f"{table.name}.csv", table.columns, _rows(table, garden, numbers, packed))
        _logged(packed, numbers["probes"])
        _photos(packed, numbers["visits"])
    out.seek(0)
    return out


def described(garden: Garden, now: datetime) -> dict[str, Any]:
    """Return the Data Package descriptor of every table, column and unit."""
    plain: list[tuple[str, str, tuple[Column, ...], dict[str, str]]] = [
        ("garden", "The site.", GARDEN, {}),
        ("normals", "Monthly normals of the air, if typed in.", NORMALS, {}),
    ]
    listed = [*plain, *((t.name, t.description, t.columns, t.refers) for t in TABLES)]
    listed.append(("logged", "Every value that loggers sent.", LOGGED, {"probe": "probes"}))
    return {
        "profile": "tabular-data-package",
        "name": "cloche-garden",
        "title": garden.name,
        "description": "Everything that stands in one garden's record, in canonical units. Instants are UTC, days are local.",
        "created": now.astimezone(UTC).isoformat(timespec="seconds"),
        "cloche_format": FORMAT,
        "resources": [_resource(*resource) for resource in listed],
    }


def _resource(name: str, description: str, columns: Iterable[Column], refers: dict[str, str]) -> dict[str, Any]:
    schema: dict[str, Any] = {"fields": [column.described() for column in columns], "missingValues": [""]}
    if refers:
        numbered = {table.name: table.number for table in TABLES}
        schema["foreignKeys"] = [
            {"fields": column, "reference": {"resource": table, "fields": numbered[table]}} for column, table in refers.items()
        ]
    return {
        "name": name,
        "path": f"{name}.csv",
        "profile": "tabular-data-resource",
        "description": description,
        "format": "csv",
        "mediatype": "text/csv",
        "encoding": "utf-8",
        "dialect": {"delimiter": ",", "lineTerminator": "\r\n", "header": True},
        "schema": schema,
    }


def garden_row(garden: Garden) -> list[str]:
    """Return the garden's site as one row."""
    return [
        column.write(" ".join(garden.crops) if column.name == "crops" else getattr(garden, column.name)) for column in GARDEN
    ]


def normals_rows(garden: Garden) -> Iterator[list[str]]:
    """Yield the twelve monthly normals, if any."""
    for month, pair in enumerate(zip(garden.normal_lows_c or [], garden.normal_highs_c or [], strict=True), 1):
        yield [column.write(value) for column, value in zip(NORMALS, (month, *pair), strict=True)]


def _rows(table: Table, garden: Garden, numbers: Numbers, packed: zipfile.ZipFile) -> Iterator[list[str]]:
    """Yield a table's rows, assigning row numbers as it goes."""
    own = numbers.setdefault(table.name, {})
    # Pictures wait: a zip takes one entry at a time.
    for count, row in enumerate(table.rows(garden).defer(*_heavy(table)).iterator(chunk_size=2000), 1):
        own[row.pk if isinstance(row.pk, int) else 0] = count
        yield [column.write(_value(table, column, row, count, numbers)) for column in table.columns]


def _heavy(table: Table) -> list[str]:
    return ["photo"] if table.name == "visits" else ["outlook"] if table.name == "sowings" else []


def _value(table: Table, column: Column, row: Any, count: int, numbers: Numbers) -> Any:
    if column.name == table.number:
        return count
    if column.name in table.refers:
        return numbers[table.refers[column.name]].get(getattr(row, f"{column.name}_id"))
    return getattr(row, column.name)


def _csv(packed: zipfile.ZipFile, name: str, columns: Iterable[Column], rows: Iterable[list[str]]) -> None:
    with packed.open(_info(name), "w", force_zip64=True) as entry, io.TextIOWrapper(entry, "utf-8", newline="") as text:
        writer = csv.writer(text)
        writer.writerow([column.name for column in columns])
        writer.writerows(rows)


def _info(name: str) -> zipfile.ZipInfo:
    info = zipfile.ZipInfo(name, STAMP)
    info.compress_type = zipfile.ZIP_DEFLATED
    return info


def _entry(packed: zipfile.ZipFile, name: str, data: bytes) -> None:
    packed.writestr(_info(name), data)


def _photos(packed: zipfile.ZipFile, visits: dict[int, int]) -> None:
    """Add the photos one at a time, so that a season's pictures need not fit into memory."""
    with_one = set(Visit.objects.filter(pk__in=visits, photo__isnull=False).values_list("pk", flat=True))
    for pk in sorted(with_one, key=lambda pk: visits[pk]):
        photo = Visit.objects.values_list("photo", flat=True).get(pk=pk)
        _entry(packed, photo_name(visits[pk]), bytes(photo or b""))


def photo_name(visit: int) -> str:
    """Return the file name of a visit's photo."""
    return f"photos/{visit}.jpg"


COPY = """
COPY (
  SELECT n, to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), temperature_c, shift_s, fault
  FROM loggers_reading JOIN unnest({ids}::int[]) WITH ORDINALITY AS p(id, n) ON p.id = probe_id ORDER BY n, at
) TO STDOUT WITH (FORMAT csv)
"""


def _logged(packed: zipfile.ZipFile, probes: dict[int, int]) -> None:
    """Copy logger values at the database's own speed."""
    in_order = sorted(probes, key=lambda pk: probes[pk])
    sql = COPY.format(ids=f"ARRAY[{','.join(str(int(pk)) for pk in in_order)}]")
    with packed.open(_info("logged.csv"), "w", force_zip64=True) as entry:
        entry.write((",".join(column.name for column in LOGGED) + "\r\n").encode())
        with connection.cursor() as cursor, cursor.copy(sql) as lines:
            for part in lines:
                entry.write(bytes(part).replace(b"\n", b"\r\n"))
