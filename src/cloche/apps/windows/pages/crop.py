"""Page of a crop in a place: when it goes in and why."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.windows.pages.facts import Fact, facts, method, put
from cloche.apps.windows.pages.limit_words import RULE_NAMES, sentence
from cloche.apps.windows.pages.place import SPAN_D, window_words
from cloche.apps.windows.prospects import best_day
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche.drawing import ribbon
from cloche.drawing.ribbon import Calendar, Mark, Ribbon
from cloche_engine.crops.catalogue import Crop
from cloche_engine.layout import MEMBERS
from cloche_engine.places.kinds import BENCHES
from cloche_engine.results import FrostDates, Window

SLIDER_D = 455
ENDS = {"earliest": lazy("earliest date {day}"), "last": lazy("last date {day}")}


@dataclass(frozen=True)
class CropPage:
    """The part of the page that does not depend on the chosen day."""

    headline: str
    sub: str
    mine: str
    ribbon: Ribbon
    calendar: Calendar
    marks: list[Mark]
    why: list[str]
    facts: list[Fact]


OF_BEDS = {"row_m", "maturity_d"}
"""Values that say nothing of a tray: spacing in rows, and days to a harvest."""
FAR_D = 70
"""A day further from a frost is not counted from it."""


def crop_page(
    place: Place, outlook: CropOutlook, crop: Crop, units: Units, today: date, sowing_rule: str, text: Iterable[str] = ()
) -> CropPage:
    """Build everything but the chosen day.

    `crop` has the garden's values; `text` names those its packet states.
    """
    data = outlook.ribbon
    days = [day for day in data.day if day <= SPAN_D]
    drawn = ribbon.ribbon(days, data.success[: len(days)], data.soil_c[: len(days)], SPAN_D)
    ends = [(key, getattr(window, key)) for window in outlook.windows[:1] for key in _ends(window)]
    near = [(key, on) for key, on in ends if (on - today).days <= SPAN_D]
    marks = ribbon.apart([ribbon.mark(today, on, ENDS[key].format(day=words.day(on)), SPAN_D) for key, on in near])
    deep = (
        _("{put} {length} deep · ").format(put=put(crop)[1], length=units.length_text(crop.sowing_depth_m))
        if outlook.sown
        else ""
    )
    return CropPage(
        headline=_headline(crop, place, outlook, today),
        sub=f"{crop.botanical_name} · {deep}{method(crop)}",
        mine=_mine(outlook, sowing_rule),
        ribbon=drawn,
        calendar=ribbon.calendar(today, SPAN_D),
        marks=marks,
        why=_why(crop, place, outlook, today),
        facts=[fact for fact in facts(crop, units, text) if place.kind not in BENCHES or not OF_BEDS.intersection(fact.of)],
    )


def put_words(crop: Crop, outlook: CropOutlook) -> str:
    """Return "sow", "plant" or "plant out"."""
    return put(crop)[0] if outlook.sown else _("plant out")


def _headline(crop: Crop, place: Place, outlook: CropOutlook, today: date) -> str:
    name = words.sentence(crop.name_plural)
    if outlook.hopeless:
        north = f"{abs(place.garden.latitude_deg):.0f}° {_('north') if place.garden.latitude_deg >= 0 else _('south')}"
        text = (
            _("{name} sown in {place}, at {north}, would hardly ever succeed: {why}.")
            if outlook.sown
            else _("{name} planted out in {place}, at {north}, would hardly ever succeed: {why}.")
        )
        why = sentence(outlook.main_limit, outlook.sown)
        return text.format(name=name, place=place.name, north=north, why=why)
    if not outlook.windows:
        limit = sentence(outlook.main_limit, outlook.sown)
        best = best_day(outlook, today)
        if best is None:
            return _("{name} in {place}: no reliable date ahead. Main reason: {limit}.").format(
                name=name, place=place.name, limit=limit
            )
        return _(
            "{name} in {place}: no date ahead succeeds eight times in ten. The best is {day}, {likely}. Main reason: {limit}."
        ).format(name=name, place=place.name, day=words.day(best.on, today), likely=words.likely(best.chance), limit=limit)
    when, note = window_words(outlook, today)
    first = outlook.windows[0]
    if outlook.sow_now and not first.open_ended:
        when = _("now, until {day}").format(day=words.day(first.last, today))
    elif not first.open_ended:
        when = _("from {when}").format(when=when)
    return _("{name} in {name2}: {put} {when}{part}.").format(
        name=name, name2=place.name, put=put_words(crop, outlook), when=when, part=", " + note if note else ""
    )


def _mine(outlook: CropOutlook, sowing_rule: str) -> str:
    """Describe which rule sets the windows, where rules differ."""
    return (
        _("All windows here follow your sowing rule: {lower}.").format(lower=RULE_NAMES[sowing_rule].lower())
        if outlook.sowing_rules
        else ""
    )


def _ends(window: Window) -> tuple[str, ...]:
    return ("earliest",) if window.open_ended else ("earliest", "last")


def _why(crop: Crop, place: Place, outlook: CropOutlook, today: date) -> list[str]:
    lines = [f"{words.sentence(words.listed(when, len(when)))} {why}." for why, when in edges(outlook, today).items()]
    frosts = selectors.frosts_of(place.garden)
    if outlook.windows and frosts:
        lines += by_the_frost(max(outlook.windows[0].earliest, today), frosts, today)
    if outlook.windows:
        noun = put(crop)[2] if outlook.sown else _("planting")
        sure = words.likely(min(window.probability for window in outlook.windows))
        lines.append(
            _("Between those dates a {noun} succeeds {sure}{more}, in {members} simulations of the weather.").format(
                noun=noun, sure=sure, more=_(" or more") if len(outlook.windows) > 1 else "", members=MEMBERS
            )
        )
    lines.append(_success_words(crop, outlook, place.kind in BENCHES))
    if crop.winter and not crop.winter.rooted:
        lines.append(_("Leaves are judged by the air temperature. Snow, which shelters them, is not included."))
    return lines


def by_the_frost(on: date, frosts: FrostDates, today: date) -> list[str]:
    """Express a day in weeks before or after the nearest frost date; empty if none is near."""
    near = ((frosts.spring, _("the usual last frost of spring")), (frosts.autumn, _("the usual first frost of autumn")))
    for dates, frost in near:
        away_d = (on - dates[1]).days if dates else FAR_D + 1
        if dates is None or abs(away_d) > FAR_D:
            continue
        weeks = words.count(round(abs(away_d) / 7), "week", "weeks")
        text = _("{day} is in the week of {frost}, {frost_day}.")
        if away_d <= -4:
            text = _("{day} is {weeks} before {frost}, {frost_day}.")
        if away_d >= 4:
            text = _("{day} is {weeks} after {frost}, {frost_day}.")
        named = words.sentence(words.day(on, today))
        return [text.format(day=named, weeks=weeks, frost=frost, frost_day=words.day(dates[1], today))]
    return []


def edges(outlook: CropOutlook, today: date) -> dict[str, list[str]]:
    """Return each reason once, with the days before or after which it holds."""
    by_key: dict[str, list[str]] = {}
    for window in outlook.windows:
        if window.opens_after:
            before = _("before {day}").format(day=words.day(window.earliest, today))
            by_key.setdefault(sentence(window.opens_after, outlook.sown), []).append(before)
        if window.closes_before:
            after = _("after {day}").format(day=words.day(window.last, today))
            by_key.setdefault(sentence(window.closes_before, outlook.sown), []).append(after)
    return by_key


def _success_words(crop: Crop, outlook: CropOutlook, bench: bool) -> str:
    if not outlook.sown:
        return _(
            "A planting counts as a success if soil and nights are warm enough, no frost in the next two "
            "weeks is harder than hardened plants survive, and {harvest}."
        ).format(harvest=_harvest_words(crop, crop.maturity_planted_d))
    lies = round(float(crops.longest_in_soil_d(crop)))
    start = _(
        "A {put} counts as a success if half of the seedlings are up within {lies} days, at least half of the viable seed"
    ).format(put=put(crop)[2], lies=lies)
    if bench:
        return _("{start} comes up. How it does outdoors is judged where it is planted out.").format(start=start)
    if crop.winter:
        return _(
            "{start} comes up, is neither too small nor too far grown when the light fades, and survives the winter."
        ).format(start=start)
    return _("{start} comes up, no night in the three weeks after kills it, and {harvest}.").format(
        start=start, harvest=_harvest_words(crop, crop.maturity_d)
    )


def _harvest_words(crop: Crop, printed_d: float) -> str:
    """Describe the time to harvest."""
    if crop.life.perennial:
        return _("it grows strong enough before winter to regrow")
    text = _("it grows to harvest, in {printed_d} days of its usual season and more in cold or dark ones").format(
        printed_d=f"{printed_d:.0f}"
    )
    if crop.heat_limit_c is not None:
        text += _(", without losing half of it to heat")
    if crop.life.chill:
        text += _(" or bolting after cold weeks")
    return text
