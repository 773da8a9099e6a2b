"""Asking the weather provider, outside requests."""

from __future__ import annotations

from datetime import timedelta

from django.db.models import Q
from procrastinate.contrib.django import app

from cloche.apps.gardens.models import Garden
from cloche.apps.weather import flows
from cloche.apps.weather.asking import provider
from cloche.apps.weather.models import WeatherReport
from cloche.apps.work import queue, turns

ASK_WEATHER = "weather.ask"


EVERY = timedelta(minutes=20)


@app.task(name=ASK_WEATHER)
def ask_weather(garden_id: int) -> None:
    """Ask about one garden; a failure is noted at once and tried again in a while."""
    garden, provider_ = Garden.objects.filter(pk=garden_id).first(), provider()
    if garden is not None and provider_ is not None:
        flows.ask(garden, provider_)


def ask_round() -> int:
    """Queue a question for every garden that has not been asked about for twenty minutes. Returns how many."""
    if provider() is None:
        return 0
    now = turns.database_now()
    # What was asked in the future was asked before the clock was set back.
    lately = WeatherReport.objects.filter(asked_at__gt=now - EVERY, asked_at__lte=now).values("garden_id")
    due = Garden.objects.filter(~Q(pk__in=lately)).values_list("pk", flat=True)
    return queue.put_due(ASK_WEATHER, {f"weather-{pk}": {"garden_id": pk} for pk in due})
