"""Nightly backups: make, test by restoring, thin out and copy."""

from __future__ import annotations

import logging
import os
import re
import shutil
import subprocess
from collections.abc import Iterable, Sequence
from datetime import date, datetime, time, timedelta
from pathlib import Path

import psycopg
from django.conf import settings
from django.db import connection
from psycopg import sql

from cloche.apps.shared import clock
from cloche.apps.upkeep.models import Backup
from cloche.apps.work import guard, queue

DAYS, WEEKS, MONTHS = 7, 4, 12


def kept(days: Iterable[date], today: date) -> set[date]:
    """Return the days whose backup is kept: the latest of each of the last seven days, four weeks and twelve months.

    Backups dated in the future by a wrong clock are kept as well.
    """
    past = sorted({day for day in days if day <= today}, reverse=True)
    days_kept = {day for day in days if day > today}
    days_kept |= {day for day in past if day > today - timedelta(days=DAYS)}
    for names, most in (
        ([(day.isocalendar().year, day.isocalendar().week) for day in past], WEEKS),
        ([(day.year, day.month) for day in past], MONTHS),
    ):
        first: dict[tuple[int, int], date] = {}
        for day, name in zip(past, names, strict=True):
            first.setdefault(name, day)
        days_kept |= set(list(first.values())[:most])
    return days_kept


log = logging.getLogger("cloche.upkeep")
BACK_UP = "upkeep.back_up"
NIGHT = time(3)
"""From this hour of the machine's own clock on."""
NAMED = re.compile(r"cloche-(\d{8})-\d{6}\.backup")
LONGEST_S = 3600.0
COUNTED = ("django_migrations", "gardens_user", "gardens_garden", "places_place")
"""Tables that must come back as they are: those that hardly change while a backup runs."""
LISTED = 400


class NotBackedUp(RuntimeError):
    """Raised where a backup failed; the message gives the reason."""


def is_wanted() -> bool:
    """Return whether this installation makes backups."""
    return bool(settings.CLOCHE_BACKUPS)


def backup_round() -> None:
    """Queue tonight's backup if it is missing; a failed one is retried like other work."""
    if is_wanted() and _is_due(clock.real_now().astimezone()):
        queue.put_due(BACK_UP, {"backup": {}}, queue.LATER)


def _is_due(local: datetime) -> bool:
    latest = Backup.objects.filter(failure="").values_list("made_at", flat=True).first()
    if latest is None:
        return True
    return local.time() >= NIGHT and latest.astimezone(local.tzinfo).date() < local.date()


def back_up() -> Backup:
    """Make a backup now. Raises NotBackedUp, which is also recorded."""
    made_at = clock.real_now()
    try:
        done = _make(made_at)
    except (NotBackedUp, OSError, subprocess.SubprocessError, psycopg.Error) as fault:
        Backup.objects.create(made_at=made_at, failure=str(fault).strip()[:LISTED] or type(fault).__name__)
        raise NotBackedUp(str(fault).strip()) from fault
    _thin(Path(settings.CLOCHE_BACKUPS), made_at)
    _copy(done)
    old = Backup.objects.order_by("-made_at").values_list("pk", flat=True)[LISTED:]
    Backup.objects.filter(pk__in=list(old)).delete()
    return done


def _make(made_at: datetime) -> Backup:
    folder = Path(settings.CLOCHE_BACKUPS)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    for left in folder.glob("cloche-*.backup.part"):
        left.unlink()  # of one that was killed on its way
    _ask_for_room(folder)
    name = f"cloche-{made_at.astimezone():%Y%m%d-%H%M%S}.backup"
    part = folder / f"{name}.part"
    try:
        before = _counts(connection.settings_dict["NAME"])
        _run(["pg_dump", "-Fc", "-f", str(part), connection.settings_dict["NAME"]])
        _prove(part, before)
        with part.open("rb") as written:
            os.fsync(written.fileno())
        part.rename(folder / name)
    finally:
        part.unlink(missing_ok=True)
    size = (folder / name).stat().st_size
    return Backup.objects.create(made_at=made_at, file=name, size_bytes=size, proved_at=clock.real_now())


