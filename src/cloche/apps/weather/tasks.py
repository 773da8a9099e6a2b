"""Background jobs that query the weather provider."""

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
    """Query the provider for one garden; a failure is recorded and retried later."""
    garden, provider_ = Garden.objects.filter(pk=garden_id).first(), provider()
    if garden is not None and provider_ is not None:
        flows.ask(garden, provider_)


def ask_round() -> int:
    """Queue a query for each garden whose last one is over twenty minutes old; return how many."""
    if provider() is None:
        return 0
    now = turns.database_now()
    # What was asked in the future was asked before the clock was set back.
    lately = WeatherReport.objects.filter(asked_at__gt=now - EVERY, asked_at__lte=now).values("garden_id")
    due = Garden.objects.filter(~Q(pk__in=lately)).values_list("pk", flat=True)
    return queue.put_due(ASK_WEATHER, {f"weather-{pk}": {"garden_id": pk} for pk in due})
