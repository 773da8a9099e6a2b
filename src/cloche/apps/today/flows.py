"""Answer a job of the day, and send the morning letter."""

from __future__ import annotations

import logging
from datetime import date, datetime, timedelta
from smtplib import SMTPException

from django.core.mail import send_mail
from django.db import transaction
from django.template.loader import render_to_string
from django.utils.translation import gettext as _
from django.utils.translation import override

from cloche.apps.accounts.flows import address_for
from cloche.apps.bench.flows import plant_tubers
from cloche.apps.bench.tubers import TuberDue
from cloche.apps.gardens.language import language_of, speak_for
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places import flows
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.places.selectors import cover_on, usual_period
from cloche.apps.plants import flows as plants
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.shared import clock, words
from cloche.apps.sowings.flows import take_back as take_step_back
from cloche.apps.sowings.flows import take_step
from cloche.apps.sowings.models import Step
from cloche.apps.today.jobs.job import UNCOVER, Job, PeriodFacts, PlantFacts, RaisedFacts, TuberFacts
from cloche.apps.today.models import Answer, DigestWish
from cloche.apps.today.pages.today import today_page
from cloche.apps.work import failures
from cloche.apps.work.guard import is_away
from cloche.bridge.values import border

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
    if isinstance(job.facts, TuberFacts):
        if job.facts.due is TuberDue.PLANT:
            answer.tubers = job.facts.sprouting.tray
            plant_tubers(answer.tubers, clock.today(answer.garden.timezone))
        return
    if isinstance(job.facts, RaisedFacts):
        if job.facts.step:
            life = job.facts.life
            lower_c = life.lower_c if job.facts.step == Step.Kind.TURNED_DOWN else None
            today = clock.today(answer.garden.timezone)
            answer.step = take_step(Step(sowing=life.sowing, kind=job.facts.step, on=today, start_c=lower_c))
        return
    place = Place.objects.filter(garden=answer.garden, pk=job.place_pk).first()
    if place is None or job.works is None:
        return
    if job.works == UNCOVER:
        answer.ended = _taken_off(place, clock.today(answer.garden.timezone))
    else:
        answer.operation = flows.note_operation(place, job.works, clock.now(), job.amount)


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
    return flows.save_cover(period)


@transaction.atomic
def take_back(garden: Garden, answer_id: int) -> Answer | None:
    """Undo an answer and what it wrote into the record. None: there is no such one."""
    given = Answer.objects.filter(garden=garden, pk=answer_id, undone_at__isnull=True).first()
    if given is None:
        return None
    if given.operation is not None:
        flows.remove_operation(given.operation.place, given.operation.pk)
    if given.ended is not None:
        given.ended.last = None
        flows.save_cover(given.ended)
    if given.tubers is not None:
        plant_tubers(given.tubers, None)
    if given.planting is not None:
        plants.not_planted(given.planting)
    if given.step is not None:
        take_step_back(given.step)
    given.refresh_from_db()
    given.undone_at = clock.now()
    given.save(update_fields=["undone_at"])
    return given


MAIL = "today.mail"
log = logging.getLogger("cloche.mail")


def want(membership: Membership, hour: int) -> None:
    """From the next time that hour comes, to the address that is confirmed by then."""
    DigestWish.objects.update_or_create(membership=membership, defaults={"hour": hour})


def stop_sending(membership: Membership) -> None:
    """No more."""
    DigestWish.objects.filter(membership=membership).delete()


def send_due(now: datetime) -> int:
    """Send to everyone whose hour has come and who has not had the day yet; returns how many. Who left the garden gets none."""
    wishes = {f"mail-{wish.pk}": wish for wish in DigestWish.objects.select_related("membership__garden", "membership__user")}
    failures.discard_obsolete(MAIL, wishes)
    sent, waiting = 0, failures.waiting()
    for key, wish in wishes.items():
        if key in waiting:
            continue
        try:
            if _is_due(wish, now):
                _send(wish, now)
                sent += 1
        except Exception as fault:
            if is_away():
                raise
            log.warning("the day could not be mailed to %s", wish.user.pk, exc_info=fault)
            failures.note(key, fault, task=MAIL, garden_id=wish.garden.pk)
        else:
            failures.mended(key)
    return sent


def _is_due(wish: DigestWish, now: datetime) -> bool:
    local = now.astimezone(wish.garden.timezone)
    return bool(address_for(wish.user)) and local.hour >= wish.hour and wish.sent_on != local.date()


class NotSent(failures.Foreseen):
    """The mail server did not take a letter."""

    longest = timedelta(hours=1)


def _send(wish: DigestWish, now: datetime) -> None:
    with override(language_of(wish.user)):
        _write(wish, now)


def _write(wish: DigestWish, now: datetime) -> None:
    speak_for(wish.garden)
    units, today = units_of(wish.user), now.astimezone(wish.garden.timezone).date()
    page, email = today_page(wish.garden, units, now), address_for(wish.user)
    text = render_to_string("today/digest.txt", {"page": page, "garden": wish.garden})
    try:
        send_mail(border.one_line(f"{wish.garden.name}, {words.day(today)}: {page.headline}")[:180], text, None, [email])
    except (SMTPException, OSError) as lost:
        raise NotSent(
            _("The mail server did not accept the email to {email} ({name}).").format(email=email, name=type(lost).__name__)
        ) from lost
    wish.sent_on = today
    wish.save(update_fields=["sent_on"])
