"""Recording a day's air."""

from __future__ import annotations

from datetime import date

from django.db import transaction

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import note_change_in
from cloche.apps.weather.models import DailyWeather


@transaction.atomic
def record_day(
    garden: Garden,
    day: date,
    low_c: float,
    high_c: float,
    *,
    sky: str = "",
    rain_mm: float | None = None,
    wind_m_s: float | None = None,
    snow_m: float | None = None,
) -> DailyWeather:
    """Store or correct a day's line; what is not given stays as it was. What it was before stays in its history."""
    values: dict[str, float | str] = {"low_c": low_c, "high_c": high_c}
    also = {"sky": sky or None, "rain_mm": rain_mm, "wind_m_s": wind_m_s, "snow_m": snow_m}
    values |= {name: value for name, value in also.items() if value is not None}
    line, _ = DailyWeather.objects.update_or_create(garden=garden, day=day, defaults=values)
    note_change_in(garden)
    return line


@transaction.atomic
def remove_day(garden: Garden, day: date) -> bool:
    """Remove a day's line; returns whether there was one. Its history stays."""
    line = garden.weather.filter(day=day).first()
    if line is None:
        return False
    line.delete()
    note_change_in(garden)
    return True


@transaction.atomic
def put_back_day(garden: Garden, day: date) -> bool:
    """Undo the last removal of a day's line; returns whether there was one, and nothing was written down since."""
    gone = (
        DailyWeather.history.filter(garden=garden, day=day, history_type="-").order_by("-history_date", "-history_id").first()
    )
    if gone is None or garden.weather.filter(day=day).exists():
        return False
    gone.instance.save(force_insert=True)
    note_change_in(garden)
    return True
