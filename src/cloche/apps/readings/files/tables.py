"""Reading of text tables with any separator and of spreadsheets, with protection against formulas."""

from __future__ import annotations

import csv
import io
import tempfile
from dataclasses import dataclass

from charset_normalizer import from_bytes
from django.utils.translation import gettext as _

from cloche.apart.running import Limits, Refused, TooMuch, run_apart
from cloche.apps.shared.words import lazy
from cloche.bridge.values.texts import number_text

DELIMITERS = ",;\t|"
MOST_ROWS, MOST_COLUMNS = 250_000, 100


class UnreadableFile(ValueError):
    """Raised for a file that cannot be read; the message tells why and what to do."""


@dataclass(frozen=True)
class Table:
    """Header and text rows; `line` holds the file's line number of each row for error messages."""

    header: list[str]
    rows: list[list[str]]
    line: list[int]

    def samples(self, column: int, count: int = 3) -> list[str]:
        """Return the first non-empty cells of a column."""
        cells = (row[column] for row in self.rows if column < len(row) and row[column].strip())
        return [cell for cell, _unused in zip(cells, range(count), strict=False)]


def decode(data: bytes) -> str:
    """Decode bytes as UTF-8 with or without BOM, UTF-16, or else the likeliest Western encoding."""
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise UnreadableFile(_("This is neither text nor a spreadsheet. Save the sheet as xlsx, ods or CSV and import that."))
    for encoding in ("utf-16",) if data.startswith((b"\xff\xfe", b"\xfe\xff")) else ("utf-8-sig",):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            break
    guess = from_bytes(data[:200_000], cp_isolation=["cp1252", "latin_1", "iso8859_15"]).best()
    return data.decode(guess.encoding if guess else "latin-1", errors="replace")


def read_table(text: str) -> Table:
    """Split text into a table whose first non-empty line is the header. Raises UnreadableFile."""
    if not text.strip():
        raise UnreadableFile(_("The file is empty."))
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    reader = csv.reader(io.StringIO(text), delimiter=_delimiter(text))
    header: list[str] = []
    rows: list[list[str]] = []
    lines: list[int] = []
    try:
        for row in reader:
            if not any(cell.strip() for cell in row):
                continue
            if not header:
                header = [cell.strip() for cell in row]
                _refuse_wide(header)
                continue
            rows.append(row[:MOST_COLUMNS])
            lines.append(reader.line_num)
            if len(rows) > MOST_ROWS:
                raise UnreadableFile(
                    _("The file has more than {most_rows} rows. Split it, for example by year.").format(
                        most_rows=number_text(f"{MOST_ROWS:,}")
                    )
                )
    except csv.Error as broken:
        raise UnreadableFile(
            _("Line {line_num} cannot be split into cells: {broken}.").format(line_num=reader.line_num, broken=broken)
        ) from broken
    if not rows:
        raise UnreadableFile(_("The file has headings but no rows."))
    return Table(header, rows, lines)


def _refuse_wide(header: list[str]) -> None:
    if len(header) > MOST_COLUMNS:
        raise UnreadableFile(
            _("The file has {len} columns; at most {most_columns} are accepted. Remove the others.").format(
                len=number_text(f"{len(header):,}"), most_columns=MOST_COLUMNS
            )
        )


def _delimiter(text: str) -> str:
    """Return the separator that splits the first lines most evenly; semicolons win over decimal commas."""
    lines = [line for line in text.split("\n")[:30] if line.strip()]
    counts = {d: [line.count(d) for line in lines] for d in DELIMITERS}
    steady = {d: min(c) for d, c in counts.items()}
    order = sorted(DELIMITERS, key=lambda d: (steady[d] > 0, d in ";\t|", steady[d]), reverse=True)
    return order[0] if steady[order[0]] > 0 else ","


ZIPPED, OLD_OFFICE = b"PK\x03\x04", b"\xd0\xcf\x11\xe0"
MOST_CELLS, MOST_UNPACKED_BYTES = 5_000_000, 300_000_000
LIMITS = Limits(memory_bytes=1_200_000_000, cpu_s=20, wall_s=45, file_bytes=100_000_000)
TOO_MUCH = {
    "memory": lazy(
        "The sheet needs too much memory: its cells are too far apart, or there are too many. Copy the "
        "rows you need into a new sheet, or save it as CSV."
    ),
    "time": lazy("The sheet takes too long to open. Split it by year, or save it as CSV."),
    "size": lazy("The sheet is too large. Split it by year."),
}


def is_sheet(data: bytes) -> bool:
    """Return whether a file is a spreadsheet, from its first bytes."""
    return data.startswith((ZIPPED, OLD_OFFICE))


def sheet_text(data: bytes) -> str:
    """Convert a spreadsheet to CSV text. Raises UnreadableFile."""
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


FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
QUOTE = "'"


def inert(cell: str) -> str:
    """Prefix a cell that a spreadsheet would read as a formula with a quote; numbers stay numbers."""
    if not cell.startswith((*FORMULA_SIGNS, QUOTE)) or _is_number(cell):
        return cell
    return QUOTE + cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True


def as_meant(cell: str) -> str:
    """Undo `inert`, so that our own files are imported unchanged."""
    return cell[1:] if cell.startswith(QUOTE) and cell[1:].startswith((*FORMULA_SIGNS, QUOTE)) else cell
