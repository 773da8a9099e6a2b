"""A crop in a place: when it goes in, and why. What would come of a chosen day is in sowing.py and planting.py."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.windows.pages.facts import Fact, facts, method, put
from cloche.apps.windows.pages.limit_words import sentence
from cloche.apps.windows.pages.place import SPAN_D, window_words
from cloche.apps.windows.pages.sowing_rules import NAMES
from cloche.bridge.services import crops
from cloche.bridge.values.layout import MEMBERS
from cloche.bridge.values.stored import Window
from cloche.bridge.values.units import Units
from cloche.core.crops.catalogue import Crop
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Calendar, Mark, Ribbon

SLIDER_D = 270


@dataclass(frozen=True)
class CropPage:
    """The standing part of the page."""

    headline: str
    sub: str
    mine: str
    ribbon: Ribbon
    calendar: Calendar
    marks: list[Mark]
    why: list[str]
    facts: list[Fact]


def crop_page(
    place: Place, outlook: CropOutlook, crop: Crop, units: Units, today: date, sowing_rule: str, text: Iterable[str] = ()
) -> CropPage:
    """Everything but the chosen day. crop: as the garden grows it; text: names of the values that it says itself."""
    data = outlook.ribbon
    days = [day for day in data.day if day <= SPAN_D]
    drawn = ribbon.ribbon(days, data.success[: len(days)], data.soil_c[: len(days)], SPAN_D)
    ends = [(key, getattr(window, key)) for window in outlook.windows[:1] for key in _ends(window)]
    marks = [ribbon.mark(today, on, f"{key} {words.day(on)}", SPAN_D) for key, on in ends if (on - today).days <= SPAN_D]
    deep = f"{put(crop)[1]} {units.length_text(crop.sowing_depth_m)} deep · " if outlook.sown else ""
    return CropPage(
        headline=_headline(crop, place, outlook, today),
        sub=f"{crop.botanical_name} · {deep}{method(crop)}",
        mine=_mine(outlook, sowing_rule),
        ribbon=drawn,
        calendar=ribbon.calendar(today, SPAN_D),
        marks=marks,
        why=_why(crop, place, outlook, today),
        facts=facts(crop, units, text),
    )


def put_words(crop: Crop, outlook: CropOutlook) -> str:
    """sow, plant or plant out."""
    return put(crop)[0] if outlook.sown else "plant out"


def _headline(crop: Crop, place: Place, outlook: CropOutlook, today: date) -> str:
    name = words.sentence(crop.name_plural)
    if outlook.hopeless:
        north = f"{abs(place.garden.latitude_deg):.0f}° {'north' if place.garden.latitude_deg >= 0 else 'south'}"
        where = f"in {place.name}, at {north}"
        return f"{name}: nobody would {put_words(crop, outlook)} them {where}; {sentence(outlook.main_limit, outlook.sown)}."
    if not outlook.windows:
        limit = sentence(outlook.main_limit, outlook.sown)
        return f"{name} in {place.name}: no day in sight is sure enough; mostly, {limit}."
    when, note = window_words(outlook, today)
    first = outlook.windows[0]
    if outlook.sow_now and not first.open_ended:
        when = f"now, until {words.day(first.last, today)}"
    elif not first.open_ended:
        when = f"from {when}"
    return f"{name} in {place.name}: {put_words(crop, outlook)} {when}{', ' + note if note else ''}."


def _mine(outlook: CropOutlook, sowing_rule: str) -> str:
    """Which rule the windows follow, where the rules differ."""
    return f"All windows here follow your way of sowing: {NAMES[sowing_rule].lower()}." if outlook.sowing_rules else ""


def _ends(window: Window) -> tuple[str, ...]:
    return ("earliest",) if window.open_ended else ("earliest", "last")


def _why(crop: Crop, place: Place, outlook: CropOutlook, today: date) -> list[str]:
    lines, noun = [], put(crop)[2] if outlook.sown else "planting"
    for window in outlook.windows:
        start, last = window.earliest, window.last
        if window.opens_after:
            lines.append(f"Before {words.day(start, today)} {sentence(window.opens_after, outlook.sown)}.")
        if window.closes_before:
            lines.append(f"After {words.day(last, today)} {sentence(window.closes_before, outlook.sown)}.")
        sure = words.likely(window.probability)
        lines.append(f"Between the two a {noun} succeeds {sure}, over {MEMBERS} courses that the weather may take.")
    lines.append(_success_words(crop, outlook))
    if crop.winter and not crop.winter.rooted:
        lines.append("Its leaves are judged by the air; snow, which shelters them, is not counted.")
    return lines


def _success_words(crop: Crop, outlook: CropOutlook) -> str:
    if not outlook.sown:
        return (
            f"A planting counts as a success when soil and nights are warm enough, no frost of the next fortnight is harder "
            f"than hardened plants stand, and {_harvest_words(crop, crop.maturity_planted_d)}."
        )
    lies = round(float(crops.longest_in_soil_d(crop)))
    start = (
        f"A {put(crop)[2]} counts as a success when half of what comes up is up within {lies} days, at least half of what lives"
    )
    if crop.winter:
        return (
            f"{start} comes up, it is neither too small nor too far grown when the light goes, and it stands the winter’s cold."
        )
    return f"{start} comes up, no night in the three weeks after kills it, and {_harvest_words(crop, crop.maturity_d)}."


def _harvest_words(crop: Crop, printed_d: float) -> str:
    """What the stretch to harvest has to give."""
    if crop.life.perennial:
        return "it grows strong enough before winter to come again"
    text = f"it grows to harvest, in {printed_d:.0f} days of its usual season and more in cold or dark ones"
    if crop.heat_limit_c is not None:
        text += ", without losing half of it to heat"
    if crop.life.chill:
        text += " or bolting after cold weeks"
    return text
