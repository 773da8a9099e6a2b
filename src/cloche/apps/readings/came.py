"""What the files say that came in by themselves."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import IncomingFile, WatchedFile
from cloche.apps.shared import words

SHOWN = 8


@dataclass(frozen=True)
class CameLine:
    """A file, when it came, and how it went."""

    name: str
    when: str
    text: str


def how_many(kind: str, added: int) -> str:
    """Days or readings."""
    if kind == IncomingFile.Kind.WEATHER:
        return words.count(added, "day", "days")
    return words.count(added, "reading", "readings")


def came_by_themselves(garden: Garden, now: datetime) -> list[CameLine]:
    """The latest, the newest first."""
    today = now.astimezone(garden.timezone).date()
    return [_line(one, garden, today) for one in garden.watched_files.all()[:SHOWN]]


def _line(one: WatchedFile, garden: Garden, today: date) -> CameLine:
    at = one.at.astimezone(garden.timezone)
    return CameLine(one.name, f"{words.day(at.date(), today)} {words.clock(at)}", _text(one))


def _text(one: WatchedFile) -> str:
    if not one.taken:
        return _("not taken. {reason}").format(reason=one.reason)
    if not one.kind:
        return _("its typical year gives the monthly normals now.")
    added = _("{what} brought in.").format(what=how_many(one.kind, one.added)) if one.added else _("nothing new in it.")
    if not one.left_out:
        return added
    rows = words.count(one.left_out, "row", "rows")
    return _("{added} {rows} left out: {reason}").format(added=added, rows=rows, reason=one.reason)
