"""The bench's day: heat off, turned down, potted on, hardened, planted out; heaters that do not do what they should."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date

from cloche.apps.bench.life import Life
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.sowings.models import Step
from cloche.apps.today.jobs.job import DAY_H, MORNING_H, AlarmFacts, Job, JobKind, RaisedFacts
from cloche.apps.windows.pages.warmth import Grounds
from cloche.core.windows.raised_life import Due

WRITES = {Due.HEAT_OFF: Step.Kind.HEAT_OFF, Due.HARDEN: Step.Kind.HARDENING}
"""What a tick writes into a sowing's life; the others need to say where or into what."""


def raised(lives: list[Life], today: date) -> Iterator[Job]:
    """What is due on the bench today or was before."""
    for life in lives:
        for what, on in life.due:
            if on <= today:
                place, step = life.sowing.place, WRITES.get(what, "")
                facts = RaisedFacts(life, what, on, str(step))
                where = (f"{life.sowing.pk}-{what}", place.garden_id, place.name, place.pk)
                yield Job(JobKind.RAISE, *where, DAY_H + 0.5, facts, life.crop.key)


def put_out(lives: list[Life], grounds: Grounds, today: date) -> Iterator[Job]:
    """What was brought in from the cold and may go back to where it stood: the coming night asks for nothing there."""
    known = {place.pk: ground for place, ground in grounds}
    for life in lives:
        moves = [step for step in life.sowing.steps.all() if step.left_id is not None]
        if not moves or moves[-1].kind != Step.Kind.BROUGHT_IN:
            continue
        ground = known.get(moves[-1].left_id or 0)
        watch = ground.forecast.watch if ground else None
        if watch is not None and watch.nights and watch.nights[0].way is None:
            place = life.sowing.place
            where = (f"{life.sowing.pk}-{Due.PUT_OUT}", place.garden_id, place.name, place.pk)
            yield Job(JobKind.RAISE, *where, MORNING_H + 2, RaisedFacts(life, Due.PUT_OUT, today), life.crop.key)


def alarm(ground: Ground) -> Iterator[Job]:
    """A heater that does not do what it should: before anything else."""
    heat_alarm, place = ground.data.alarm, ground.place
    if heat_alarm is not None:
        where = (f"{place.pk}-{heat_alarm.fault}", place.garden_id, place.name, place.pk)
        yield Job(JobKind.HEAT, *where, MORNING_H - 1, AlarmFacts(heat_alarm), urgent=True)
