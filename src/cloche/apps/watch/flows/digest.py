"""The day by mail, for those who want it."""

from __future__ import annotations

import logging
from datetime import datetime
from smtplib import SMTPException

from django.core.mail import send_mail
from django.template.loader import render_to_string

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.watch.models import DigestWish
from cloche.apps.watch.pages.today import today_page

log = logging.getLogger("cloche.mail")


def want(garden: Garden, person: User, email: str, hour: int) -> None:
    """From the next time that hour comes."""
    if person.email != email:
        person.email = email
        person.save(update_fields=["email"])
    DigestWish.objects.update_or_create(garden=garden, user=person, defaults={"hour": hour})


def stop_sending(garden: Garden, person: User) -> None:
    """No more."""
    DigestWish.objects.filter(garden=garden, user=person).delete()


def send_due(now: datetime) -> int:
    """Send to everyone whose hour has come and who has not had the day yet; returns how many. Who left the garden gets none."""
    sent = 0
    for wish in DigestWish.objects.select_related("garden", "user"):
        local = now.astimezone(wish.garden.timezone)
        belongs = wish.garden.memberships.filter(user=wish.user).exists()
        if belongs and wish.user.email and local.hour >= wish.hour and wish.sent_on != local.date():
            sent += _send(wish, now)
    return sent


def _send(wish: DigestWish, now: datetime) -> bool:
    units, today = units_of(wish.user), now.astimezone(wish.garden.timezone).date()
    page = today_page(wish.garden, units, now)
    text = render_to_string("watch/digest.txt", {"page": page, "garden": wish.garden})
    try:
        send_mail(f"{wish.garden.name}, {words.day(today)}: {page.headline}"[:180], text, None, [wish.user.email])
    except (SMTPException, OSError) as lost:
        log.warning("the day could not be mailed to %s, tried again in ten minutes: %s", wish.user.pk, lost)
        return False
    wish.sent_on = today
    wish.save(update_fields=["sent_on"])
    return True
