"""A germination trial as a spreadsheet: crops down the side, temperatures along the top, seedlings in the cells."""

from __future__ import annotations

import csv
from collections.abc import Callable
from dataclasses import dataclass
from itertools import zip_longest

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.shared.tables import crop_keys, delimiter
from cloche.apps.trials.models import MOST_SEEDS

MOST_CELLS = 400


@dataclass(frozen=True)
class Cell:
    """A batch of the sheet: crop, temperature [°C], seedlings and seeds."""

    crop_key: str
    warmth_c: float
    up: int
    seeds: int


def read_sheet(text: str, seeds: int, warmth_from: Callable[[str], float]) -> list[Cell]:
    """Return all filled cells. Raises ValidationError with every mistake and its row.

    `seeds` counts where a cell has none of its own; `warmth_from` reads a heading [°C].
    """
    rows = [row for row in csv.reader(text.splitlines(), delimiter=delimiter(text)) if any(cell.strip() for cell in row)]
    if len(rows) < 2 or len(rows[0]) < 2:
        raise forms.ValidationError(_("The table needs a row of temperatures and a row for each crop."))
    headings = [cell.strip().rstrip("°CF ") for cell in rows[0][1:]]
    try:
        warmths = [warmth_from(heading) if heading else None for heading in headings]
    except forms.ValidationError as refusal:
        reasons = [_("Row {number}: {what}").format(number=1, what=reason) for reason in refusal.messages]
        raise forms.ValidationError(reasons) from refusal
    known, cells, wrong = crop_keys(), [], []
    for number, row in enumerate(rows[1:], 2):
        key = known.get(row[0].strip().lower())
        read, mistakes = _cells(key, row[1:], warmths, seeds)
        if key is None:
            mistakes = [_("there is no crop called “{name}”.").format(name=row[0].strip())]
        cells += read
        wrong += [_("Row {number}: {what}").format(number=number, what=what) for what in mistakes]
    if len(cells) > MOST_CELLS:
        wrong.append(_("Enter at most {most} cells at a time.").format(most=MOST_CELLS))
    if wrong:
        raise forms.ValidationError(wrong)
    return cells


def _cells(key: str | None, row: list[str], warmths: list[float | None], seeds: int) -> tuple[list[Cell], list[str]]:
    """Return the filled cells of a row, and what is wrong with others."""
    cells, wrong = [], []
    for warmth, typed in zip_longest(warmths, (cell.strip() for cell in row)):
        if not typed or key is None:
            continue
        counted = _counted(typed, seeds)
        if warmth is None:
            wrong.append(_("“{text}” is in a column without a temperature.").format(text=typed))
        elif counted is None:
            wrong.append(_("“{text}” is not a number of seedlings among {seeds} seeds.").format(text=typed, seeds=seeds))
        else:
            cells.append(Cell(key, warmth, *counted))
    return cells, wrong


def _counted(text: str, seeds: int) -> tuple[int, int] | None:
    """Return seedlings and seeds of a cell such as 18 or 18/25."""
    up, _slash, of = (part.strip() for part in text.partition("/"))
    if not up.isdecimal() or (of and not of.isdecimal()):
        return None
    number, among = int(up), int(of) if of else seeds
    return (number, among) if 0 < among <= MOST_SEEDS and number <= among else None
