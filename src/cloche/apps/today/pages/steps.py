"""The next steps of a new garden: a strip that ends by itself when all are done, or a week after the first reading."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Reading
from cloche.apps.weather.models import DailyWeather

SETTLED_D = 7


@dataclass(frozen=True)
class Step:
    """Something a newcomer does once: what, what it gives, where, and whether it is done."""

    name: str
    gives: str
    url: str
    done: bool


def next_steps(garden: Garden, today: date) -> list[Step]:
    """All of them with what is done ticked; none once they are over."""
    first = (
        Reading.objects.current().filter(place__garden=garden).order_by("taken_at").values_list("taken_at", flat=True).first()
    )
    read_long_ago = first is not None and first.astimezone(garden.timezone).date() <= today - timedelta(days=SETTLED_D)
    if read_long_ago:
        return []
    steps = [
        Step(
            _("Say what you grow"),
            _("Until then Cloche looks at what nearly everyone grows."),
            reverse("my_crops", args=[garden.pk]),
            bool(garden.crops),
        ),
        Step(
            _("Read one thermometer"),
            _("Push it in to the depth of the seed, wait until it stands still, type the number. Each one makes a bed surer."),
            reverse("round", args=[garden.pk]),
            first is not None,
        ),
        Step(
            _("Write down yesterday’s low and high"),
            _("Or let a weather service do it. It tells Cloche what warmed the ground."),
            reverse("weather", args=[garden.pk]),
            DailyWeather.objects.filter(garden=garden).exists(),
        ),
    ]
    return [] if all(step.done for step in steps) else steps
