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
    return [_line(watched_file, garden, today) for watched_file in garden.watched_files.all()[:SHOWN]]


def _line(watched_file: WatchedFile, garden: Garden, today: date) -> CameLine:
    at = watched_file.at.astimezone(garden.timezone)
    return CameLine(watched_file.name, f"{words.day(at.date(), today)} {words.clock(at)}", _text(watched_file))


def _text(watched_file: WatchedFile) -> str:
    if not watched_file.taken:
        return _("not taken. {reason}").format(reason=watched_file.reason)
    if not watched_file.kind:
        return _("its typical year gives the monthly normals now.")
    added = (
        _("{what} brought in.").format(what=how_many(watched_file.kind, watched_file.added))
        if watched_file.added
        else _("nothing new in it.")
    )
    if not watched_file.left_out:
        return added
    rows = words.count(watched_file.left_out, "row", "rows")
    return _("{added} {rows} left out: {reason}").format(added=added, rows=rows, reason=watched_file.reason)
