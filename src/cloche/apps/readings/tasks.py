"""Asking the weather provider, and taking long files, outside requests."""

from __future__ import annotations

from datetime import timedelta

from django.db.models import Q
from procrastinate.contrib.django import app

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.flows import hear
from cloche.apps.readings.flows.bring_in import TAKE_FILE, key_of_file
from cloche.apps.readings.models import IncomingFile, WeatherHeard
from cloche.apps.readings.weather.provider import provider
from cloche.apps.work import moments, queue

ASK_WEATHER = "readings.ask_weather"
EVERY = timedelta(minutes=20)


@app.task(name=ASK_WEATHER)
def ask_weather(garden_id: int) -> None:
    """Ask about one garden; a failure is noted at once and tried again in a while."""
    garden, asked = Garden.objects.filter(pk=garden_id).first(), provider()
    if garden is not None and asked is not None:
        hear.ask(garden, asked)


def ask_round() -> int:
    """Queue a question for every garden that has not been asked about for twenty minutes. Returns how many."""
    if provider() is None:
        return 0
    now = moments.database_now()
    # What was asked in the future was asked before the clock was set back.
    lately = WeatherHeard.objects.filter(asked_at__gt=now - EVERY, asked_at__lte=now).values("garden_id")
    due = Garden.objects.filter(~Q(pk__in=lately)).values_list("pk", flat=True)
    return queue.put_due(ASK_WEATHER, {f"weather-{pk}": {"garden_id": pk} for pk in due})


@app.task(name=TAKE_FILE)
def take_file(file_id: int) -> None:
    """Take a long file; one that was given up or is in already is left alone."""
    from cloche.apps.readings.flows import bring_in

    incoming = IncomingFile.objects.filter(pk=file_id, state=IncomingFile.State.TAKING).first()
    if incoming is not None:
        bring_in.take_long(incoming)


def file_round() -> int:
    """Queue every long file that is still to be taken, should its job have been lost. Returns how many."""
    due = IncomingFile.objects.filter(state=IncomingFile.State.TAKING).values_list("pk", flat=True)
    return queue.put_due(TAKE_FILE, {key_of_file(pk): {"file_id": pk} for pk in due})
