"""Spreadsheet files (xlsx, xls, ods) as CSV text, opened in a process of their own (cloche.apart.sheet)."""

from __future__ import annotations

import tempfile

from cloche.apart.running import Limits, Refused, TooMuch, run_apart
from cloche.apps.readings.files.tables import MOST_COLUMNS, MOST_ROWS, UnreadableFile
from cloche.apps.shared.i18n import lazy

ZIPPED, OLD_OFFICE = b"PK\x03\x04", b"\xd0\xcf\x11\xe0"
MOST_CELLS, MOST_UNPACKED_BYTES = 5_000_000, 300_000_000
LIMITS = Limits(memory_bytes=1_200_000_000, cpu_s=20, wall_s=45, file_bytes=100_000_000)
TOO_MUCH = {
    "memory": lazy(
        "The sheet needs more memory than one file is given: its cells reach too far apart, or there "
        "are too many. Copy the rows you need into a new sheet, or save it as CSV."
    ),
    "time": lazy("The sheet takes too long to open. Split it by year, or save it as CSV."),
    "size": lazy("The sheet is too large to take. Split it by year."),
}


def is_sheet(data: bytes) -> bool:
    """Whether this is a spreadsheet file, by its first bytes."""
    return data.startswith((ZIPPED, OLD_OFFICE))


def sheet_text(data: bytes) -> str:
    """As CSV text; raises UnreadableFile with a sentence."""
    most = (str(n) for n in (MOST_ROWS, MOST_COLUMNS, MOST_CELLS, MOST_UNPACKED_BYTES))
    with tempfile.TemporaryFile() as given:
        given.write(data)
        given.seek(0)
        try:
            return run_apart("sheet", given, LIMITS, *most).decode("utf-8")
        except Refused as refusal:
            raise UnreadableFile(str(refusal)) from refusal
        except TooMuch as limit:
            raise UnreadableFile(TOO_MUCH[str(limit)]) from limit