def _ask_for_room(folder: Path) -> None:
    """Require eight times the size of the latest compressed backup, which its test unpacks, and the usual reserve."""
    last = Backup.objects.filter(failure="").values_list("size_bytes", flat=True).first() or 0
    free = min(shutil.disk_usage(folder).free, guard.free_bytes())
    if free < 8 * last + settings.CLOCHE_LEAST_FREE_BYTES:
        raise NotBackedUp(f"There is no room for a backup: {free // 1_000_000} MB are free.")


def _prove(file: Path, before: dict[str, int]) -> None:
    """Restore a backup into a database of its own and check that it is complete."""
    name = f"{connection.settings_dict['NAME']}_check"
    _empty(name)
    try:
        _run(["pg_restore", "--no-owner", "--exit-on-error", "-d", name, str(file)])
        restored, after = _counts(name), _counts(connection.settings_dict["NAME"])
        wrong = [
            table
            for table, number in restored.items()
            if not min(before[table], after[table]) <= number <= max(before[table], after[table])
        ]
        if wrong:
            raise NotBackedUp(f"The backup does not hold what is in {', '.join(wrong)}.")
    finally:
        _empty(name)


def _counts(database: str) -> dict[str, int]:
    with _session(database) as session:
        return {
            table: session.execute(sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier(table))).fetchone()[0]  # type: ignore[index]
            for table in COUNTED
        }


def _empty(database: str) -> None:
    with _session(database) as session:
        session.execute("DROP SCHEMA IF EXISTS public CASCADE")
        session.execute("CREATE SCHEMA public")


def _session(database: str) -> psycopg.Connection[tuple[int, ...]]:
    known = connection.settings_dict
    return psycopg.connect(
        host=known["HOST"],
        port=known["PORT"],
        user=known["USER"],
        password=known["PASSWORD"],
        dbname=database,
        autocommit=True,
        connect_timeout=10,
    )


def _run(words: Sequence[str]) -> None:
    """Run a PostgreSQL program with output readable only by its owner."""
    known = connection.settings_dict
    where = {"PGHOST": known["HOST"], "PGPORT": str(known["PORT"]), "PGUSER": known["USER"], "PGPASSWORD": known["PASSWORD"]}
    program = str(Path(settings.CLOCHE_PG_BIN) / words[0]) if settings.CLOCHE_PG_BIN else words[0]
    done = subprocess.run(  # noqa: S603 - our own words
        [program, *words[1:]],
        env=where | {"LC_ALL": "C.UTF-8"},
        capture_output=True,
        text=True,
        timeout=LONGEST_S,
        umask=0o077,
        check=False,
    )
    if done.returncode:
        raise NotBackedUp(f"{words[0]}: {done.stderr.strip()[-LISTED:]}")


def _thin(folder: Path, now: datetime) -> None:
    """Delete backups that need not be kept; other files stay."""
    named = ((file, NAMED.fullmatch(file.name)) for file in folder.iterdir())
    files = {file: date.fromisoformat(match[1]) for file, match in named if match}
    stays = kept(files.values(), now.astimezone().date())
    latest: dict[date, Path] = {}
    for file in sorted(files):
        latest[files[file]] = file
    for file, day in files.items():
        if day not in stays or latest[day] != file:
            file.unlink()


def _copy(done: Backup) -> None:
    """Copy a backup to the second folder; failure is recorded but does not invalidate the backup."""
    if not settings.CLOCHE_BACKUPS_TOO:
        return
    target = Path(settings.CLOCHE_BACKUPS_TOO)
    part = target / f"{done.file}.part"
    try:
        _written_beside(Path(settings.CLOCHE_BACKUPS) / done.file, part)
        part.rename(target / done.file)
        _thin(target, done.made_at)
    except OSError as fault:
        log.warning("the backup could not be copied to %s: %s", target, fault)
        done.copy_failure = str(fault)[:LISTED]
    else:
        done.copied_at = clock.real_now()
    done.save(update_fields=["copied_at", "copy_failure"])


def _written_beside(file: Path, part: Path) -> None:
    private = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
    with file.open("rb") as read, open(private, "wb") as write:
        shutil.copyfileobj(read, write)
        write.flush()
        os.fsync(write.fileno())
