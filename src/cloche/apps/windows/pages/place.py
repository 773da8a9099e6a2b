"""A place: how warm it is, where it is going, how well it is known, and what would come up in it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Place
from cloche.apps.readings import selectors as measured
from cloche.apps.windows import selectors
from cloche.apps.windows.models import CropOutlook
from cloche.apps.windows.selectors import Ground
from cloche.bridge import crops
from cloche.bridge.units import Units
from cloche.drawing import course, ribbon
from cloche.drawing.geometry import Tick
from cloche.drawing.ribbon import Calendar, Ribbon

SPAN_D = 240
TREND_K = 0.7
DEPTH_LABELS_M = (0.05, 0.10, 0.20, 0.40)
DEPTH_LABELS_IN = (2, 4, 8, 16)


@dataclass(frozen=True)
class GroundPicture:
    """The two drawings that share a time axis."""

    field: course.Field
    course: course.Course


@dataclass(frozen=True)
class Knowledge:
    """How well Cloche knows the place, in sentences."""

    headline: str
    rests_on: str
    weather: str
    strange: str


@dataclass(frozen=True)
class CropLine:
    """A crop's row: words for its window and its ribbon."""

    key: str
    name: str
    when: str
    note: str
    open_now: bool
    ribbon: Ribbon


@dataclass(frozen=True)
class GroundPart:
    """Context of windows/_ground.html."""

    headline: str
    sub: str
    picture: GroundPicture | None
    knowledge: Knowledge | None
    stale: bool
    made: str


@dataclass(frozen=True)
class CropPart:
    """Context of windows/_crops.html."""

    lines: list[CropLine]
    later: list[CropLine]
    calendar: Calendar


def ground_part(place: Place, units: Units, now: datetime) -> GroundPart:
    """Heading, drawings and knowledge."""
    timezone = place.garden.timezone
    local = now.astimezone(timezone)
    what = f"{words.sentence(place.get_kind_display())} · probe at {units.length_text(place.seed_depth_m)}"
    ground = selectors.ground_of(place)
    if ground is None:
        headline = f"{place.name} is being worked out for the first time."
        return GroundPart(headline, what, None, None, True, "")
    made = ground.forecast.made_at.astimezone(timezone)
    return GroundPart(
        headline=headline_of(ground, units, now),
        sub=f"{what} · {words.weekday(local.date())}",
        picture=picture_of(ground, units, local),
        knowledge=knowledge_of(ground, units),
        stale=ground.stale(local.date()),
        made=f"{words.clock(made)}, {words.day(made.date(), local.date())}",
    )


def headline_of(ground: Ground, units: Units, now: datetime) -> str:
    """North bed is at 8.4° and warming: about 10° in a week."""
    mean, later = ground.day_mean(now), ground.mean_in(7)
    at = f"{ground.place.name} stands at {units.temperature_text(mean)} at seed depth"
    about = f"about {units.temperature_text(later, 0)} in a week"
    if later - mean > TREND_K:
        return f"{at} and is warming: {about}."
    if later - mean < -TREND_K:
        return f"{at} and is cooling: {about}."
    return f"{at} and stays near it this week."


def picture_of(ground: Ground, units: Units, local: datetime) -> GroundPicture:
    """Three weeks back, a fortnight on."""
    data = ground.data
    span = course.Span(ground.start, ground.end, local)
    field = course.field(data["field_c"], data["field_depths_m"], _depth_ticks(units), span)
    scaled = [[units.temperature_from_c(v) for v in data[f"near_{side}_c"]] for side in ("low", "mid", "high")]
    readings = [_point(reading, ground, units) for reading in measured.points_between(ground.place, span.start, local)]
    return GroundPicture(field, course.course(course.Hours(*scaled), readings, span))


def _point(reading, ground: Ground, units: Units) -> tuple[datetime, float, str, bool, bool]:  # type: ignore[no-untyped-def]
    local = reading.taken_at.astimezone(ground.place.garden.timezone)
    at_seed_depth = abs(reading.depth_m - ground.place.seed_depth_m) < 0.011
    said = f"{units.temperature_text(reading.temperature_c)} at {units.length_text(reading.depth_m)}, "
    said += f"{words.day(local.date())} {words.clock(local)}"
    strange = str(reading.pk) in ground.data["strange"]
    return local, units.temperature_from_c(reading.temperature_c), said, at_seed_depth, strange


