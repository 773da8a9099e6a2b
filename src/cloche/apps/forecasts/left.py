"""What the soil was like in places that sowings have left: kept with the move, as forecasts forget what lies weeks back."""

from __future__ import annotations

from datetime import date, timedelta

from cloche.apps.forecasts.models import Forecast
from cloche.apps.forecasts.selectors import kept_soil
from cloche.apps.places.models import Place
from cloche.apps.sowings.models import Sowing, Step
from cloche.bridge.values.layout import NEAR_PAST_D

NOON_H = 12
AN_HOUR = timedelta(hours=1)


def keep_left(sowings: list[Sowing]) -> None:
    """Of every move of which it is not kept yet, and of which the forecast of the place that was left still knows."""
    for sowing in sowings:
        since = sowing.sown_on
        for step in sowing.steps.all():
            if step.left_id is None:
                continue
            if step.left_c is None:
                _keep(step, since)
            since = step.on


def _keep(step: Step, since: date) -> None:
    forecast = Forecast.objects.filter(place=step.left).only("ground").first()
    if forecast is None or not forecast.ground:
        return
    ground = forecast.ground
    first, last = (_hour(day, ground.day) for day in (since, step.on))
    hours = ground.near_mid_c[max(first, 0) : max(last, 0)]
    if last > len(ground.near_mid_c):
        return
    if first < 0 and step.left is not None:
        # A move that is entered weeks late: of what the forecast no longer knows by the hour, the kept days tell.
        hours = _from_days(step.left, since, min(last, 0) - first) + list(hours)
    if hours:
        step.left_c = list(hours)
        step.save(update_fields=["left_c"])


def _from_days(place: Place, since: date, count: int) -> list[float]:
    """So many hours from midday of a day on, by the daily means kept; the latest, where the first are missing."""
    kept = kept_soil(place, since.year)
    hours: list[float] = []
    for hour in range(count - 1, -1, -1):
        mean_c = kept.get(since + timedelta(days=(hour + NOON_H) // 24))
        if mean_c is None:
            break
        hours.append(mean_c)
    return hours[::-1]


def _hour(day: date, made_on: date) -> int:
    """Hours from a forecast's first to midday of a day, by the clock that it keeps."""
    return (NEAR_PAST_D + (day - made_on).days) * 24 + NOON_H
