"""What the pages of a new garden say: towns to choose from, and what a point on earth is like."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from urllib.parse import urlencode

from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.gardens.forms import MONTHS
from cloche.apps.gardens.models import zone_of
from cloche.apps.shared import words
from cloche.bridge.services import site
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing import earth
from cloche.drawing.earth import Year, year
from cloche_engine.results import FrostDates
from cloche_engine.site import region
from cloche_engine.site import towns as towns_file

NEAR_KM = 40.0
FREEZING_C = 0.0
FURTHEST_DEG = 90.0, 180.0
KM_PER_MILE = 1.609344


@dataclass(frozen=True)
class TownChoice:
    """A town to choose, in words and with a link."""

    text: str
    url: str


@dataclass(frozen=True)
class Map:
    """A map to choose a point more precisely, with its edges [°] and the position of the point as fractions."""

    picture: str
    north: float
    south: float
    west: float
    east: float
    x: float
    y: float


@dataclass(frozen=True)
class FoundPage:
    """A point for which nothing has been measured."""

    headline: str
    lies: str
    year: Year
    frosts: str
    rests_on: str
    map: Map
    initial: dict[str, Any]


def point_of(query: Mapping[str, Any]) -> tuple[float, float] | None:
    """Return latitude and longitude from a link or form, None if there are none."""
    try:
        latitude, longitude = (float(str(query.get(name, ""))) for name in ("latitude_deg", "longitude_deg"))
    except ValueError:
        return None
    fits = all(math.isfinite(v) and abs(v) <= most for v, most in zip((latitude, longitude), FURTHEST_DEG, strict=True))
    return (latitude, longitude) if fits else None


def towns(query: str) -> list[TownChoice]:
    """Return towns whose name begins with the text."""
    return [TownChoice(f"{town.name}, {town.lies_in}", _on(town.latitude_deg, town.longitude_deg)) for town in site.find(query)]


def _on(latitude_deg: float, longitude_deg: float) -> str:
    point = {"latitude_deg": f"{latitude_deg:g}", "longitude_deg": f"{longitude_deg:g}"}
    return f"{reverse('new_garden')}?{urlencode(point)}"


def where_page(query: Mapping[str, Any]) -> dict[str, Any]:
    """Return the context of gardens/where.html."""
    town = str(query.get("town", ""))
    typed = bool(query.get("latitude_deg") or query.get("longitude_deg"))
    return {
        "query": town,
        "towns": towns(town),
        "no_point": typed,
        "earth": {"north": earth.NORTH_DEG, "south": earth.SOUTH_DEG, "west": -180.0, "east": 180.0},
        "credit": _("Towns: {source}.").format(source=towns_file.CREDIT),
    }


def found_page(point: tuple[float, float], units: Units, now: datetime) -> FoundPage:
    """Return what is known about a point, in words and drawings."""
    latitude, longitude = point
    zone = site.time_zone_at(latitude, longitude)
    today = now.astimezone(zone_of(zone)).date()
    town, away_km = site.nearest(latitude, longitude)
    height_m = site.height_at(latitude, longitude)
    usual = site.usual_year(latitude, longitude, height_m, today)
    return FoundPage(
        headline=_headline(town, away_km, units),
        lies=_("{latitude}, {longitude} · time zone {zone}").format(
            latitude=_degrees(latitude, _("N"), _("S")),
            longitude=_degrees(longitude, _("E"), _("W")),
            zone=zone.replace("_", " "),
        ),
        year=_drawn(usual, units),
        frosts=_frosts(usual.frosts),
        rests_on=_rests_on(usual, units),
        map=_map(latitude, longitude),
        initial={
            "name": _("Garden in {town}").format(town=town.name) if away_km < NEAR_KM else _("My garden"),
            "latitude_deg": round(latitude, 3),
            "longitude_deg": round(longitude, 3),
            "height": f"{round(units.height_from_m(height_m)):g}",
            "timezone_name": zone,
        },
    )


def _headline(town: site.Town, away_km: float, units: Units) -> str:
    name = f"{town.name}, {town.lies_in}"
    if away_km < 2:
        return _("Your garden is in {town}.").format(town=name)
    away = f"{away_km:.0f} km" if units.length == "cm" else _("{miles} miles").format(miles=f"{away_km / KM_PER_MILE:.0f}")
    return _("Your garden is {away} from {town}.").format(away=away, town=name)


def _degrees(value: float, positive: str, negative: str) -> str:
    return number_text(f"{abs(value):.2f}° {positive if value >= 0 else negative}")


def _drawn(usual: site.UsualYear, units: Units) -> Year:
    low, high = ([units.temperature_from_c(value) for value in values] for values in (usual.low_c, usual.high_c))
    mean_c = [(a + b) / 2 for a, b in zip(usual.low_c, usual.high_c, strict=True)]
    spring, autumn = usual.frosts.spring, usual.frosts.autumn
    between = (spring[1], autumn[1]) if spring and autumn else None
    freezing = units.temperature_from_c(FREEZING_C)
    return year(low, high, mean_c, usual.rain_mm, [str(month) for month in MONTHS], freezing, between)


def _frosts(frosts: FrostDates) -> str:
    if frosts.spring is None or frosts.autumn is None:
        freezes = frosts.lowest_c < FREEZING_C
        return _("Frost occurs only in some winters, or in every month.") if freezes else _("Frost is rare here.")
    last, late, first = (words.day(day) for day in (*frosts.spring[1:], frosts.autumn[1]))
    return _(
        "The last spring frost is usually about {last} (one year in ten after {late}), the first autumn frost about {first}."
    ).format(last=last, late=late, first=first)


def _rests_on(usual: site.UsualYear, units: Units) -> str:
    doubt = units.difference_text(usual.off_k, 0)
    if not usual.by_region:
        return _("Estimated from the latitude only, because no land is near. It may be off by {doubt} or more.").format(
            doubt=doubt
        )
    return _(
        "Estimated from the regional climate (a square of about 25 km). It may be off by {doubt}, or "
        "more in a hollow or on a slope. Your own readings and weather replace it as you enter them. "
        "{credit}"
    ).format(doubt=doubt, credit=region.CREDIT)


def _map(latitude: float, longitude: float) -> Map:
    about = site.surroundings_of(latitude, longitude)
    return Map(
        picture=earth.as_address(about.mean_c),
        north=about.north_deg,
        south=about.south_deg,
        west=about.west_deg,
        east=about.east_deg,
        x=(longitude - about.west_deg) / (about.east_deg - about.west_deg),
        y=(about.north_deg - latitude) / (about.north_deg - about.south_deg),
    )
