"""Where to raise a crop: all places for raising plants side by side."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench import selectors, texts
from cloche.apps.bench.life import Life
from cloche.apps.bench.pages.bench import SHOWS, SPOILT, room_name
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import clock, words
from cloche.apps.shared.words import lazy
from cloche.apps.windows.prospects import outlooks_of
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop
from cloche_engine.light.habit import Habit

OFTEN_RAISED = ("pepper", "tomato", "eggplant")
"""What is most often asked about."""
FEW_UP = 0.5
"""Of viable seed fewer than this up, a place is not one to germinate in."""
CHILLED_K = 5.0
"""So far below the temperature at which a crop is grown on, seedlings stand still or suffer (common practice, no source)."""
HABITS = {
    Habit.STOCKY: lazy("stocky"),
    Habit.SOFT: lazy("a little soft"),
    Habit.LEGGY: lazy("leggy"),
    Habit.STARVED: lazy("starved of light"),
}


@dataclass(frozen=True)
class Stand:
    """A place for raising plants, judged for one crop sown today.

    `days` until half are up are None where it would not come up, and `share` of viable seed is None where nothing has been
    calculated; `chilly` marks a place too cold for the seedlings to grow, `kwh` is the energy until half are up.
    """

    place: Place
    room: str
    roots_c: float
    mol: float | None
    days: float | None
    share: float | None
    habit: Habit | None
    chilly: bool
    kwh: float | None


@dataclass(frozen=True)
class StandLine:
    """A stand in words."""

    place: Place
    room: str
    roots: str
    light: str
    up: str
    grows: str
    bad: bool
    energy: str


@dataclass(frozen=True)
class StandsPage:
    """Context of bench/stands.html."""

    headline: str
    advice: str
    lines: list[StandLine]


class CropForm(forms.Form):
    """Form for the crop to raise."""

    crop = forms.ChoiceField(label=lazy("Crop"))

    def __init__(self, *args: object, garden: Garden, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)  # type: ignore[arg-type]
        grown = [crop for crop in crops.of_garden(garden.crops) if crop.planted_out]
        self.fields["crop"].choices = [(crop.key, crop.name) for crop in grown]  # type: ignore[attr-defined]
        keys = [crop.key for crop in grown]
        self.initial.setdefault("crop", next((key for key in (*OFTEN_RAISED, *keys) if key in keys), None))


def stands_page(garden: Garden, crop: Crop, units: Units) -> StandsPage:
    """Compare all places that have a forecast for raising a crop."""
    stands = list(_stands(garden, crop))
    quickest = min((stand for stand in stands if _comes_up(stand)), key=lambda stand: stand.days or 0.0, default=None)
    sturdy = [stand for stand in stands if stand.habit is Habit.STOCKY and not stand.chilly]
    # Among stands that keep seedlings stocky, the warmest grows them fastest.
    sturdiest = max(sturdy, key=lambda stand: stand.roots_c, default=None)
    return StandsPage(
        headline=_headline(crop, quickest, stands),
        advice=_advice(crop, quickest, sturdiest),
        lines=[_line(stand, units, garden.price_kwh) for stand in sorted(stands, key=_rank)],
    )


def moved_text(place: Place, lives: list[Life]) -> str:
    """Return where the seedlings of a tray would grow sturdier; nothing if no other place is better."""
    parts = []
    for crop in {life.crop.key: life.crop for life in lives if life.up >= SHOWS}.values():
        stands = [stand for stand in _stands(place.garden, crop) if not stand.chilly and stand.habit is not None]
        here = next((stand for stand in stands if stand.place.pk == place.pk), None)
        better = [stand for stand in stands if stand.habit is Habit.STOCKY and stand.place.pk != place.pk]
        if better and (here is None or here.habit is not Habit.STOCKY):
            best = max(better, key=lambda stand: stand.roots_c)
            text = _("Move the {name} to {place}, where they would stay stocky.")
            parts.append(text.format(name=crop.name_plural, place=best.place.name))
    return " ".join(parts)


def _comes_up(stand: Stand) -> bool:
    return stand.days is not None and (stand.share or 0.0) >= FEW_UP


def _rank(stand: Stand) -> float:
    return stand.days if stand.days is not None and _comes_up(stand) else float("inf")


def _stands(garden: Garden, crop: Crop) -> Iterable[Stand]:
    today = clock.today(garden.timezone)
    places = [place for place in selectors.raised_on(garden).select_related("forecast") if place.kind in selectors.BENCH_KINDS]
    outlooks = outlooks_of([(place.pk, crop.key) for place in places])
    for place in places:
        forecast = getattr(place, "forecast", None)
        if forecast is None or not forecast.ground:
            continue
        climate = selectors.climate_of(Ground(place, forecast))
        outlook: CropOutlook | None = outlooks.get((place.pk, crop.key, True))
        days, share = (outlook.half_d, outlook.share) if outlook else (None, None)
        a_day = texts.kwh_a_day(climate.heat) if climate.heat else None
        kwh = a_day * days if a_day is not None and days is not None else None
        habit = selectors.habit(climate, crop)
        chilly = selectors.leaves_c(climate) < crop.grow_on_c - CHILLED_K
        yield Stand(place, room_name(place, today), climate.roots_c, climate.mol, days, share, habit, chilly, kwh)


def _headline(crop: Crop, quickest: Stand | None, stands: list[Stand]) -> str:
    name = words.sentence(crop.name_plural)
    if not stands:
        return _("No place for raising plants has a forecast yet.")
    if quickest is None or quickest.days is None:
        return _("{name} sown today would come up well in none of these places.").format(name=name)
    days = words.count(round(quickest.days), "day", "days")
    return _("{name} sown today are up soonest in {place}: half of them in about {days}.").format(
        name=name, place=quickest.place.name, days=days
    )


def _advice(crop: Crop, quickest: Stand | None, sturdiest: Stand | None) -> str:
    if sturdiest is None:
        return _("None of these places keeps seedlings both stocky and growing. Add a lamp where it is warm enough.")
    if quickest is not None and sturdiest.place == quickest.place:
        return _("The seedlings can stay there: it is bright enough for its temperature.")
    return _("Once they are up, they grow stockiest in {place}.").format(place=sturdiest.place.name)


def _grows(stand: Stand) -> str:
    if stand.chilly:
        return _("too cold for them")
    return str(HABITS[stand.habit]) if stand.habit else _("unknown")


def _line(stand: Stand, units: Units, price: float | None) -> StandLine:
    if stand.share is None:
        up = "–"
    elif stand.days is None:
        up = _("not up")
    else:
        up = _("{days}, {share}% of viable seed").format(
            days=words.count(round(stand.days), "day", "days"), share=f"{100 * stand.share:.0f}"
        )
    return StandLine(
        place=stand.place,
        room=stand.room,
        roots=units.temperature_text(stand.roots_c, 0),
        light=_("{mol} mol/m²").format(mol=number_text(f"{stand.mol:.1f}")) if stand.mol is not None else _("unknown"),
        up=up,
        grows=_grows(stand),
        bad=stand.chilly or stand.habit in SPOILT,
        energy=texts.energy_text(stand.kwh, price) if stand.kwh is not None else "–",
    )
