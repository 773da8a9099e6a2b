"""Years gone by whose soil is not worked out yet: asked for when somebody looks at them."""

from __future__ import annotations

from datetime import date, timedelta

from django.db.models import Count

from cloche.apps.forecasts.models import SoilYear
from cloche.apps.places.models import Place
from cloche.apps.weather.models import DailyWeather
from cloche.apps.work import queue

WORK_OUT_YEAR = "forecasts.work_out_year"
MOST_YEARS, FEWEST_D = 6, 14
SETTLED_D = 21
"""Days back from which a forecast's own word of its past is not enough."""


def ask_for_earlier(place: Place, today: date) -> bool:
    """Queue the years that have weather and no soil; returns whether any are waiting."""
    earliest = date(today.year - MOST_YEARS + 1, 1, 1)
    days = DailyWeather.objects.filter(garden=place.garden, day__gte=earliest, day__lt=today - timedelta(days=SETTLED_D))
    weather = dict(days.order_by().values_list("day__year").annotate(Count("pk")))
    rows = SoilYear.objects.filter(place=place).only("year", "mean_c")
    known = {row.year: sum(value is not None for value in row.mean_c) for row in rows}
    due = [year for year, number in weather.items() if number >= FEWEST_D and known.get(year, 0) < 0.8 * number]
    for year in due:
        queue.put(WORK_OUT_YEAR, f"year-{place.pk}-{year}", priority=queue.LATER, place_id=place.pk, year=year)
    return bool(due)
