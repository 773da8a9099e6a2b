"""Asking the weather provider, and keeping what it said."""

from __future__ import annotations

import logging

from django.db import transaction

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import note_change_in
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import WeatherHeard
from cloche.apps.readings.weather.provider import Heard, NotHeard, Provider

log = logging.getLogger("cloche.weather")


def ask(garden: Garden, provider: Provider) -> bool:
    """Ask once; what is heard replaces what was, a failure is noted beside it. Returns whether an answer came."""
    try:
        heard = provider.ask(garden)
    except NotHeard as failure:
        log.warning("garden %s: %s", garden.pk, failure)
        told = {"failed_at": clock.now(), "failure": str(failure)[:200]}
        WeatherHeard.objects.update_or_create(garden=garden, defaults=told)
        return False
    keep(garden, heard)
    return True


@transaction.atomic
def keep(garden: Garden, heard: Heard) -> None:
    """Store an answer; forecasts are made anew only where it says something new."""
    before = WeatherHeard.objects.filter(garden=garden).first()
    told = {"heard_at": heard.issued, "current_c": heard.current_c, "ahead": heard.ahead, "past": heard.past}
    WeatherHeard.objects.update_or_create(garden=garden, defaults=told | {"failed_at": None, "failure": ""})
    if before is None or before.ahead != heard.ahead or before.past != heard.past:
        note_change_in(garden)
