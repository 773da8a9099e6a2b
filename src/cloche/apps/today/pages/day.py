"""The day's jobs and answers, in words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from cloche.apps.gardens.models import Garden
from cloche.apps.today import texts
from cloche.apps.today.models import Answer
from cloche.apps.today.selectors import Day, day_of
from cloche.apps.today.texts import JobLine
from cloche.bridge.values.units import Units


@dataclass(frozen=True)
class AnswerLine:
    """An answer, and what it was to."""

    answer: Answer
    text: str


@dataclass(frozen=True)
class DayLines:
    """Context of today/_jobs.html."""

    jobs: list[JobLine]
    answered: list[AnswerLine]


def day_lines(garden: Garden, units: Units, now: datetime, day: Day | None = None) -> DayLines:
    """Of the garden's today."""
    today = now.astimezone(garden.timezone).date()
    day = day_of(garden, units, now) if day is None else day
    jobs = [texts.job_line(job, units, today) for job in day.jobs]
    return DayLines(jobs, [AnswerLine(answer, texts.answered(answer)) for answer in day.answers])