def _depth_ticks(units: Units) -> list[Tick]:
    if units.length == "cm":
        return [Tick(m, f"{m * 100:.0f} cm") for m in DEPTH_LABELS_M]
    return [Tick(units.metres(inches), f"{inches} in") for inches in DEPTH_LABELS_IN]


def knowledge_of(ground: Ground, units: Units) -> Knowledge:
    """Sentences with the figures they rest on."""
    data = ground.data
    week, fortnight = (units.difference_text(data["band_k"][day]) for day in ("7", "14"))
    readings = data["readings_used"]
    if readings == 0:
        headline = "No readings yet: this is what a place of its kind usually does."
    elif readings < 8:
        headline = "Just getting to know it: four or five more days of two readings will narrow the band."
    else:
        headline = f"Known to about ±{units.difference_text(data['band_k']['1'])} for tomorrow."
    rests = f"Eight times in ten the day’s mean lies within ±{week} a week ahead and ±{fortnight} in a fortnight. "
    rests += f"It rests on {words.count(readings, 'reading')} of the last two months"
    rests += f" and on the air of {words.count(data['weather_days'], 'day')} of the last fifteen."
    return Knowledge(headline, rests, _normals_words(data), _strange_words(data))


def _normals_words(data: dict) -> str:  # type: ignore[type-arg]
    sources = {
        "typed": "Beyond the days whose air is known it follows the monthly normals typed in for this garden.",
        "record": "Beyond the days whose air is known it follows this garden’s own weather record.",
        "guess": "Beyond the days whose air is known it follows a rough guess from the latitude: "
        "type in monthly normals, or bring in a year of daily lows and highs, and it will be surer.",
    }
    return sources[data["normals_source"]]


def _strange_words(data: dict) -> str:  # type: ignore[type-arg]
    number = len(data["strange"])
    if not number:
        return ""
    verb, kept = ("stands", "It is kept and counts") if number == 1 else ("stand", "They are kept and count")
    asked = f"{words.count(number, 'reading')} {verb} far from the rest (ringed)."
    asked += " Had the probe settled, at that depth, in the soil?"
    return f"{asked} {kept} for little."


def crop_part(place: Place, today: date) -> CropPart:
    """Every crop that can be sown in place, open windows first, then by first day."""
    lines = [
        (_order(outlook), crop_line(outlook, today))
        for outlook in selectors.outlooks_at(place)
        if crops.crop(outlook.crop_key).sown_direct
    ]
    lines.sort(key=lambda pair: pair[0])
    shown = [line for order, line in lines if order[0] < 2]
    return CropPart(shown, [line for order, line in lines if order[0] == 2], ribbon.calendar(today, SPAN_D))


def _order(outlook: CropOutlook) -> tuple[int, str, str]:
    if not outlook.windows:
        return 2, "", outlook.crop_key
    return (0 if outlook.sow_now else 1), outlook.windows[0]["earliest"], outlook.crop_key


def crop_line(outlook: CropOutlook, today: date) -> CropLine:
    """One crop in words: today to 3 July."""
    crop = crops.crop(outlook.crop_key)
    when, note = window_words(outlook, today)
    data = outlook.ribbon
    days = [day for day in data["day"] if day <= SPAN_D]
    drawn = ribbon.ribbon(days, data["success"][: len(days)], data["soil_c"][: len(days)], SPAN_D)
    return CropLine(crop.key, crop.name, when, note, outlook.sow_now, drawn)


def open_span(window: dict[str, Any], today: date) -> str:
    """9 April to 3 July; from 9 April, where the end lies beyond the days looked at."""
    start, last = (date.fromisoformat(window[key]) for key in ("earliest", "last"))
    if window["open_ended"]:
        return "from today on" if start == today else f"from {words.day(start, today)} on"
    return words.span(start, last, today)


def window_words(outlook: CropOutlook, today: date) -> tuple[str, str]:
    """When, and the note beneath: best days, or what stands in the way."""
    if not outlook.windows:
        return "no sure window", outlook.main_limit
    first = outlook.windows[0]
    when = open_span(first, today)
    best = words.span(date.fromisoformat(first["best_from"]), date.fromisoformat(first["best_to"]), today)
    note = f"best {best}" if best != when and not first["open_ended"] else ""
    if len(outlook.windows) > 1:
        again = date.fromisoformat(outlook.windows[1]["earliest"])
        note = f"{note}; again from {words.day(again, today)}".lstrip("; ")
    return when, note
