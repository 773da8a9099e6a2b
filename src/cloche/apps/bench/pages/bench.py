"""The bench as it stands: each room with its trays, what is due, and light against warmth."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime

from django.utils.translation import gettext as _

from cloche.apps.bench import selectors as climates
from cloche.apps.bench import texts
from cloche.apps.bench.life import Life, days_up, lives_in
from cloche.apps.bench.selectors import Climate, climate_of, heat_on, hotbed_below, lamps_on, raised_on
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, Place
from cloche.apps.shared import words
from cloche.apps.windows.pages.ground import warmth_in
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing import bench as drawing
from cloche_engine.light.habit import Habit, wanted_mol
from cloche_engine.places.kinds import INDOORS
from cloche_engine.windows.raised_life import Due

AHEAD_D = 21
FULL_HEIGHT_D = 35
"""Days from emergence to a seedling as tall as it is drawn."""
MOLS, WARMTHS_C = (0, 5, 10, 15), (5.0, 10.0, 15.0, 20.0, 25.0)
FEWEST_DOTS = 1
SHOWS = 0.3
"""From such a share up on they are seedlings rather than seed."""
SPOILT = (Habit.LEGGY, Habit.STARVED)
LEANS = {Habit.LEGGY: 1.0, Habit.STARVED: 1.0, Habit.SOFT: 0.4}


@dataclass(frozen=True)
class SownLine:
    """A sowing in a tray. `warn` is what threatens it, empty if nothing does; `bad` means it would be spoilt."""

    pk: int
    name: str
    text: str
    warn: str
    bad: bool


@dataclass(frozen=True)
class TrayLine:
    """A tray as a drawing and a few lines."""

    place: Place
    tray: drawing.Tray | None
    number: str
    sown: list[SownLine]
    heat: str
    light: str


@dataclass(frozen=True)
class RoomLine:
    """A room with its trays; `air` is its temperature."""

    name: str
    air: str
    trays: list[TrayLine]


@dataclass(frozen=True)
class Move:
    """A due step: when, what, and whether now."""

    when: str
    text: str
    now: bool
    sowing: int


@dataclass(frozen=True)
class BenchPage:
    """Context of bench/bench.html."""

    headline: str
    rooms: list[RoomLine]
    moves: list[Move]
    picture: drawing.LightWarmth | None
    picture_says: str


def bench_page(garden: Garden, units: Units, now: datetime) -> BenchPage:
    """Return the page of all places for raising plants."""
    today = now.astimezone(garden.timezone).date()
    places = list(raised_on(garden).select_related("room", "garden", "forecast"))
    grounds: list[tuple[Place, Ground | None]] = [(place, _ground(place)) for place in places]
    warm = {warmth.place.pk: warmth.day_c for warmth in warmth_in(garden, grounds, now)}
    climate = {place.pk: climate_of(ground) for place, ground in grounds if ground is not None}
    lives = lives_in(garden, today)
    trays = [_tray(place, warm.get(place.pk), climate.get(place.pk), lives, units, today) for place in places]
    moves = moves_of(lives, units, today)
    picture, says = _picture(lives, climate, units)
    return BenchPage(_headline(lives, moves, trays), _by_room(trays, climate, units, today), moves, picture, says)


def _ground(place: Place) -> Ground | None:
    forecast = getattr(place, "forecast", None)
    return Ground(place, forecast) if forecast and forecast.ground else None


def moves_of(lives: list[Life], units: Units, today: date) -> list[Move]:
    """Return the steps due in the coming weeks, the earliest first."""
    due = sorted((on, life.sowing.pk, what, life) for life in lives for what, on in life.due)
    return [
        Move(
            texts.when(on, today),
            texts.placed(life, texts.due_text(life, what, on, today, units)),
            on <= today,
            life.sowing.pk,
        )
        for on, _pk, what, life in due
        if (on - today).days <= AHEAD_D
    ]


def _headline(lives: list[Life], moves: list[Move], trays: list[TrayLine]) -> str:
    warned = next((line.warn for tray in trays for line in tray.sown if line.warn and line.bad), "")
    if moves:
        first = moves[0].text if moves[0].now else _("{when}: {text}").format(when=moves[0].when, text=moves[0].text)
        return f"{first} {warned}".strip()
    if warned:
        return warned
    if not lives:
        return _("Nothing is being raised at the moment.")
    return _("Nothing on the bench needs you today.")


def _tray(place: Place, day_c: float | None, climate: Climate | None, lives: list[Life], units: Units, today: date) -> TrayLine:
    mine = [life for life in lives if life.sowing.place_id == place.pk]
    period, lamps = heat_on(place, today), lamps_on(place, today)
    habits = [climates.habit(climate, life.crop) if climate else None for life in mine]
    drawn = None
    if day_c is not None:
        drawn = drawing.tray(
            day_c,
            [_stand(life, habit, today) for life, habit in zip(mine, habits, strict=True)],
            _heat_drawn(place, period),
            1 - min(lamps[0].away_m / 0.6, 1.0) if lamps else None,
            [(float(start), float(end)) for lamp in lamps for start, end in lamp.spans],
            place.window_aspect_deg is not None,
        )
    return TrayLine(
        place=place,
        tray=drawn,
        number="" if day_c is None else units.temperature_text(day_c),
        sown=[_sown(life, habit, climate, units, today) for life, habit in zip(mine, habits, strict=True)],
        heat=_heat_line(place, climate, units, today),
        light=texts.light_text(climate) if climate and climate.mol is not None else "",
    )


def _heat_drawn(place: Place, period: HeatPeriod | None) -> str:
    """Return the kind of heat to draw."""
    usual = {"mat": "mat", "cable": "cable", "box": "cable", "hotbed": "hotbed"}
    return period.source if period else usual.get(place.kind, "")


def _heat_line(place: Place, climate: Climate | None, units: Units, today: date) -> str:
    period = heat_on(place, today)
    what = texts.heat_text(period, units) + "." if period else ""
    does = texts.heat_does(climate, units, place.garden.price_kwh) if climate else ""
    return f"{what} {does}".strip()


def _stand(life: Life, habit: Habit | None, today: date) -> drawing.Stand:
    up = days_up(life, today)
    return drawing.Stand(1.0, life.up, min(up / FULL_HEIGHT_D, 1.0), LEANS.get(habit, 0.0) if habit else 0.0)


def _sown(life: Life, habit: Habit | None, climate: Climate | None, units: Units, today: date) -> SownLine:
    sowing, counts = life.sowing, list(life.sowing.counts.all())
    parts = []
    if counts and sowing.seeds:
        parts.append(_("{up} of {seeds} up").format(up=counts[-1].up, seeds=sowing.seeds))
    elif counts:
        parts.append(_("{up} up").format(up=counts[-1].up))
    elif life.raised.half_on and life.raised.half_on > today:
        parts.append(_("half up by {day}").format(day=words.day(life.raised.half_on, today)))
    else:
        parts.append(_("sown on {day}").format(day=words.day(sowing.sown_on, today)))
    warn = texts.habit_text(life.crop, climate, habit, units) if climate and life.up >= SHOWS else ""
    return SownLine(sowing.pk, life.crop.name_plural, ", ".join(parts), warn, habit in SPOILT)


def _by_room(trays: list[TrayLine], climate: dict[int, Climate], units: Units, today: date) -> list[RoomLine]:
    groups: dict[str, list[TrayLine]] = {}
    for line in sorted(trays, key=lambda line: line.place.kind not in INDOORS):
        groups.setdefault(room_name(line.place, today), []).append(line)
    return [RoomLine(name, _air(lines, climate, units), lines) for name, lines in groups.items()]


def room_name(place: Place, today: date) -> str:
    """Return where a place stands, in words."""
    hotbed = hotbed_below(place, today)
    if hotbed is not None:
        return _("On {hotbed}").format(hotbed=hotbed.name)
    if place.within:
        return words.sentence(str(Place.House(place.within).label))
    if place.kind in INDOORS:
        return place.room.name if place.room else _("A usual room")
    return _("Outdoors")


def _air(lines: list[TrayLine], climate: dict[int, Climate], units: Units) -> str:
    known = [climate[line.place.pk].air_c for line in lines if line.place.pk in climate]
    if not known or not (lines[0].place.within or lines[0].place.kind in INDOORS):
        return ""
    return _("about {air} over the coming week").format(air=units.temperature_text(sum(known) / len(known), 0))


def _picture(lives: list[Life], climate: dict[int, Climate], units: Units) -> tuple[drawing.LightWarmth | None, str]:
    dots = []
    for life in lives:
        known = climate.get(life.sowing.place_id)
        if known is not None and known.mol is not None and life.up >= SHOWS:
            habit = climates.habit(known, life.crop)
            dots.append((climates.leaves_c(known), known.mol, life.crop.name_plural, habit in SPOILT))
    if len(dots) < FEWEST_DOTS:
        return None, ""
    edge = [(float(c), wanted_mol(float(c), "cool")) for c in range(4, 31, 2)]
    marks = [(c, units.temperature_text(c, 0)) for c in WARMTHS_C]
    picture = drawing.light_warmth(dots, edge, marks, [(float(mol), f"{mol}") for mol in MOLS])
    listed = [
        _("{name}: {mol} mol/m² a day at {warm}").format(
            name=name, mol=number_text(f"{mol:.1f}"), warm=units.temperature_text(c, 0)
        )
        for c, mol, name, _leggy in dots
    ]
    return picture, "; ".join(listed)


def mixed(lives: list[Life], place: Place, today: date) -> list[str]:
    """Return for a tray with several crops which one leaves the heat when."""
    off = [(life.on(Due.HEAT_OFF), life.crop.name_plural) for life in lives if life.sowing.place_id == place.pk]
    known = sorted((day, name) for day, name in off if day is not None)
    if len(known) < 2 or known[0][0] == known[-1][0]:
        return []
    return [_("{name}: {day}").format(name=words.sentence(name), day=words.day(day, today)) for day, name in known]
