"""Asking the weather provider, and keeping what it said."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import note_change_in
from cloche.apps.shared import clock
from cloche.apps.weather.models import WeatherReport
from cloche.apps.weather.provider import NoAnswer, Provider, ProviderAnswer
from cloche.apps.work import moments


def ask(garden: Garden, provider: Provider) -> None:
    """Ask once; what is heard replaces what was. Raises NoAnswer, which is noted beside it."""
    attempt = {"asked_at": moments.database_now()}
    try:
        report = provider.ask(garden)
    except NoAnswer as failure:
        values = {"failed_at": clock.now(), "failure": str(failure)[:200]}
        WeatherReport.objects.update_or_create(garden=garden, defaults=values | attempt)
        raise
    keep(garden, report)
    WeatherReport.objects.filter(garden=garden).update(**attempt)


@transaction.atomic
def keep(garden: Garden, report: ProviderAnswer) -> None:
    """Store an answer; forecasts are made anew only where it says something new."""
    before = WeatherReport.objects.filter(garden=garden).first()
    values = {"received_at": report.issued, "current_c": report.current_c, "ahead": report.ahead, "past": report.past}
    values["simulated"] = report.simulated
    WeatherReport.objects.update_or_create(garden=garden, defaults=values | {"failed_at": None, "failure": ""})
    if before is None or before.ahead != report.ahead or before.past != report.past:
        note_change_in(garden)
