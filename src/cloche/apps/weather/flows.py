"""Changes to the weather record, by hand and from the provider."""

from __future__ import annotations

from datetime import date

from django.db import transaction

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_in
from cloche.apps.shared import clock
from cloche.apps.weather.models import DailyWeather, WeatherReport
from cloche.apps.weather.provider import NoAnswer, Provider, ProviderAnswer
from cloche.apps.work import turns


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
    """Store or correct a day's weather; values not given stay, and the history keeps earlier ones."""
    values: dict[str, float | str] = {"low_c": low_c, "high_c": high_c}
    also = {"sky": sky or None, "rain_mm": rain_mm, "wind_m_s": wind_m_s, "snow_m": snow_m}
    values |= {name: value for name, value in also.items() if value is not None}
    line, _ = DailyWeather.objects.update_or_create(garden=garden, day=day, defaults=values)
    note_change_in(garden)
    return line


@transaction.atomic
def remove_day(garden: Garden, day: date) -> bool:
    """Remove a day's weather and return whether there was any; its history stays."""
    line = garden.weather.filter(day=day).first()
    if line is None:
        return False
    line.delete()
    note_change_in(garden)
    return True


@transaction.atomic
def put_back_day(garden: Garden, day: date) -> bool:
    """Restore a removed day unless it was recorded again; return whether it was restored."""
    gone = (
        DailyWeather.history.filter(garden=garden, day=day, history_type="-").order_by("-history_date", "-history_id").first()
    )
    if gone is None or garden.weather.filter(day=day).exists():
        return False
    gone.instance.save(force_insert=True)
    note_change_in(garden)
    return True


def ask(garden: Garden, provider: Provider) -> None:
    """Query the provider once and replace the previous report.

    Raises NoAnswer, which is recorded with it.
    """
    attempt = {"asked_at": turns.database_now()}
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
    """Store a report, and recalculate forecasts only if it differs."""
    before = WeatherReport.objects.filter(garden=garden).first()
    values = {"received_at": report.issued, "current_c": report.current_c, "ahead": report.ahead, "past": report.past}
    values["simulated"] = report.simulated
    WeatherReport.objects.update_or_create(garden=garden, defaults=values | {"failed_at": None, "failure": ""})
    if before is None or before.ahead != report.ahead or before.past != report.past:
        note_change_in(garden)
