"""How cold it was among plants in the night before a day, by the forecast, else by what was written down of its weather."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta

from cloche.apps.forecasts.selectors import ground_of
from cloche.apps.places.models import Place
from cloche.apps.places.place_covers import covers_on
from cloche.apps.plants.models import PlantEvent
from cloche.apps.weather.selectors import reported_days

OF_A_NIGHT = (PlantEvent.Kind.DIED, PlantEvent.Kind.STOOD)
EVENING, MORNING = time(17), time(9)


def lowest_before(place: Place, on: date) -> float | None:
    """Lowest air of the night that ended on a day, inside where something stands over the place [°C]; None: not known.

    The forecast knows the last weeks. A night longer ago is told by its low in the garden's weather, of a place that lay open.
    """
    lowest = _by_forecast(place, on)
    if lowest is not None or covers_on(place, on):
        return lowest
    garden = place.garden
    line = garden.weather.filter(day=on).values_list("low_c", flat=True).first()
    if line is not None:
        return float(line)
    day = next(
        (
            reported_day
            for reported_day in reported_days(garden, since=on)
            if reported_day.day == on and not reported_day.lead_d
        ),
        None,
    )
    return None if day is None else day.low_c


def _by_forecast(place: Place, on: date) -> float | None:
    ground = ground_of(place)
    if ground is None:
        return None
    zone, data = place.garden.timezone, ground.data
    ends = (datetime.combine(day, at, tzinfo=zone) for day, at in ((on - timedelta(days=1), EVENING), (on, MORNING)))
    first, last = (int((at - data.start) / timedelta(hours=1)) for at in ends)
    hours = (data.inside_mid_c or data.outside_c)[max(first, 0) : max(last, 0)]
    return round(min(hours), 1) if hours and first >= 0 else None
