"""Answering a job: done, later, not here. Each is written down, and what was done goes into the record it belongs to."""

from __future__ import annotations

from datetime import date, timedelta

from django.db import transaction

from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.flows import operations
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.place_covers import cover_on, usual_period
from cloche.apps.plants import flows as plants
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.shared import clock
from cloche.apps.sowings.flows.life import take_back as take_step_back
from cloche.apps.sowings.flows.life import take_step
from cloche.apps.sowings.models import Step
from cloche.apps.today.jobs.job import UNCOVER, Job, PeriodFacts, PlantFacts, RaisedFacts
from cloche.apps.today.models import Answer

LATER_D, NOT_HERE_D = 1, 60


@transaction.atomic
def answer(garden: Garden, job: Job, choice: str, person: User) -> Answer:
    """Write it down. Done: for its day; later: not before tomorrow; not here: not for the next two months."""
    today = clock.today(garden.timezone)
    days = {Answer.Choice.LATER: LATER_D, Answer.Choice.NOT_HERE: NOT_HERE_D}.get(Answer.Choice(choice))
    key = job.of_day(today) if days is None else job.key
    until = None if days is None else today + timedelta(days=days)
    given = Answer(garden=garden, key=key, choice=choice, by=person, at=clock.now(), until=until)
    given.kind, given.place_id, given.crop_key = job.kind, job.place_pk, job.crop_key
    if isinstance(job.facts, PeriodFacts):
        given.period_id = job.facts.period_id
    if choice == Answer.Choice.DONE:
        _record(given, job)
    given.save()
    return given


def _record(answer: Answer, job: Job) -> None:
    """What a tick says was done there."""
    if isinstance(job.facts, PlantFacts):
        planting = plantings_in(answer.garden).filter(pk=job.facts.planting_id).first()
        if planting is not None:
            plants.plant(planting, clock.today(answer.garden.timezone), answer.by)
            answer.planting = planting
        return
    if isinstance(job.facts, RaisedFacts):
        if job.facts.step:
            step = Step(sowing=job.facts.life.sowing, kind=job.facts.step, on=clock.today(answer.garden.timezone))
            answer.step = take_step(step)
        return
    place = Place.objects.filter(garden=answer.garden, pk=job.place_pk).first()
    if place is None or job.works is None:
        return
    if job.works == UNCOVER:
        answer.ended = _taken_off(place, clock.today(answer.garden.timezone))
    else:
        answer.operation = operations.note_operation(place, job.works, clock.now(), job.amount)


def _taken_off(place: Place, today: date) -> CoverPeriod | None:
    """Yesterday was its last day. A cover that was only taken to stand there has stood for a year till then."""
    yesterday = today - timedelta(days=1)
    there = cover_on(place, today)
    if there is None:
        return None
    period = there.period or usual_period(place, today)
    if period is None or period.first > yesterday:
        return None
    period.last = yesterday
    return operations.save_cover(period)


@transaction.atomic
def take_back(garden: Garden, answer_id: int) -> Answer | None:
    """Undo an answer and what it wrote into the record. None: there is no such one."""
    given = Answer.objects.filter(garden=garden, pk=answer_id, undone_at__isnull=True).first()
    if given is None:
        return None
    if given.operation is not None:
        operations.remove_operation(given.operation.place, given.operation.pk)
    if given.ended is not None:
        given.ended.last = None
        operations.save_cover(given.ended)
    if given.planting is not None:
        plants.not_planted(given.planting)
    if given.step is not None:
        take_step_back(given.step)
    given.refresh_from_db()
    given.undone_at = clock.now()
    given.save(update_fields=["undone_at"])
    return given
