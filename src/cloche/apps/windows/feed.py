"""Calendar feed of windows that open and close."""

from __future__ import annotations

import re
import secrets
from collections.abc import Iterable, Iterator
from datetime import date, datetime, timedelta

from django.utils.translation import gettext as _
from icalendar import Calendar, Event

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.language import speak_for
from cloche.apps.gardens.models import Garden, Membership
from cloche.apps.windows.models import CalendarLink
from cloche.apps.windows.pages.limit_words import limit_name
from cloche.apps.windows.pages.planting import indoors_by
from cloche.bridge.services import crops
from cloche_engine.crops import catalogue
from cloche_engine.places.kinds import BENCHES

TOKEN = re.compile(r"[A-Za-z0-9_-]{20,64}")


def link_of(membership: Membership) -> CalendarLink:
    """Return a person's secret calendar link for a garden, created on first use."""
    link, _unused = CalendarLink.objects.get_or_create(membership=membership, defaults={"token": secrets.token_urlsafe(24)})
    return link


def link_behind(token: str) -> CalendarLink | None:
    """Return the link with this secret, or None."""
    if not TOKEN.fullmatch(token):
        return None
    return CalendarLink.objects.filter(token=token).select_related("membership__garden", "membership__user").first()


def revoke(membership: Membership) -> None:
    """Delete the link; the next one gets another secret."""
    CalendarLink.objects.filter(membership=membership).delete()


def calendar(garden: Garden, made_at: datetime, more: Iterable[tuple[str, date, str, str]] = ()) -> bytes:
    """Return an iCalendar file of all windows still to open or close as all-day events [RFC5545]."""
    speak_for(garden)
    feed = Calendar()
    feed.add("prodid", "-//Cloche//windows//EN")
    feed.add("version", "2.0")
    feed.add("x-wr-calname", _("{name}: sowing windows").format(name=garden.name))
    today = made_at.astimezone(garden.timezone).date()
    for key, rows in selectors.outlooks_by_crop(garden).items():
        for row in rows:
            if row.place.kind not in BENCHES:
                for uid, day, summary, why in _days(row, crops.crop(key), today):
                    feed.add_component(_event(f"{uid}-{row.place_id}-{key}", day, summary, why, made_at))
    for uid, day, summary, why in more:
        feed.add_component(_event(uid, day, summary, why, made_at))
    return bytes(feed.to_ical())


def _days(row: CropOutlook, crop: catalogue.Crop, today: date) -> Iterator[tuple[str, date, str, str]]:
    """Yield (key, day, summary, reason) for each coming event of a crop in a place."""
    name = _("{name}{part} in {name2}").format(name=crop.name, part="" if row.sown else _(", plants"), name2=row.place.name)
    for number, window in enumerate(row.windows):
        first, last = window.earliest, window.last
        if first > today:
            why = _("Until then: {limit_name}.").format(limit_name=limit_name(window.opens_after)) if window.opens_after else ""
            yield f"opens-{number}", first, _("{name}: the window opens").format(name=name), why
        if last >= today and not window.open_ended:
            why = (
                _("After it: {limit_name}.").format(limit_name=limit_name(window.closes_before)) if window.closes_before else ""
            )
            yield f"closes-{number}", last, _("{name}: last sensible date").format(name=name), why
        indoors = None if row.sown else indoors_by(crop.key, window.best_from)
        if indoors is not None and indoors >= today:
            yield (
                f"indoors-{number}",
                indoors,
                _("{name}: sow indoors").format(name=name),
                _("So that they are ready for planting out."),
            )


def _event(uid: str, day: date, summary: str, why: str, made_at: datetime) -> Event:
    event = Event()
    event.add("uid", f"{uid}@cloche")
    event.add("dtstamp", made_at)
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    event.add("summary", summary)
    event.add(
        "description",
        _("{why} Advice from your own readings; follow the packet and trust your own eye.").format(why=why).strip(),
    )
    event.add("transp", "TRANSPARENT")
    return event
