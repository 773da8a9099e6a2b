"""Page of all crops against the temperatures of all beds, with details for one bed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed.selectors import values_in_use
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.windows.pages.ground import FIGURE_WORDS, Warmth, warmth_in
from cloche.bridge.services import crops
from cloche.bridge.services.crops import Readiness, SteadyOutlook
from cloche.bridge.values import border
from cloche.bridge.values.units import Units
from cloche.drawing import wakes
from cloche.drawing.geometry import Tick
from cloche_engine.crops.catalogue import Crop

MOST_AHEAD_D = 30
FILTERS = (
    ("", lazy("all crops")),
    ("cool", lazy("cool-season")),
    ("warm", lazy("warm-season")),
    ("sown", lazy("sown in place")),
    ("raised", lazy("raised and planted out")),
)


@dataclass(frozen=True)
class Choice:
    """A crop that could be sown, in words."""

    key: str
    name: str
    words: str
    cost: str


@dataclass(frozen=True)
class WakesQuery:
    """Place, days ahead and selection of crops."""

    place_id: int | None = None
    ahead_d: int = 0
    only: str = ""

    @classmethod
    def of(cls, query: QueryDict) -> WakesQuery:
        """Parse URL parameters, ignoring invalid ones."""
        place, ahead, only = (query.get(name, "") for name in ("place", "in", "only"))
        return cls(
            border.whole(place),
            min(border.whole(ahead) or 0, MOST_AHEAD_D),
            only if only in dict(FILTERS) else "",
        )


@dataclass(frozen=True)
class WakesPage:
    """Context of the page."""

    headline: str
    sub: str
    places: list[tuple[Place, bool]]
    chosen: Place | None
    picture: wakes.Wakes | None
    comfortable: list[Choice]
    at_minimum: list[Choice]
    query: WakesQuery
    when: str = "now"
    filters: tuple[tuple[str, str], ...] = FILTERS


def _kept(crop: Crop, only: str) -> bool:
    if only in ("cool", "warm"):
        return crop.season == only
    if only == "sown":
        return crop.sown_direct
    return crop.planted_out if only == "raised" else True


def wakes_page(garden: Garden, units: Units, now: datetime, query: WakesQuery) -> WakesPage:
    """Build the page for one place, by default the first, now or some days ahead."""
    warmth = warmth_in(garden, selectors.grounds_in(garden), now, query.ahead_d)
    chosen = next((s for s in warmth if s.place.pk == query.place_id), warmth[0] if warmth else None)
    if chosen is None:
        headline = _("This page will compare every crop’s germination temperature with the soil temperature of your beds.")
        return WakesPage(headline, "", [], None, None, [], [], query)
    everything = crops.of_garden(garden.crops, values_in_use(garden))
    grown = [crop for crop in everything if _kept(crop, query.only)]
    comfortable = [_choice(v) for v in crops.comfortable(chosen.day_c, grown)]
    minimum = [_choice(v) for v in crops.at_minimum(chosen.day_c, grown)]
    when = _when(query.ahead_d)
    return WakesPage(
        headline=_headline(chosen, comfortable, when),
        sub=_("{stands} at seed depth, {figure}. Frost above the ground is not included here.").format(
            stands=_stands(chosen, units, query.ahead_d), figure=FIGURE_WORDS[chosen.figure]
        ),
        places=[(s.place, s is chosen) for s in warmth],
        chosen=chosen.place,
        picture=_picture(warmth, chosen, grown, units) if grown else None,
        comfortable=comfortable,
        at_minimum=minimum,
        query=query,
        when=when,
    )


def _headline(chosen: Warmth, comfortable: list[Choice], when: str) -> str:
    names = [crops.crop(choice.key).name_plural for choice in comfortable]
    if not names:
        return _("No crop is comfortably warm in {name} {part}.").format(
            name=chosen.place.name, part=_("yet") if when == "now" else when
        )
    return _("{sentence} would germinate comfortably in {name} {when}.").format(
        sentence=words.sentence(words.listed(names, 5)), name=chosen.place.name, when=when
    )


def _when(ahead_d: int) -> str:
    if not ahead_d:
        return _("now")
    return {7: _("in a week"), 14: _("in two weeks"), 30: _("in a month")}.get(
        ahead_d, _("in {days}").format(days=words.count(ahead_d, "day", "days"))
    )


def _stands(chosen: Warmth, units: Units, ahead_d: int) -> str:
    will = _("will be") if ahead_d else _("is")
    return _("{name} {will} at {temperature} (daily mean)").format(
        name=chosen.place.name, will=will, temperature=units.temperature_text(chosen.day_c)
    )


def _choice(steady_outlook: SteadyOutlook) -> Choice:
    text = (
        _("{days}, {share}%").format(
            days=words.count(round(steady_outlook.days), "day", "days"), share=f"{100 * steady_outlook.share:.0f}"
        )
        if steady_outlook.days < 400
        else _("would not come up")
    )
    costs = []
    if 0.5 <= steady_outlook.cost_days < 400:
        later = words.count(max(round(steady_outlook.cost_days), 1), "day", "days")
        costs.append(_("{days} later").format(days=later))
    if steady_outlook.cost_share >= 0.02:
        costs.append(_("{cost_share}% fewer").format(cost_share=f"{100 * steady_outlook.cost_share:.0f}"))
    cost = _("{join} than in soil just inside the ideal range").format(join=words.listed(costs)) if costs else ""
    return Choice(steady_outlook.crop.key, steady_outlook.crop.name, text, cost)


def _picture(warmth: list[Warmth], chosen: Warmth, grown: list[Crop], units: Units) -> wakes.Wakes:
    steady_outlooks = {v.crop.key: v for v in crops.steady_outlooks(chosen.day_c, grown)}
    shapes = [
        wakes.CropShape(
            speed.crop.key,
            speed.crop.name,
            speed.soil_c,
            speed.pace,
            (speed.crop.optimum_from_c, speed.crop.optimum_to_c),
            _row_words(steady_outlooks[speed.crop.key]),
            steady_outlooks[speed.crop.key].readiness.name.lower(),
        )
        for speed in crops.speeds(wakes.LOW_C, wakes.HIGH_C, grown)
    ]
    beds = [
        wakes.BedLine(s.day_c, s.later_c, f"{s.place.name} {units.temperature_text(s.day_c, 0)}", s is chosen) for s in warmth
    ]
    if units.temperature == "C":
        ticks = [Tick(t, f"{t}°") for t in range(0, 41, 5)]
    else:
        ticks = [Tick(units.celsius(t), f"{t}°") for t in range(30, 105, 10)]
    return wakes.wakes(shapes, beds, ticks)


def _row_words(steady_outlook: SteadyOutlook) -> str:
    if steady_outlook.days >= 400:
        return _("too hot") if steady_outlook.readiness is Readiness.TOO_HOT else _("too cold")
    if steady_outlook.readiness is Readiness.ASLEEP:
        return _("too cold")
    return _("{days} d, {share}%").format(days=f"{steady_outlook.days:.0f}", share=f"{100 * steady_outlook.share:.0f}")
