"""What the soil was like in places that sowings have left: kept with the move, as forecasts forget what lies weeks back."""

from __future__ import annotations

from datetime import date, timedelta

from cloche.apps.forecasts.models import Forecast
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
    if hours and last <= len(ground.near_mid_c):
        step.left_c = list(hours)
        step.save(update_fields=["left_c"])


def _hour(day: date, made_on: date) -> int:
    """Hours from a forecast's first to midday of a day, by the clock that it keeps."""
    return (NEAR_PAST_D + (day - made_on).days) * 24 + NOON_H
