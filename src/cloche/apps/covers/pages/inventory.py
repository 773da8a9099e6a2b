"""The covers that a garden owns: their size, age, light, what a season costs, and where each one stands."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.covers.selectors import Owned, owned_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverDamage
from cloche.apps.shared import words
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.services import covers
from cloche.bridge.values.units import Units

PLANT_M = 0.15


@dataclass(frozen=True)
class Line:
    """One cover as it is listed: sentences."""

    pk: int
    name: str
    what: str
    size: str
    light: str
    cost: str
    where: str
    free: bool


def own_lines(garden: Garden, units: Units, today: date) -> list[Line]:
    """All of them."""
    return [_line(owned, units, today) for owned in owned_in(garden, today)]


def damage_lines(cover: Cover, units: Units, today: date) -> list[tuple[int, str, str]]:
    """What happened to a cover: number, day and sentence, with that day's weather where it is known."""
    rows = list(cover.damage.all())
    days = {day.day: day for day in cover.garden.weather.filter(day__in=[row.on for row in rows])}
    return [(row.pk, words.day(row.on, today), _happened(row, days.get(row.on), units)) for row in rows]


def _happened(row: CoverDamage, day: DailyWeather | None, units: Units) -> str:
    text = _("{what} by {cause}").format(what=row.get_what_display(), cause=row.get_cause_display())
    if day is not None and row.cause == CoverDamage.Cause.WIND and day.wind_m_s is not None:
        text += _(", in a mean wind of {wind}").format(wind=units.wind_text(day.wind_m_s))
    if day is not None and row.cause == CoverDamage.Cause.SNOW and day.snow_m:
        text += _(", under {snow} of snow").format(snow=units.length_text(day.snow_m))
    return f"{text}: {row.note}" if row.note else text


def _line(owned: Owned, units: Units, today: date) -> Line:
    cover = owned.cover
    return Line(
        pk=cover.pk,
        name=cover.name,
        what=covers.name_of(cover.kind),
        size=_size(cover, units),
        light=_light(cover, today),
        cost=_cost(cover),
        where=_where(owned, today),
        free=owned.free_on(today),
    )


def _size(cover: Cover, units: Units) -> str:
    text = _("{length} by {length2}").format(length=units.length_text(cover.length_m), length2=units.length_text(cover.width_m))
    if covers.is_box(cover.kind) and cover.low_m and cover.high_m:
        return _("{size}, {low} high in front and {high} at the back").format(
            size=text, low=units.length_text(cover.low_m), high=units.length_text(cover.high_m)
        )
    shape = covers.shape(cover.kind, cover.width_m, cover.spread_m)
    if shape is None:
        return text
    wide = units.length_text(shape.plantable_m(PLANT_M))
    plants = (
        _("room for plants of {length} over {wide}").format(length=units.length_text(PLANT_M), wide=wide)
        if shape.height_m > PLANT_M
        else _("too low for plants")
    )
    return _("{text}, set {length} apart: {length2} high, {plants}").format(
        text=text, length=units.length_text(shape.spread_m), length2=units.length_text(shape.height_m), plants=plants
    )


def _light(cover: Cover, today: date) -> str:
    age = None if cover.purchase_year is None else max(0, today.year - cover.purchase_year)
    share = _("lets {light} % of the sun through").format(
        light=f"{covers.light(cover.kind, float(age or 0), cover.dirty) * 100:.0f}"
    )
    if age is None:
        return _("age not entered, {share}").format(share=share)
    left = covers.lasts_y(cover.kind) - age
    if left <= 0:
        old = _("past its usual life")
    else:
        old = _("{years} old").format(years=words.count(age, "year", "years")) if age else _("new")
    return f"{old}, {share}"


def _cost(cover: Cover) -> str:
    if cover.price is None:
        return ""
    return _("{price} a season over {lasts_y} years").format(
        price=f"{cover.price / covers.lasts_y(cover.kind):.2f}", lasts_y=f"{covers.lasts_y(cover.kind):.0f}"
    )


def _where(owned: Owned, today: date) -> str:
    period = owned.period
    if period is None:
        return _("free")
    if period.first > today:
        return _("goes on {name} {day}").format(name=period.place.name, day=words.day(period.first, today))
    return _("on {name}").format(name=period.place.name) + (
        "" if period.last is None else _(" to {day}").format(day=words.day(period.last, today))
    )
