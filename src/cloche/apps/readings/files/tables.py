"""From the bytes of a file to rows of text, whatever program wrote them."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass

from charset_normalizer import from_bytes
from django.utils.translation import gettext as _

DELIMITERS = ",;\t|"
MOST_ROWS, MOST_COLUMNS = 250_000, 100


class UnreadableFile(ValueError):
    """The file cannot be taken; the message says why and what to do."""


@dataclass(frozen=True)
class Table:
    """Header and rows of text. line: the file's line number of each row, for telling where something is wrong."""

    header: list[str]
    rows: list[list[str]]
    line: list[int]

    def samples(self, column: int, count: int = 3) -> list[str]:
        """The first filled cells of a column."""
        cells = (row[column] for row in self.rows if column < len(row) and row[column].strip())
        return [cell for cell, _unused in zip(cells, range(count), strict=False)]


def decode(data: bytes) -> str:
    """Bytes to text: UTF-8 with or without its mark, UTF-16, else the likeliest Western encoding."""
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise UnreadableFile(_("This is neither text nor a spreadsheet. Save the sheet as xlsx, ods or CSV and bring that in."))
    for encoding in ("utf-16",) if data.startswith((b"\xff\xfe", b"\xfe\xff")) else ("utf-8-sig",):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            break
    guess = from_bytes(data[:200_000], cp_isolation=["cp1252", "latin_1", "iso8859_15"]).best()
    return data.decode(guess.encoding if guess else "latin-1", errors="replace")


def read_table(text: str) -> Table:
    """Split text into a table; the first filled line is the header. Raises UnreadableFile."""
    if not text.strip():
        raise UnreadableFile(_("The file is empty: there is nothing to bring in."))
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
                    _("The file has more than {most_rows} rows: split it, by year for instance.").format(
                        most_rows=f"{MOST_ROWS:,}"
                    )
                )
    except csv.Error as broken:
        raise UnreadableFile(
            _("Line {line_num} cannot be split into cells: {broken}.").format(line_num=reader.line_num, broken=broken)
        ) from broken
    if not rows:
        raise UnreadableFile(_("The file has a heading and no rows."))
    return Table(header, rows, lines)


def _refuse_wide(header: list[str]) -> None:
    if len(header) > MOST_COLUMNS:
        raise UnreadableFile(
            _("The file has {len} columns; at most {most_columns} are accepted. Leave out the others.").format(
                len=f"{len(header):,}", most_columns=MOST_COLUMNS
            )
        )


def _delimiter(text: str) -> str:
    """The one that splits the first lines most evenly; a decimal comma loses against the semicolon beside it."""
    lines = [line for line in text.split("\n")[:30] if line.strip()]
    counts = {d: [line.count(d) for line in lines] for d in DELIMITERS}
    steady = {d: min(c) for d, c in counts.items()}
    order = sorted(DELIMITERS, key=lambda d: (steady[d] > 0, d in ";\t|", steady[d]), reverse=True)
    return order[0] if steady[order[0]] > 0 else ","
