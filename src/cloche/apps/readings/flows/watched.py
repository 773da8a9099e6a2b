"""Files that are laid into a folder and come in by themselves: each garden's in the folder of its number.

What was taken is moved to `done`, what could not be to `refused` with the reason beside it.
"""

from __future__ import annotations

import time
from dataclasses import dataclass
from pathlib import Path

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import translation
from django.utils.translation import gettext as _

from cloche.apps.gardens.language import language_of
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.files.tables import UnreadableFile
from cloche.apps.readings.flows import bring_in
from cloche.apps.readings.models import WatchedFile
from cloche.apps.shared import clock
from cloche.apps.work import queue
from cloche.bridge.values import border

TAKE_WATCHED = "readings.take_watched"
QUIET_S, MOST_KEPT, MOST_AT_ONCE = 20.0, 50, 100
"""A file that was written to this lately may not be whole yet; how many are remembered, and looked at in a round."""
DONE, REFUSED = "done", "refused"


def folder_round() -> int:
    """Queue every file that is ready in the watched folder; return how many. Raises OSError for an unreadable folder."""
    if not settings.CLOCHE_INBOX:
        return 0
    due = {}
    for folder in sorted(Path(settings.CLOCHE_INBOX).iterdir()):
        if folder.name.isdecimal() and folder.is_dir() and not folder.is_symlink() and _is_garden(folder.name):
            for file in _ready(folder):
                due[f"watched-{folder.name}-{file.name}"[:200]] = {"garden_id": int(folder.name), "name": file.name}
    return queue.put_due(TAKE_WATCHED, due, queue.LATER)


def _is_garden(number: str) -> bool:
    return len(number) < 10 and Garden.objects.filter(pk=int(number)).exists()


def _ready(folder: Path) -> list[Path]:
    """Return regular files nobody is writing to, without hidden files, links and unprintable names."""
    latest = time.time() - QUIET_S
    there = (
        path for path in sorted(folder.iterdir()) if path.name[0] != "." and path.name.isprintable() and not path.is_symlink()
    )
    return [path for path in there if path.is_file() and path.stat().st_mtime <= latest][:MOST_AT_ONCE]


@dataclass(frozen=True)
class Brought:
    """Outcome of an imported file; see models.WatchedFile."""

    kind: str = ""
    taken: bool = True
    added: int = 0
    left_out: int = 0
    reason: str = ""


def take_file(garden_id: int, name: str) -> WatchedFile | None:
    """Import one file and move it away; None if the file or its garden is gone.

    A file that could not be moved is read again, which adds nothing.
    """
    garden = Garden.objects.filter(pk=garden_id).first()
    path = Path(settings.CLOCHE_INBOX) / str(garden_id) / name
    if garden is None or not path.is_file():
        return None
    owner = garden.people.order_by("memberships__pk").first()
    with translation.override(language_of(owner) if owner else settings.LANGUAGE_CODE):
        brought = _bring(garden, path)
    kept = WatchedFile.objects.create(garden=garden, name=border.one_line(name)[:200], at=clock.now(), **brought.__dict__)
    beyond = garden.watched_files.values_list("pk", flat=True)[MOST_KEPT:]
    WatchedFile.objects.filter(pk__in=list(beyond)).delete()
    _put_away(path, brought)
    return kept


def _bring(garden: Garden, path: Path) -> Brought:
    try:
        if path.stat().st_size > settings.CLOCHE_IMPORT_LIMIT_BYTES:
            raise UnreadableFile(_("The file is too large. Split it by year."))
        upload = SimpleUploadedFile(path.name, path.read_bytes())
        if bring_in.is_typical_year(upload):
            bring_in.take_typical_year(garden, upload)
            return Brought(added=12)
        incoming = bring_in.by_itself(garden, upload)
        rows = bring_in.take_now(incoming)
    except UnreadableFile as refusal:
        return Brought(taken=False, reason=border.one_line(str(refusal))[:300])
    except ValidationError as full:
        return Brought(taken=False, reason=full.messages[0][:300])
    first = rows.refused[0] if rows.refused else None
    reason = _("line {line}: {reason}").format(line=first.line, reason=first.reason)[:300] if first else ""
    return Brought(incoming.kind, added=len(rows.fresh), left_out=len(rows.refused), reason=reason)


def _put_away(path: Path, brought: Brought) -> None:
    folder = path.parent / (DONE if brought.taken else REFUSED)
    folder.mkdir(exist_ok=True)
    path.replace(folder / path.name)
    if brought.reason:
        (folder / f"{path.name}.txt").write_text(brought.reason + "\n", encoding="utf-8")
