"""What wakes: all crops against the temperatures of all beds, read closely for one of them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Garden, Place
from cloche.apps.gardens.packets import values_in_use
from cloche.apps.readings import selectors as measured
from cloche.apps.windows import selectors
from cloche.apps.windows.pages.ground import Grounds
from cloche.apps.windows.selectors import Ground
from cloche.bridge import crops
from cloche.bridge.crops import Crop, Readiness, Verdict
from cloche.bridge.units import Units
from cloche.drawing import wakes
from cloche.drawing.geometry import Tick


@dataclass(frozen=True)
class Choice:
    """A crop that could go in, in words."""

    key: str
    name: str
    words: str
    cost: str


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


@dataclass(frozen=True)
class Standing:
    """A place's soil now: the day's figure if it was read early and late, else the estimate [°C]."""

    place: Place
    now_c: float
    later_c: float
    measured: bool


def standings(garden: Garden, grounds: Grounds, now: datetime) -> list[Standing]:
    """Every place that has a forecast, in walking order; grounds from selectors.grounds_in."""
    figures = measured.day_figures(garden, now)
    found = []
    for place, ground in grounds:
        if ground is not None:
            found.append(_standing(place, ground, figures.get(place.pk), now))
    return found


def _standing(place: Place, ground: Ground, figure: float | None, now: datetime) -> Standing:
    now_c = figure if figure is not None else ground.day_mean(now)
    return Standing(place, now_c, ground.mean_in(13), figure is not None)


def wakes_page(garden: Garden, units: Units, now: datetime, place_id: int | None) -> WakesPage:
    """The page read for one place, by default the first of the walk."""
    found = standings(garden, selectors.grounds_in(garden), now)
    chosen = next((s for s in found if s.place.pk == place_id), found[0] if found else None)
    if chosen is None:
        headline = "What wakes will show every crop against the warmth of your beds."
        return WakesPage(headline, "", [], None, None, [], [])
    grown = crops.chosen(garden.crops, values_in_use(garden))
    comfortable = [_choice(v) for v in crops.comfortable(chosen.now_c, grown)]
    minimum = [_choice(v) for v in crops.at_minimum(chosen.now_c, grown)]
    how = "measured, the mean of the last early and late reading" if chosen.measured else "estimated"
    return WakesPage(
        headline=_headline(chosen, comfortable),
        sub=f"{_stands(chosen, units)} at seed depth, {how}. Frost above the ground is not counted here.",
        places=[(s.place, s is chosen) for s in found],
        chosen=chosen.place,
        picture=_picture(found, chosen, grown, units),
        comfortable=comfortable,
        at_minimum=minimum,
    )


def _headline(chosen: Standing, comfortable: list[Choice]) -> str:
    names = [crops.crop(choice.key).name_plural for choice in comfortable]
    if not names:
        return f"Nothing is comfortable in {chosen.place.name} yet."
    return f"{words.sentence(words.listed(names, 5))} would be comfortable in {chosen.place.name} now."


def _stands(chosen: Standing, units: Units) -> str:
    return f"{chosen.place.name} stands at {units.temperature_text(chosen.now_c)}"


def _choice(verdict: Verdict) -> Choice:
    said = f"{verdict.days:.0f} days, {100 * verdict.share:.0f} of 100" if verdict.days < 400 else "would not come up"
    costs = []
    if 0.5 <= verdict.cost_days < 400:
        costs.append(f"{verdict.cost_days:.0f} days later")
    if verdict.cost_share >= 0.02:
        costs.append(f"{100 * verdict.cost_share:.0f} of 100 fewer")
    cost = f"{' and '.join(costs)} than in soil just inside its range" if costs else ""
    return Choice(verdict.crop.key, verdict.crop.name, said, cost)


def _picture(found: list[Standing], chosen: Standing, grown: list[Crop], units: Units) -> wakes.Wakes:
    verdicts = {v.crop.key: v for v in crops.verdicts(chosen.now_c, grown)}
    shapes = [
        wakes.CropShape(
            speed.crop.key,
            speed.crop.name,
            speed.soil_c,
            speed.pace,
            (speed.crop.optimum_from_c, speed.crop.optimum_to_c),
            _row_words(verdicts[speed.crop.key]),
            verdicts[speed.crop.key].readiness.name.lower(),
        )
        for speed in crops.speeds(wakes.LOW_C, wakes.HIGH_C, grown)
    ]
    beds = [
        wakes.BedLine(s.now_c, s.later_c, f"{s.place.name} {units.temperature_text(s.now_c, 0)}", s is chosen) for s in found
    ]
    if units.temperature == "C":
        ticks = [Tick(t, f"{t}°") for t in range(0, 41, 5)]
    else:
        ticks = [Tick(units.celsius(t), f"{t}°") for t in range(30, 105, 10)]
    return wakes.wakes(shapes, beds, ticks)


def _row_words(verdict: Verdict) -> str:
    if verdict.days >= 400:
        return "too hot" if verdict.readiness is Readiness.TOO_HOT else "asleep"
    if verdict.readiness is Readiness.ASLEEP:
        return "asleep"
    return f"{verdict.days:.0f} d, {100 * verdict.share:.0f} of 100"
