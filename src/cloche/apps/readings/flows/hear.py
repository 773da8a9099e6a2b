"""Asking the weather provider, and keeping what it said."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.gardens import clock
from cloche.apps.gardens.flows.evidence import note_change_in
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import WeatherHeard
from cloche.apps.readings.weather.provider import Heard, NotHeard, Provider
from cloche.apps.work import moments


def ask(garden: Garden, provider: Provider) -> None:
    """Ask once; what is heard replaces what was. Raises NotHeard, which is noted beside it."""
    asked = {"asked_at": moments.database_now()}
    try:
        heard = provider.ask(garden)
    except NotHeard as failure:
        told = {"failed_at": clock.now(), "failure": str(failure)[:200]}
        WeatherHeard.objects.update_or_create(garden=garden, defaults=told | asked)
        raise
    keep(garden, heard)
    WeatherHeard.objects.filter(garden=garden).update(**asked)


@transaction.atomic
def keep(garden: Garden, heard: Heard) -> None:
    """Store an answer; forecasts are made anew only where it says something new."""
    before = WeatherHeard.objects.filter(garden=garden).first()
    told = {"heard_at": heard.issued, "current_c": heard.current_c, "ahead": heard.ahead, "past": heard.past}
    WeatherHeard.objects.update_or_create(garden=garden, defaults=told | {"failed_at": None, "failure": ""})
    if before is None or before.ahead != heard.ahead or before.past != heard.past:
        note_change_in(garden)
