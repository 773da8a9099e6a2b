"""How it runs, in plain words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.models import RefusedMessage
from cloche.apps.shared import clock, words
from cloche.apps.shared.shelter import CLOCK, FULL
from cloche.apps.upkeep import health
from cloche.apps.weather.selectors import report_words
from cloche.apps.work import moments
from cloche.apps.work.models import Failure

MOST_SHOWN = 12


@dataclass(frozen=True)
class Trouble:
    """What failed and is tried again. pk: 0 where nobody need press anything."""

    pk: int
    text: str
    again: str
    detail: str


@dataclass(frozen=True)
class Runs:
    """Context of upkeep/runs.html: sentences on what is not well, and on what is."""

    headline: str
    unwell: list[str]
    well: list[str]
    troubles: list[Trouble]
    aside: list[tuple[str, str, str]]


def runs_page(garden: Garden, now: datetime) -> Runs:
    """For the owner of a garden: all of this installation that concerns it."""
    found = {check.name: check for check in health.checks()}
    lines = [_forecasts(garden, now), _workers(found), _weather(garden, now, found), _mail(garden), _loggers(garden, found)]
    lines += [_disk(found), _clock(found), (True, _restarts())]
    troubles = [_trouble(one, garden) for one in garden.failures.select_related("place")[:MOST_SHOWN]]
    kept = [_aside(one, garden) for one in garden.refused_messages.select_related("device")[:MOST_SHOWN]]
    # What failed stands by itself already; the line about forecasts that wait for it would say it twice.
    unwell = [text for well, text in lines if not well]
    wrong = len(troubles) or len(unwell)
    headline = "All is well." if not wrong else f"{words.count(wrong, 'thing needs', 'things need')} a look."
    return Runs(headline, unwell, [text for well, text in lines if well and text], troubles, kept)


def _forecasts(garden: Garden, now: datetime) -> tuple[bool, str]:
    today = now.astimezone(garden.timezone).date()
    grounds = windows.grounds_in(garden)
    late = [place.name for place, ground in grounds if ground is None or ground.stale(today)]
    failing = set(garden.failures.filter(place__isnull=False).values_list("place__name", flat=True))
    if not grounds:
        return True, "There is no place to work out yet."
    if not late:
        return True, f"All {len(grounds)} forecasts are of today." if len(grounds) > 1 else "The forecast is of today."
    rest = "they are being worked out now" if not failing & set(late) else "see below"
    return not failing, f"Not yet of today: {words.listed(late, 6)}; {rest}."


def _workers(found: dict[str, health.Check]) -> tuple[bool, str]:
    told = found["workers"].told if "workers" in found else {"alive": 0}
    waiting = found["queue"].told["waiting"] if "queue" in found else 0
    if not told["alive"]:
        return False, "Nobody works: no forecast is made until a worker is started again. ./run does that by itself."
    jobs = "nothing waits" if not waiting else f"{words.count(waiting, 'job waits', 'jobs wait')}"
    return True, f"{words.count(told['alive'], 'worker is', 'workers are')} there, and {jobs}."


def _weather(garden: Garden, now: datetime, found: dict[str, health.Check]) -> tuple[bool, str]:
    if "weather" in found and not found["weather"].told["asked"]:
        return True, "No weather service is asked; the days’ air is written down by hand or brought in from files."
    text = report_words(garden, now)
    lost = garden.failures.filter(task="weather.ask").exists()
    return not lost, text or "The weather service is about to be asked for the first time."


def _mail(garden: Garden) -> tuple[bool, str]:
    wanted = garden.memberships.filter(digest_wish__isnull=False).count()
    if not wanted:
        return True, ""
    lost = garden.failures.filter(task="today.mail").count()
    people = words.count(wanted, "person has", "people have")
    return not lost, f"{people} the day sent by mail" + (f"; {lost} of the letters could not be sent." if lost else ".")


def _loggers(garden: Garden, found: dict[str, health.Check]) -> tuple[bool, str]:
    listener = found.get("listener")
    kept = garden.refused_messages.count()
    text = f"{words.count(kept, 'message')} from loggers could not be taken: see below." if kept else ""
    if listener is not None and not listener.well:
        return False, f"The listener for loggers’ messages is not heard. {text}".strip()
    return True, text


def _disk(found: dict[str, health.Check]) -> tuple[bool, str]:
    free_mb = found["disk"].told["free_mb"]
    if not found["disk"].well:
        return False, FULL
    free = f"{free_mb / 1000:.0f} GB" if free_mb >= 2000 else f"{free_mb} MB"
    return True, f"{free} are free on the disk."


def _clock(found: dict[str, health.Check]) -> tuple[bool, str]:
    return found["clock"].well, "" if found["clock"].well else CLOCK


def _restarts() -> str:
    """Which parts ended unasked and were started again, in one sentence."""
    told = {name: one["restarts"] for name, one in health.restarts().items() if one.get("restarts")}
    parts = [f"{name[:1].lower()}{name[1:]} {words.count(times, 'time')}" for name, times in told.items()]
    return f"Parts that ended unasked were started again: {words.listed(parts, 8)}." if parts else ""


WHAT = {
    "forecasts.work_out": "{place} could not be worked out",
    "weather.ask": "The weather service could not be heard",
    "today.mail": "A letter could not be sent",
    "readings.take_file": "A file could not be brought in",
    "covers.answer_bed": "A cover could not be tried on {place}",
}


def _trouble(failure: Failure, garden: Garden) -> Trouble:
    now = moments.database_now()
    place = failure.place.name if failure.place else "a bed"
    what = WHAT.get(failure.task, "Some work could not be done").format(place=place)
    tries = failure.count + failure.lost
    since = _when(failure.first_at, garden)
    often = f"at {since}" if tries == 1 else f"{words.count(tries, 'time')} since {since}"
    again = (
        "It is tried again at once." if failure.next_at <= now else f"It is tried again at {_when(failure.next_at, garden)}."
    )
    return Trouble(failure.pk, f"{what}, tried {often}. {failure.text}", again, failure.detail)


def _when(at: datetime, garden: Garden) -> str:
    local, today = at.astimezone(garden.timezone), clock.real_now().astimezone(garden.timezone).date()
    return words.clock(local) if local.date() == today else f"{words.clock(local)} on {words.day(local.date(), today)}"


def _aside(message: RefusedMessage, garden: Garden) -> tuple[str, str, str]:
    name = message.device.name if message.device else "an unknown device"
    return f"{name}, {_when(message.at, garden)}", message.reason, message.sample
