"""How cold it was among plants in the night before a day, as far as the forecast still knows."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta

from cloche.apps.forecasts.selectors import ground_of
from cloche.apps.places.models import Place
from cloche.apps.plants.models import PlantEvent

OF_A_NIGHT = (PlantEvent.Kind.DIED, PlantEvent.Kind.STOOD)
EVENING, MORNING = time(17), time(9)


def lowest_before(place: Place, on: date) -> float | None:
    """Lowest air of the night that ended on a day, inside where something stands over the place [°C]; None: not known."""
    ground = ground_of(place)
    if ground is None:
        return None
    zone, data = place.garden.timezone, ground.data
    ends = (datetime.combine(day, at, tzinfo=zone) for day, at in ((on - timedelta(days=1), EVENING), (on, MORNING)))
    first, last = (int((at - data.start) / timedelta(hours=1)) for at in ends)
    hours = (data.inside_mid_c or data.outside_c)[max(first, 0) : max(last, 0)]
    return round(min(hours), 1) if hours and first >= 0 else None
