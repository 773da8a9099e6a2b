"""A bed over a cable: what warm soil adds to growth and harvest, beside the same bed without it and beds next to it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.db.models import prefetch_related_objects
from django.utils.translation import gettext as _

from cloche.apps.bench import texts
from cloche.apps.bench.selectors import has_heater, is_heated
from cloche.apps.bench.worth import worth_text
from cloche.apps.forecasts.selectors import Ground, grounds_in, soil_of
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import progress_of
from cloche.bridge.services import beds, crops
from cloche.bridge.services.trays import growth_days
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.places.kinds import BENCHES

FORTNIGHT_D, LITTLE = 14, 0.15
"""Days for which heat is forecast; a smaller part of growth than this is not worth its electricity (assumption)."""
OUTDOORS = ("garlic",)
"""What a warm bed does not help (common practice, no source)."""


@dataclass(frozen=True)
class BedRow:
    """A bed as table cells."""

    name: str
    roots: str
    growth: str
    ripe: str
    energy: str


@dataclass(frozen=True)
class HeatedBedPage:
    """Context of bench/_gains.html for a bed."""

    headline: str
    sub: str
    bed_rows: list[BedRow]
    worth: str = ""
    waiting: str = ""


def is_heated_bed(place: Place) -> bool:
    """Return whether a place is a bed over a heater, where plants grow to harvest."""
    return place.kind not in BENCHES and has_heater(place)


def heated_bed_page(place: Place, crop_key: str, sowing: Sowing | None, units: Units, today: date) -> HeatedBedPage:
    """Compare growth and harvest with and without the heat below a bed."""
    grounds = {other.pk: (other, ground) for other, ground in grounds_in(place.garden)}
    prefetch_related_objects([other for other, _ground in grounds.values()], "heat_periods")
    ground = grounds.get(place.pk, (place, None))[1]
    if ground is None:
        return HeatedBedPage("", "", [], waiting=_("Working out the forecast for {name}…").format(name=place.name))
    if ground.data.heat is None:
        text = _("The heat below {name} is off. Switch it on under “Heat and light” to see what it would add.")
        return HeatedBedPage(text.format(name=place.name), "", [], worth_text(place, units, today))
    crop = crops.crop(crop_key)
    begins = progress_of(sowing, today).half_on if sowing is not None else today
    heat, air = ground.data.heat, (ground.data.around_c or ground.data.far_mid_c)[:FORTNIGHT_D]
    days = min(len(heat.without_c), len(air), FORTNIGHT_D)
    warm, cold = ground.data.far_mid_c[:days], heat.without_c[:days]
    grown = [growth_days(crop_key, air[:days], roots, today, place.garden.latitude_deg) for roots in (warm, cold)]
    lift = sum(warm) / days - sum(cold) / days
    ripe = [_ripe(place, ground, crop_key, begins, sowing is None, less, today) for less in (0.0, lift)]
    kwh = texts.kwh_a_day(heat)
    until = kwh * max((ripe[0] - today).days, 0) if ripe[0] is not None else None
    price = place.garden.price_kwh
    energy = "–" if until is None else texts.energy_text(until, price)
    rows = [
        _row(_("{name}, with its heat").format(name=place.name), sum(warm) / days, grown[0], ripe[0], energy, units, today),
        _row(_("{name}, without heat").format(name=place.name), sum(cold) / days, grown[1], ripe[1], "0", units, today),
    ]
    for other, beside in grounds.values():
        if beside is not None and _is_beside(other, place, today):
            soil, about = beside.data.far_mid_c[:days], (beside.data.around_c or beside.data.far_mid_c)[:days]
            growth = growth_days(crop_key, about, soil, today, place.garden.latitude_deg)
            when = _ripe(other, beside, crop_key, begins, sowing is None, 0.0, today)
            rows.append(_row(other.name, sum(soil) / days, growth, when, "0", units, today))
    name = words.sentence(crop.name_plural)
    headline = _headline(crop.name_plural, place, grown, ripe, today)
    return HeatedBedPage(headline, _sub(crop_key, name, sowing, today), rows, worth_text(place, units, today))


def _is_beside(other: Place, place: Place, today: date) -> bool:
    bed = other.kind not in (*BENCHES, "hotbed", "tub") and other.within == place.within
    return bed and other.pk != place.pk and not is_heated(other, today)


def _ripe(
    place: Place, ground: Ground, crop_key: str, begins: date | None, planted: bool, less_k: float, today: date
) -> date | None:
    """Return when the crop is ready if the soil is `less_k` colder from today on."""
    if begins is None:
        return None
    mean_c = soil_of(place, ground, today).since(begins)
    behind = max((today - begins).days, 0)
    course = mean_c[:behind] + [value - less_k for value in mean_c[behind:]]
    return beds.course(crop_key, begins, course, place.garden.latitude_deg, planted).ripe


def _headline(name: str, place: Place, grown: list[float], ripe: list[date | None], today: date) -> str:
    with_heat, without = (number_text(f"{days:.1f}") for days in grown)
    if grown[0] - grown[1] < LITTLE * max(grown[0], 1.0):
        return _(
            "The heat in {place} adds little now: in the coming fortnight {name} grow as much as in {with_heat} good days, "
            "{without} without it. Short days limit them, not cold soil."
        ).format(place=place.name, name=name, with_heat=with_heat, without=without)
    text = _("{name} in {place} grow as much as in {with_heat} good days in the coming fortnight, {without} without the heat.")
    text = text.format(name=words.sentence(name), place=place.name, with_heat=with_heat, without=without)
    if ripe[0] is None:
        return text
    ready = _("They would be ready about {day}.").format(day=words.day(ripe[0], today))
    if ripe[1] is not None and ripe[1] > ripe[0]:
        ready = _("They would be ready about {day} instead of {later}.").format(
            day=words.day(ripe[0], today), later=words.day(ripe[1], today)
        )
    return f"{text} {ready}"


def _sub(crop_key: str, name: str, sowing: Sowing | None, today: date) -> str:
    since = _("Plants set out today.")
    if sowing is not None:
        since = _("Sown on {day}.").format(day=words.day(sowing.sown_on, today))
    if crop_key in OUTDOORS:
        return f"{since} " + _("{name} stays outdoors: it needs a cold winter to form cloves.").format(name=name)
    return since


def _row(name: str, roots_c: float, grown: float, ripe: date | None, energy: str, units: Units, today: date) -> BedRow:
    growth = _("{days} good days").format(days=number_text(f"{grown:.1f}"))
    when = _("not within a year") if ripe is None else words.day(ripe, today)
    return BedRow(name, units.temperature_text(roots_c, 0), growth, when, energy)
