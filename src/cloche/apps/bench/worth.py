"""What warmth has cost so far, and what it bought."""

from __future__ import annotations

from datetime import date

from django.db.models import Sum
from django.utils.translation import gettext as _

from cloche.apps.bench import texts
from cloche.apps.forecasts.selectors import kwh_between
from cloche.apps.places.models import HeatPeriod, Place
from cloche.apps.plants.models import PlantEvent
from cloche.apps.shared import words
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units

LEAST_KWH = 0.5


def heated_since(place: Place, today: date) -> date | None:
    """Return the first day of the present or latest heat, with adjoining periods as one; None if there was none."""
    since: date | None = None
    for heat_period in place.heat_periods.exclude(source=HeatPeriod.Kind.HOUSE).filter(first__lte=today).order_by("-first"):
        if since is not None and heat_period.last is not None and (since - heat_period.last).days > 1:
            break
        since = heat_period.first
    return since


def worth_text(place: Place, units: Units, today: date) -> str:
    """Return energy, harvest, and energy or cost per weight since the heat came on."""
    since = heated_since(place, today)
    kwh = kwh_between(place, since, today) if since else 0.0
    if since is None or kwh < LEAST_KWH:
        return ""
    price = place.garden.price_kwh
    used = _("Since {day} the heat has used {energy}.").format(
        day=words.day(since, today), energy=texts.energy_text(kwh, price)
    )
    cut = PlantEvent.objects.filter(
        planting__place=place, planting__removed_at__isnull=True, kind=PlantEvent.Kind.HARVESTED, on__gte=since
    ).aggregate(kg=Sum("weight_kg"), number=Sum("number"))
    if cut["kg"]:
        each = kwh / units.weight_from_kg(cut["kg"])
        cost = (
            _("{cost} of heat per {unit}").format(cost=number_text(f"{each * price:.2f}"), unit=units.weight)
            if price is not None
            else _("{kwh} kWh per {unit}").format(kwh=number_text(f"{each:.1f}"), unit=units.weight)
        )
        weight = units.weight_text(cut["kg"])
        return f"{used} " + _("Since then {weight} has been cut here: {cost}.").format(weight=weight, cost=cost)
    if cut["number"]:
        pieces = words.count(cut["number"], "piece", "pieces")
        each = kwh / cut["number"]
        return f"{used} " + _("Since then {pieces} have been cut here: {kwh} kWh each.").format(
            pieces=pieces, kwh=number_text(f"{each:.1f}")
        )
    return f"{used} " + _("No harvest has been recorded here since.")
