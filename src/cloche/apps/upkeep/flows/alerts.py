"""Alerts: tell those concerned once about a problem, and retry failed work on request."""

from __future__ import annotations

import logging
from collections.abc import Callable
from datetime import datetime, timedelta

from django.db import transaction
from django.db.models import Q
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import override

from cloche.apps.accounts.flows import address_for
from cloche.apps.accounts.letters import queue_letter
from cloche.apps.gardens.language import language_of
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.gardens.selectors import keeper_of_computer
from cloche.apps.shared import words
from cloche.apps.upkeep.models import Alert
from cloche.apps.upkeep.pages import STUBBORN, garden_alerts, machine_alerts
from cloche.apps.work import turns

PATIENCE = timedelta(minutes=10)
"""What is over by itself within so long is not written about."""
REMEMBERED = timedelta(days=1)
MOST_LINES = 12
log = logging.getLogger("cloche.work")


def alert_round(now: datetime) -> int:
    """Check for problems and write to those concerned about new ones; return the number of emails."""
    sent = 0
    keeper = keeper_of_computer()
    if keeper is not None:
        home = keeper.gardens.order_by("pk")[0]
        sent += _tell(None, [keeper], lambda: machine_alerts(home), now)
    # Most gardens have nothing that could be amiss: they are not asked.
    could = Q(devices__isnull=False) | Q(failures__count__gte=STUBBORN) | Q(alerts__isnull=False)
    for garden in Garden.objects.filter(could).distinct().order_by("pk"):
        owners = User.objects.filter(is_active=True, memberships__garden=garden, memberships__role=Membership.Role.OWNER)
        sent += _tell(garden, list(owners), lambda garden=garden: garden_alerts(garden, now), now)  # type: ignore[misc]
    return sent


@transaction.atomic
def _tell(garden: Garden | None, people: list[User], look: Callable[[], dict[str, str]], now: datetime) -> int:
    """Report on one garden or on the computer."""
    mark = f"garden-{garden.pk}-" if garden is not None else "computer-"
    keys = {mark + what for what in look()}
    known = {alert.key: alert for alert in Alert.objects.select_for_update().filter(key__startswith=mark)}
    for key in keys - set(known):
        # Another worker may be looking, too.
        known[key], _new = Alert.objects.get_or_create(key=key, defaults={"garden": garden, "since": now})
    for key, alert in known.items():
        _move_on(alert, key in keys, now)
    due = [alert for key, alert in known.items() if key in keys and alert.told_at is None and now - alert.since >= PATIENCE]
    if not due:
        return 0
    wanted = {alert.key.removeprefix(mark) for alert in due}
    sent = sum(_write(person, garden, look, wanted) for person in people)
    Alert.objects.filter(pk__in=[alert.pk for alert in due]).update(told_at=now)
    return sent


def _move_on(alert: Alert, is_there: bool, now: datetime) -> None:
    """Close, reopen within a day, or forget an alert."""
    if is_there and alert.over_at is not None:
        alert.over_at = None
        alert.save(update_fields=["over_at"])
    elif not is_there and alert.over_at is None:
        alert.over_at = now
        alert.save(update_fields=["over_at"])
    elif not is_there and alert.over_at is not None and now - alert.over_at > REMEMBERED:
        alert.delete()


def _write(person: User, garden: Garden | None, look: Callable[[], dict[str, str]], wanted: set[str]) -> int:
    """Send an email in the person's language and return whether there was an address.

    The problems are described again in that language.
    """
    email = address_for(person)
    if not email:
        return 0
    with override(language_of(person)):
        lines = [text for what, text in look().items() if what in wanted][:MOST_LINES]
        about = garden.name if garden is not None else _("the computer that Cloche runs on")
        subject = _("Cloche: {what} for {about}").format(
            what=words.count(len(lines), "thing needs attention", "things need attention"), about=about
        )
        where = _("More on the page “System status”: {path}").format(
            path=reverse("how_it_runs", args=[(garden or person.gardens.order_by("pk")[0]).pk])
        )
        once = _("You get one email about each problem, and another only after it has been gone for a day.")
        text = f"{person.username},\n\n" + "\n".join(f"- {line}" for line in lines) + f"\n\n{where}\n{once}\n"
    queue_letter(email, subject, text)
    return 1


def try_now(garden: Garden, failure_id: int) -> bool:
    """Retry a failure in the next round; return whether it exists. Its number of failures is kept."""
    return bool(garden.failures.filter(pk=failure_id).update(next_at=turns.database_now()))
