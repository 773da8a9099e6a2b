"""A spreadsheet (xlsx, xls, ods) from standard input as CSV: the sheet of most rows, dates and numbers written plainly.

Words: most rows, most columns, most cells, most bytes that one entry of a zipped file may unpack to.
"""

from __future__ import annotations

import csv
import io
import sys
import zipfile
from datetime import date, datetime, time
from typing import Any

from cloche.apart.running import limited, refuse


def main() -> None:
    """Read a spreadsheet, check it and write its rows."""
    most_rows, most_columns, most_cells, most_bytes = (int(word) for word in limited())
    data = sys.stdin.buffer.read()
    if data.startswith(b"PK"):
        _refuse_bomb(data, most_bytes)
    rows = _rows(data, most_columns, most_cells)
    if len(rows) > most_rows + 1:
        refuse(f"The sheet has more than {most_rows:,} rows. Split it, for example by year.")
    out = io.TextIOWrapper(sys.stdout.buffer, "utf-8", newline="")
    csv.writer(out).writerows([_written(cell) for cell in row] for row in rows)
    out.flush()


def _rows(data: bytes, most_columns: int, most_cells: int) -> list[list[Any]]:
    from python_calamine import CalamineError, CalamineWorkbook

    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(data))
        sheets = [book.get_sheet_by_name(name) for name in book.sheet_names]
    except (CalamineError, OSError):
        refuse("This file is not a readable spreadsheet. Save it as xlsx, ods or CSV.")
    largest = max(sheets, key=lambda sheet: sheet.height, default=None)
    if largest is None:
        return []
    if largest.width > most_columns:
        refuse(f"The sheet has {largest.width:,} columns; the limit is {most_columns}. Remove those that are not needed.")
    if largest.width * largest.height > most_cells:
        refuse(f"The sheet has {largest.width * largest.height:,} cells; the limit is {most_cells:,}. Split it by year.")
    return list(largest.to_python(skip_empty_area=True))


def _refuse_bomb(data: bytes, most_bytes: int) -> None:
    """Refuse an archive by its actual content, whatever its directory says."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            for part in packed.infolist():
                if _unpacked(packed, part, most_bytes) > most_bytes:
                    refuse("This file is too large once unpacked. Split it by year.")
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, OSError, ValueError, EOFError):
        refuse("The file is damaged or protected by a password, so it cannot be unpacked.")


def _unpacked(packed: zipfile.ZipFile, part: zipfile.ZipInfo, most_bytes: int) -> int:
    size = 0
    with packed.open(part) as entry:
        while size <= most_bytes and (piece := entry.read(1_000_000)):
            size += len(piece)
    return size


def _written(cell: Any) -> str:
    """Return a cell as text: whole numbers without .0, dates and times in ISO format."""
    if isinstance(cell, datetime):
        return cell.date().isoformat() if cell.time() == time() else cell.isoformat(sep=" ", timespec="seconds")
    if isinstance(cell, date):
        return cell.isoformat()
    if isinstance(cell, time):
        return cell.isoformat(timespec="seconds")
    if isinstance(cell, float):
        return str(int(cell)) if cell.is_integer() else repr(cell)
    return str(cell)


if __name__ == "__main__":
    main()
