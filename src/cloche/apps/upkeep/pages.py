"""Page System status."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.models import RefusedMessage
from cloche.apps.loggers.pages import silences_by_probe
from cloche.apps.shared import clock, words
from cloche.apps.shared.availability import CLOCK, FULL
from cloche.apps.shared.words import lazy
from cloche.apps.upkeep import health
from cloche.apps.upkeep.models import Backup
from cloche.apps.weather.selectors import report_words
from cloche.apps.work import turns
from cloche.apps.work.models import Failure

MOST_SHOWN, STUBBORN = 12, 3


@dataclass(frozen=True)
class Trouble:
    """Work that failed and is retried; `pk` is 0 where it cannot be retried by hand."""

    pk: int
    text: str
    again: str
    detail: str


@dataclass(frozen=True)
class Runs:
    """Context of upkeep/runs.html: sentences on what is wrong and what works."""

    headline: str
    unwell: list[str]
    well: list[str]
    troubles: list[Trouble]
    aside: list[tuple[str, str, str]]


def runs_page(garden: Garden, now: datetime) -> Runs:
    """Build the status page for the owner of a garden."""
    by_name = {check.name: check for check in health.checks()}
    lines = [
        _forecasts(garden, now),
        _workers(by_name),
        _weather(garden, now, by_name),
        _mail(garden),
        _loggers(garden, by_name),
    ]
    lines += [_backups(by_name, garden), _disk(by_name), _clock(by_name), (True, _restarts())]
    troubles = [_trouble(failure, garden) for failure in garden.failures.select_related("place")[:MOST_SHOWN]]
    kept = [
        _aside(refused_message, garden) for refused_message in garden.refused_messages.select_related("device")[:MOST_SHOWN]
    ]
    # What failed stands by itself already; the line about forecasts that wait for it would say it twice.
    unwell = [text for well, text in lines if not well]
    wrong = len(troubles) or len(unwell)
    headline = (
        _("All is well.")
        if not wrong
        else _("{count} per visit.").format(count=words.count(wrong, "thing needs", "things need"))
    )
    return Runs(headline, unwell, [text for well, text in lines if well and text], troubles, kept)


LOW_MB = 1_000
"""On the disk: time to make room, long before nothing can be written."""


def machine_alerts(garden: Garden) -> dict[str, str]:
    """Return problems of this computer by key, for its operator and in the time zone of one of their gardens."""
    by_name = {check.name: check for check in health.checks()}
    lines = {"backups": _backups(by_name, garden), "listener": _loggers(garden, by_name)}
    unwell = {name: text for name, (well, text) in lines.items() if not well}
    free_mb = by_name["disk"].facts["free_mb"]
    if free_mb < LOW_MB:
        unwell["disk"] = _("Only {free_mb} MB of disk space are free.").format(free_mb=free_mb)
    if "weather" in by_name and not by_name["weather"].well:
        unwell["weather"] = _("The weather service has not answered for {hours} hours.").format(
            hours=round(by_name["weather"].facts["oldest_h"])
        )
    return unwell


def garden_alerts(garden: Garden, now: datetime) -> dict[str, str]:
    """Return problems that need the owner of a garden, by key."""
    lines = {f"probe-{number}": text for number, text in silences_by_probe(garden, now).items()}
    failing = garden.failures.filter(place__isnull=False, count__gte=STUBBORN).select_related("place")
    for check in failing:
        lines[f"place-{check.place_id}"] = _("The forecast for {place} failed {times} in a row. {why}").format(
            place=check.place.name if check.place else "", times=words.count(check.count, "time", "times"), why=check.text
        )
    return lines


def _forecasts(garden: Garden, now: datetime) -> tuple[bool, str]:
    today = now.astimezone(garden.timezone).date()
    grounds = windows.grounds_in(garden)
    late = [place.name for place, ground in grounds if ground is None or ground.stale(today)]
    failing = set(garden.failures.filter(place__isnull=False).values_list("place__name", flat=True))
    if not grounds:
        return True, _("There are no beds or trays yet, so there is nothing to forecast.")
    if not late:
        return True, _("All {len} forecasts are up to date.").format(len=len(grounds)) if len(grounds) > 1 else _(
            "The forecast is up to date."
        )
    rest = _("they are being calculated now") if not failing & set(late) else _("see below")
    return not failing, _("Not up to date: {listed}; {rest}.").format(listed=words.listed(late, 6), rest=rest)


def _workers(by_name: dict[str, health.Check]) -> tuple[bool, str]:
    facts = by_name["workers"].facts if "workers" in by_name else {"alive": 0}
    waiting = by_name["queue"].facts["waiting"] if "queue" in by_name else 0
    if not facts["alive"]:
        return False, _("No worker is running, so no forecasts are made until one is started. ./run does that by itself.")
    jobs = _("nothing is waiting") if not waiting else f"{words.count(waiting, 'job waits', 'jobs wait')}"
    return True, _("{count} running, and {jobs}.").format(
        count=words.count(facts["alive"], "worker is", "workers are"), jobs=jobs
    )


def _weather(garden: Garden, now: datetime, by_name: dict[str, health.Check]) -> tuple[bool, str]:
    if "weather" in by_name and not by_name["weather"].facts["asked"]:
        return True, _("No weather service is set up. Air temperatures are entered by hand or imported from files.")
    text = report_words(garden, now)
    lost = garden.failures.filter(task="weather.ask").exists()
    return not lost, text or _("The weather service has not been asked yet.")


def _mail(garden: Garden) -> tuple[bool, str]:
    wanted = garden.memberships.filter(digest_wish__isnull=False).count()
    if not wanted:
        return True, ""
    lost = garden.failures.filter(task="today.mail").count()
    people = words.count(wanted, "person has", "people have")
    return not lost, _("{people} the day’s jobs sent by email").format(people=people) + (
        _("; {lost} emails could not be sent.").format(lost=lost) if lost else "."
    )


def _loggers(garden: Garden, by_name: dict[str, health.Check]) -> tuple[bool, str]:
    listener = by_name.get("listener")
    kept = garden.refused_messages.count()
    text = (
        _("{count} from loggers could not be used: see below.").format(count=words.count(kept, "message", "messages"))
        if kept
        else ""
    )
    if listener is not None and not listener.well:
        return False, _("The listener for logger messages is not responding. {text}").format(text=text).strip()
    return True, text


def _backups(by_name: dict[str, health.Check], garden: Garden) -> tuple[bool, str]:
    """Return whether backups are in order, and when the latest was made and tested."""
    check = by_name.get("backups")
    last = Backup.objects.filter(failure="").first()
    if check is None or not check.facts["wanted"]:
        return True, ""
    if last is None:
        return check.well, (
            _("The nightly backup failed: {why}").format(why=check.facts["failure"])
            if check.facts["failure"]
            else _("The first backup will be made within minutes.")
        )
    text = _("Backed up {when}, with a successful test restore; {size} MB.").format(
        when=_when(last.made_at, garden), size=check.facts["size_mb"]
    )
    if check.facts["failure"]:
        return False, _("{text} The backup after it failed: {why}").format(text=text, why=check.facts["failure"])
    if last.copy_failure:
        return False, _("{text} It was not copied to the second folder: {why}").format(text=text, why=last.copy_failure)
    return check.well, text if check.well else _("{text} A newer one should exist.").format(text=text)


def _disk(by_name: dict[str, health.Check]) -> tuple[bool, str]:
    free_mb = by_name["disk"].facts["free_mb"]
    if not by_name["disk"].well:
        return False, FULL
    free = (
        _("{free_mb} GB").format(free_mb=f"{free_mb / 1000:.0f}")
        if free_mb >= 2000
        else _("{free_mb} MB").format(free_mb=free_mb)
    )
    return True, _("{free} of disk space free.").format(free=free)


def _clock(by_name: dict[str, health.Check]) -> tuple[bool, str]:
    return by_name["clock"].well, "" if by_name["clock"].well else CLOCK


def _restarts() -> str:
    """Describe which parts ended unexpectedly and were restarted."""
    facts = {name: part["restarts"] for name, part in health.restarts().items() if part.get("restarts")}
    parts = [f"{name[:1].lower()}{name[1:]} {words.count(times, 'time', 'times')}" for name, times in facts.items()]
    return (
        _("Processes that stopped unexpectedly were restarted: {listed}.").format(listed=words.listed(parts, 8))
        if parts
        else ""
    )


WHAT = {
    "forecasts.work_out": lazy("The forecast for {place} failed"),
    "weather.ask": lazy("The weather service could not be reached"),
    "today.mail": lazy("An email could not be sent"),
    "readings.take_file": lazy("A file could not be imported"),
    "covers.answer_bed": lazy("A cover could not be tried on {place}"),
}


def _trouble(failure: Failure, garden: Garden) -> Trouble:
    now = turns.database_now()
    place = failure.place.name if failure.place else "a bed"
    what = WHAT.get(failure.task, _("A background job failed")).format(place=place)
    tries = failure.count + failure.lost
    since = _when(failure.first_at, garden)
    often = (
        _("at {since}").format(since=since)
        if tries == 1
        else _("{count} since {since}").format(count=words.count(tries, "time", "times"), since=since)
    )
    again = (
        _("Trying again at once.")
        if failure.next_at <= now
        else _("Next try at {when}.").format(when=_when(failure.next_at, garden))
    )
    return Trouble(
        failure.pk,
        _("{what}, tried {often}. {text}").format(what=what, often=often, text=_(failure.text)),
        again,
        failure.detail,
    )


def _when(at: datetime, garden: Garden) -> str:
    local, today = at.astimezone(garden.timezone), clock.real_now().astimezone(garden.timezone).date()
    return (
        words.clock(local)
        if local.date() == today
        else _("{clock} on {day}").format(clock=words.clock(local), day=words.day(local.date(), today))
    )


def _aside(message: RefusedMessage, garden: Garden) -> tuple[str, str, str]:
    name = message.device.name if message.device else _("an unknown device")
    return f"{name}, {_when(message.at, garden)}", message.reason, message.sample
