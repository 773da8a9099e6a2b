"""The sandbox: what the sliders make of a day, in a sentence and a drawing."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.work.turns import run_low_priority
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units
from cloche.drawing import sandbox as drawing
from cloche.drawing.slice import Slice, slice_of
from cloche_engine.layout import PROFILE_M, SANDBOX_M
from cloche_engine.queries import Day, Set, site_of

SHOWN_M = 0.05
"""Depth of the number that is drawn."""


HOURS = (5, 11, 15, 21)
"""Of the day, at which the ground is drawn: about its coldest, warming, its warmest, cooling."""
GROUNDS_DRAWN = {"mulch": "mulched", "heap": "cable", "film_on_soil": "sheet", "black_film": "sheet"}
"""What lies on or in the bed, by the shape that shows it."""


@dataclass(frozen=True)
class Moment:
    """The ground at one hour: air and seed-depth soil under the cover, and a bare bed."""

    hour: str
    cut: Slice
    number: str
    inside: str
    bare: str


@dataclass(frozen=True)
class Sandbox:
    """Context of covers/_sandbox.html."""

    headline: str
    sub: str
    moments: list[Moment]
    day: drawing.Day


@dataclass(frozen=True)
class Sliders:
    """Positions of the sliders. Temperatures are converted from the reader's unit beforehand."""

    month: int
    low_c: float
    high_c: float
    sun: float
    wind_m_s: float
    cover: str
    opening: float
    grounds: tuple[str, ...]
    crop_key: str

    @classmethod
    def of(cls, data: dict[str, Any], units: Units) -> Sliders:
        """Return the positions from a valid form."""
        return cls(
            month=data["month"],
            low_c=units.celsius(data["low"]),
            high_c=units.celsius(data["high"]),
            sun=data["sun"] / 100,
            wind_m_s=data["wind"] / units.wind_from_m_s(1.0),
            cover=data["cover"],
            opening=data["opening"] / 100,
            grounds=tuple(data["ground"]),
            crop_key=data["crop"],
        )


def starting(garden: Garden, units: Units, today: date) -> dict[str, Any]:
    """Return the initial positions: a fair spring day under a hooped tunnel."""
    low, high = (round(units.temperature_from_c(value)) for value in (3.0, 14.0))
    grown = crops.of_garden(garden.crops)
    keys = [crop.key for crop in grown]
    first = "carrot" if "carrot" in keys else keys[0]
    start = {"month": today.month, "low": low, "high": high, "sun": 75, "wind": 2, "cover": "film_tunnel"}
    return start | {"opening": 0, "ground": [], "crop": first}


def sandbox_page(garden: Garden, sliders: Sliders, units: Units, today: date) -> Sandbox:
    """Ask the engine for the day that the sliders describe."""
    crop = crops.crop(sliders.crop_key)
    setting = Set(
        on=date(today.year, sliders.month, 15),
        low_c=min(sliders.low_c, sliders.high_c - 0.5),
        high_c=sliders.high_c,
        sun=sliders.sun,
        wind_m_s=sliders.wind_m_s,
        cover=sliders.cover,
        opening=sliders.opening,
        grounds=sliders.grounds,
    )
    site = site_of(garden.latitude_deg, garden.longitude_deg, garden.elevation_m, garden.timezone, today)
    day = run_low_priority("cloche_engine.api:day_of", setting, site, crop)
    curves = [(_("outside"), "air-outside", day.outside_c)]
    if sliders.cover:
        curves.append((_("inside"), "air-inside", day.inside_c))
    curves += [
        (_("soil at {length}").format(length=units.length_text(depth)), "soil", row)
        for depth, row in zip(SANDBOX_M, day.soil_c, strict=True)
    ]
    if sliders.cover or sliders.grounds:
        curves.append((_("uncovered soil, {length}").format(length=units.length_text(0.05)), "course-other", day.bare_c))
    drawn = drawing.day(curves, lambda value: units.temperature_text(value, 0))
    under = covers.with_article(sliders.cover) if sliders.cover else ""
    mean = units.temperature_text(sum(day.soil_c[1]) / 24)
    bare = units.temperature_text(sum(day.bare_c) / 24)
    where = _("Under {under}").format(under=under) if under else _("Without a cover")
    against = _(", {bare} without the cover").format(bare=bare) if len(curves) > 5 or sliders.grounds else ""
    headline = _("{where} the soil would average {mean}{against}; {name_plural}: {up}.").format(
        where=where, mean=mean, against=against, name_plural=crop.name_plural, up=_up(day.half_d, day.share)
    )
    sub = _sub(day.bare_half_d, day.half_d, max(day.inside_c), bool(sliders.cover), units)
    return Sandbox(headline, sub, [_moment(hour, sliders, day, units) for hour in HOURS], drawn)


def _moment(hour: int, sliders: Sliders, day: Day, units: Units) -> Moment:
    kind = covers.drawn_as(sliders.cover) if sliders.cover else "open"
    also = [GROUNDS_DRAWN[key] for key in sliders.grounds if key in GROUNDS_DRAWN]
    differs = bool(sliders.cover or sliders.grounds)
    return Moment(
        hour=words.hour(hour),
        cut=slice_of(kind, SHOWN_M, PROFILE_M, day.profile_c[hour], also),
        number=units.temperature_text(day.soil_c[SANDBOX_M.index(SHOWN_M)][hour]),
        inside=units.temperature_text(day.inside_c[hour], 0) if sliders.cover else "",
        bare=_("without cover {temperature}").format(temperature=units.temperature_text(day.bare_c[hour])) if differs else "",
    )


def _up(half_d: float | None, share: float) -> str:
    if half_d is None:
        return _("would not come up")
    return _("half of the seedlings are up in {half_d} days, {share}% in the end").format(
        half_d=f"{half_d:.0f}", share=f"{share * 100:.0f}"
    )


def _sub(bare_d: float | None, half_d: float | None, hottest_c: float, covered: bool, units: Units) -> str:
    text = [] if not covered else [_("Hottest inside: {temperature}.").format(temperature=units.temperature_text(hottest_c, 0))]
    if covered:
        bare = (
            _("Without a cover they would not come up")
            if bare_d is None
            else _("{bare_d} days without a cover").format(bare_d=f"{bare_d:.0f}")
        )
        text.append(f"{bare}.")
    text.append(_("The same day is repeated until the soil temperature has settled."))
    return " ".join(text)
