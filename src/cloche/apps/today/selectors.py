"""Read the day: its jobs, and what a frost did."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from cloche.apps.bench.life import lives_in
from cloche.apps.bench.selectors import raised_on
from cloche.apps.covers.watched import Watched, watched_in
from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.forecast_cache import outlooks_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.places.selectors import periods_from
from cloche.apps.sowings.selectors import intended_in, sowings_followed
from cloche.apps.today.after import frosted_in
from cloche.apps.today.jobs import covers, growing
from cloche.apps.today.jobs.job import Job
from cloche.apps.today.models import Answer
from cloche.apps.windows.pages.ground import Grounds
from cloche.bridge.values.units import Units

REMEMBERED_D, AN_HOUR = 60, timedelta(hours=1)


@dataclass(frozen=True)
class Day:
    """jobs: still to do, in the order of the day; answers: today's, the latest first."""

    jobs: list[Job]
    answers: list[Answer]


@dataclass(frozen=True)
class Known:
    """What all that is said of a day rests on, looked up once."""

    grounds: Grounds
    outlooks: windows.Outlooks
    watched: list[Watched]
    periods: list[CoverPeriod]


def known_in(garden: Garden, units: Units, today: date) -> Known:
    """Of a garden's today."""
    grounds, periods = windows.grounds_in(garden), periods_from(garden, today)
    return Known(grounds, outlooks_in(garden), list(watched_in(garden, units, today, grounds, periods)), periods)


def day_of(garden: Garden, units: Units, now: datetime, known: Known | None = None) -> Day:
    """All that is worth doing, less what was answered."""
    today = now.astimezone(garden.timezone).date()
    everything = jobs_in(garden, units, now, known)
    answers = list(_current(garden, today))
    silent = {answer.key for answer in answers if _silences(answer, today)}
    left = [job for job in everything if job.key not in silent and job.of_day(today) not in silent]
    zone = garden.timezone
    of_today = [answer for answer in answers if answer.at.astimezone(zone).date() == today]
    return Day(sorted(left, key=lambda job: (job.at_h, not job.urgent, job.place)), of_today)


def jobs_in(garden: Garden, units: Units, now: datetime, known: Known | None = None) -> list[Job]:
    """Everything, answered or not."""
    today = now.astimezone(garden.timezone).date()
    known = known_in(garden, units, today) if known is None else known
    free = covers.free_covers(garden, today, known.periods)
    grounds, watched = known.grounds, known.watched
    jobs = [
        job for place_watched in watched for job in covers.of_place(place_watched, free, (now - place_watched.start) / AN_HOUR)
    ]
    if watched:
        jobs += covers.of_houses(watched)
    jobs += covers.dated(known.periods, today)
    meant = list(intended_in(garden))
    jobs += growing.intended(meant, today)
    jobs += growing.planned(garden, today)
    jobs += growing.warming(garden, meant, grounds, free, today)
    raised = {place.pk: place for place in raised_on(garden)}
    made = list(sowings_followed(garden, today, growing.SOWN_AGO_D, raised))
    jobs += growing.awaited(made, today)
    jobs += growing.closing(windows.sown_windows([place for place, _ground in grounds], known.outlooks), made, today)
    jobs += growing.after_frost(frosted_in(grounds, today, known.outlooks))
    jobs += growing.trials(garden, today)
    lives = lives_in(garden, today, raised, made)
    jobs += growing.raised(lives, today)
    jobs += growing.put_out(lives, grounds, today)
    jobs += growing.sprouting(garden, grounds, today)
    for place, ground in grounds:
        if ground is not None:
            jobs += growing.alarm(ground)
            if place.kind == "hotbed":
                jobs += growing.hotbed(ground, today)
    return jobs


def _current(garden: Garden, today: date):  # type: ignore[no-untyped-def]
    since = today - timedelta(days=REMEMBERED_D)
    return Answer.objects.filter(garden=garden, undone_at__isnull=True, at__date__gte=since).select_related(
        "by", "place", "period__item"
    )


def _silences(answer: Answer, today: date) -> bool:
    """A job that was put off or is none here stays away until its day; what was done is done for its own day, in its key."""
    return answer.until is None or today < answer.until
