"""The day by mail, for those who want it."""

from __future__ import annotations

import logging
from datetime import datetime, timedelta
from smtplib import SMTPException

from django.core.mail import send_mail
from django.template.loader import render_to_string
from django.utils.translation import gettext as _
from django.utils.translation import override

from cloche.apps.accounts.flows.mail import address_for
from cloche.apps.gardens.language import language_of
from cloche.apps.gardens.models import Membership
from cloche.apps.gardens.selectors import units_of
from cloche.apps.gardens.speech import speak_for
from cloche.apps.shared import words
from cloche.apps.today.models import DigestWish
from cloche.apps.today.pages.today import today_page
from cloche.apps.work import failures
from cloche.apps.work.guard import is_away
from cloche.bridge.values import border

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
    failures.moot(MAIL, wishes)
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
            _("The mail server did not accept the letter to {email} ({name}).").format(email=email, name=type(lost).__name__)
        ) from lost
    wish.sent_on = today
    wish.save(update_fields=["sent_on"])
