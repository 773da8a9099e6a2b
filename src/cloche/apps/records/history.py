"""History of a garden: each change with its author and the value before it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db.models import Value
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.records.kind import Kind
from cloche.apps.records.kinds import KINDS
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.values.units import Units

SHOWN = 60
FROM = ("entered_by", "made_by")
DID = {"+": lazy("recorded"), "~": lazy("changed")}


@dataclass(frozen=True)
class Change:
    """One change in words; `undo` describes what undoing it would do and is empty where that is not offered."""

    kind: str
    pk: int
    at: datetime
    when: str
    who: str
    what: str
    did: str
    parts: list[str]
    undo: str


def changes(garden: Garden, units: Units, now: datetime, before: datetime | None = None, removed: bool = False) -> list[Change]:
    """Return the newest changes of all kinds, latest first.

    `before` selects changes older than a time, `removed` removals only.
    """
    entries: list[Change] = []
    for key, numbers in _newest(garden, before, removed).items():
        entries += _changes_of(KINDS[key], numbers, units, now, garden)
    return sorted(entries, key=lambda change: (change.at, change.pk), reverse=True)


def _newest(garden: Garden, before: datetime | None, removed: bool) -> dict[str, list[int]]:
    """Return history numbers of the newest changes by kind, in one query over all kinds."""
    rows = [
        _of_kind(kind, garden, before, removed)
        .annotate(of_kind=Value(kind.key))
        .values_list("history_date", "history_id", "of_kind")
        for kind in KINDS.values()
    ]
    short = [query.order_by("-history_id")[:SHOWN] for query in rows]
    numbers: dict[str, list[int]] = {}
    for _at, number, key in short[0].union(*short[1:], all=True).order_by("-history_date", "-history_id")[:SHOWN]:
        numbers.setdefault(key, []).append(number)
    return numbers


def _of_kind(kind: Kind, garden: Garden, before: datetime | None, removed: bool) -> Any:
    rows = kind.model.history.filter(**{kind.inside: garden.pk})  # type: ignore[attr-defined]
    if before is not None:
        rows = rows.filter(history_date__lt=before)
    if removed:
        rows = rows.filter(history_type="-") if "removed_at" not in kind.fields else rows.filter(removed_at__isnull=False)
    return rows


def _changes_of(kind: Kind, numbers: list[int], units: Units, now: datetime, garden: Garden) -> list[Change]:
    rows = kind.model.history.filter(history_id__in=numbers)  # type: ignore[attr-defined]
    shown = list(rows.select_related("history_user", kind.inside, *_from(kind)))
    earlier = _earlier(kind, shown)
    return [_change(kind, row, earlier.get(row.history_id), units, now, garden) for row in shown]


def _from(kind: Kind) -> list[str]:
    return [name for name in FROM if hasattr(kind.model, name)]


def _earlier(kind: Kind, shown: list[Any]) -> dict[int, Any]:
    """Return the state before each change by history number, in one query."""
    history = kind.model.history  # type: ignore[attr-defined]
    earlier: dict[int, Any] = {}
    last: dict[int, Any] = {}
    for row in history.filter(id__in={row.id for row in shown}).order_by("history_id"):
        if row.id in last:
            earlier[row.history_id] = last[row.id]
        last[row.id] = row
    return earlier


def _change(kind: Kind, row: Any, was: Any, units: Units, now: datetime, garden: Garden) -> Change:
    local, today = row.history_date.astimezone(garden.timezone), now.astimezone(garden.timezone).date()
    went = getattr(row, "removed_at", None) is not None and getattr(was, "removed_at", row.history_date) is None
    taken_off = row.history_type == "-" or went
    parts = _parts(kind, row, was, units)
    return Change(
        kind=kind.key,
        pk=row.history_id,
        at=row.history_date,
        when=f"{words.day(local.date(), today)} {words.clock(local)}",
        who=_who(row),
        what=kind.what(row, units),
        did=_("removed") if taken_off else DID[row.history_type],
        parts=parts,
        undo=_("restored") if taken_off else _("as it was before") if was is not None and parts else "",
    )


def _parts(kind: Kind, row: Any, was: Any, units: Units) -> list[str]:
    """Describe what changed, before and after; for a new record, its first values."""
    if row.history_type == "-" or (was is None and row.history_type != "+"):
        return []
    parts = []
    for name, (label, shown) in kind.fields.items():
        new, old = _read(row, name), _read(was, name)
        if row.history_type == "+" and new not in (None, "", False, 0.0):
            parts.append(f"{label} {shown(new, units)}")
        elif row.history_type != "+" and new != old and name != "removed_at":
            parts.append(f"{label} {shown(old, units)} → {shown(new, units)}")
    return parts[:2] if row.history_type == "+" else parts


def _read(row: Any, name: str) -> Any:
    """Return a field's value with choices as their labels; None where there is no row."""
    display = getattr(row, f"get_{name}_display", None)
    return display() if display else getattr(row, name, None)


def _who(row: Any) -> str:
    """Return the name of the person signed in, or the source of a change that came another way."""
    person = row.history_user or next((getattr(row, name) for name in FROM if getattr(row, f"{name}_id", None)), None)
    return person.username if person else "Cloche"
