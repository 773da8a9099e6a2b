"""Asking the weather provider, outside requests."""

from __future__ import annotations

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from cloche.apps.gardens import queue
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.flows import hear
from cloche.apps.readings.models import IncomingFile
from cloche.apps.readings.weather.provider import NotHeard, provider


@app.task(name="readings.ask_weather", retry=RetryStrategy(max_attempts=4, exponential_wait=4, retry_exceptions=[NotHeard]))
def ask_weather(garden_id: int) -> None:
    """Ask about one garden; a failure is noted at once and tried again soon, then with the next round."""
    garden, asked = Garden.objects.filter(pk=garden_id).first(), provider()
    if garden is None or asked is None:
        return
    if not hear.ask(garden, asked):
        raise NotHeard(f"no answer for garden {garden_id}")


@app.periodic(cron="*/20 * * * *")
@app.task(name="readings.ask_round", queueing_lock="ask-round")
def ask_round(timestamp: int = 0) -> None:
    """Ask about every garden."""
    if provider() is None:
        return
    for pk in Garden.objects.values_list("pk", flat=True):
        queue.put("readings.ask_weather", f"weather-{pk}", garden_id=pk)


@app.task(name="readings.take_file", retry=3)
def take_file(file_id: int) -> None:
    """Take a long file; one that was given up or is in already is left alone."""
    from cloche.apps.readings.flows import bring_in

    incoming = IncomingFile.objects.filter(pk=file_id, state=IncomingFile.State.TAKING).first()
    if incoming is not None:
        bring_in.take_long(incoming)
