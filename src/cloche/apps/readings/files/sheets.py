"""Spreadsheet files (xlsx, xls, ods) as a table in text: the sheet of most rows, dates and numbers written plainly."""

from __future__ import annotations

import csv
import io
import zipfile
from datetime import date, datetime, time
from typing import Any

from python_calamine import CalamineError, CalamineWorkbook

from cloche.apps.readings.files.tables import MOST_ROWS, UnreadableFile

ZIPPED, OLD_OFFICE = b"PK\x03\x04", b"\xd0\xcf\x11\xe0"
MOST_UNPACKED_BYTES = 300_000_000


def is_sheet(data: bytes) -> bool:
    """Whether this is a spreadsheet file, by its first bytes."""
    return data.startswith((ZIPPED, OLD_OFFICE))


def sheet_text(data: bytes) -> str:
    """As CSV text; raises UnreadableFile with a sentence."""
    _refuse_bomb(data)
    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(data))
        tables = [book.get_sheet_by_name(name).to_python(skip_empty_area=True) for name in book.sheet_names]
    except (CalamineError, OSError) as broken:
        raise UnreadableFile("This is no spreadsheet that can be read. Save it as xlsx, ods or CSV.") from broken
    rows = max(tables, key=len, default=[])
    if len(rows) > MOST_ROWS + 1:
        raise UnreadableFile(f"The sheet has more than {MOST_ROWS:,} rows: split it, by year for instance.")
    out = io.StringIO()
    csv.writer(out).writerows([_written(cell) for cell in row] for row in rows)
    return out.getvalue()


def _refuse_bomb(data: bytes) -> None:
    if not data.startswith(ZIPPED):
        return
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            size = sum(part.file_size for part in packed.infolist())
    except zipfile.BadZipFile as broken:
        raise UnreadableFile("The file is damaged: it cannot be unpacked.") from broken
    if size > MOST_UNPACKED_BYTES:
        raise UnreadableFile(f"Unpacked the file would have {size / 1e6:,.0f} MB; that is too large to take. Split it by year.")


def _written(cell: Any) -> str:
    """A cell as a careful typist would write it: whole numbers without .0, days and times the ISO way."""
    if isinstance(cell, datetime):
        return cell.date().isoformat() if cell.time() == time() else cell.isoformat(sep=" ", timespec="seconds")
    if isinstance(cell, date):
        return cell.isoformat()
    if isinstance(cell, time):
        return cell.isoformat(timespec="seconds")
    if isinstance(cell, float):
        return str(int(cell)) if cell.is_integer() else repr(cell)
    return str(cell)
