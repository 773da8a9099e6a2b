"""A crop in a place: when to sow, what would come of a chosen day, and why."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Place
from cloche.apps.windows.models import CropOutlook
from cloche.apps.windows.pages.place import SPAN_D, window_words
from cloche.bridge import crops
from cloche.bridge.crops import Crop, Packet
from cloche.bridge.layout import FRACTIONS, HALF, MEMBERS
from cloche.bridge.units import Units
from cloche.drawing import emergence, ribbon
from cloche.drawing.ribbon import Calendar, Mark, Ribbon

SLIDER_D = 270


@dataclass(frozen=True)
class Fact:
    """A value that can be opened: what, how much, from where."""

    what: str
    value: str
    source: str


@dataclass(frozen=True)
class CropPage:
    """The standing part of the page."""

    headline: str
    sub: str
    ribbon: Ribbon
    calendar: Calendar
    marks: list[Mark]
    why: list[str]
    facts: list[Fact]


@dataclass(frozen=True)
class Sowing:
    """What would come of sowing on one day."""

    on: date
    offset: int
    said: str
    soil: str
    risk: str
    picture: emergence.Emergence | None
    rows: list[tuple[str, str]]
    share: float


def crop_page(place: Place, outlook: CropOutlook, units: Units, today: date, packet: Packet | None = None) -> CropPage:
    """Everything but the chosen day."""
    crop = crops.crop(outlook.crop_key)
    data = outlook.ribbon
    days = [day for day in data["day"] if day <= SPAN_D]
    drawn = ribbon.ribbon(days, data["success"][: len(days)], data["soil_c"][: len(days)], SPAN_D)
    ends = [(key, date.fromisoformat(window[key])) for window in outlook.windows[:1] for key in _ends(window)]
    marks = [ribbon.mark(today, on, f"{key} {words.day(on)}", SPAN_D) for key, on in ends if (on - today).days <= SPAN_D]
    return CropPage(
        headline=_headline(crop, place, outlook, today),
        sub=f"{crop.botanical_name} · {_put(crop)[1]} {units.length_text(crop.sowing_depth_m)} deep · {_method(crop)}",
        ribbon=drawn,
        calendar=ribbon.calendar(today, SPAN_D),
        marks=marks,
        why=_why(crop, outlook, today),
        facts=_facts(crops.by_packet(crop, packet), units),
    )


def _headline(crop: Crop, place: Place, outlook: CropOutlook, today: date) -> str:
    name = words.sentence(crop.name_plural)
    if not outlook.windows:
        return f"{name} in {place.name}: no day in sight is sure enough; mostly, {_limit(outlook.main_limit)}."
    when, note = window_words(outlook, today)
    first = outlook.windows[0]
    if outlook.sow_now and not first["open_ended"]:
        when = f"now, until {words.day(date.fromisoformat(first['last']), today)}"
    elif not first["open_ended"]:
        when = f"from {when}"
    return f"{name} in {place.name}: {_put(crop)[0]} {when}{', ' + note if note else ''}."


def _ends(window: dict[str, Any]) -> tuple[str, ...]:
    return ("earliest",) if window["open_ended"] else ("earliest", "last")


def _method(crop: Crop) -> str:
    methods = {"direct": "sown in place", "raised": "usually raised and planted out", "either": "sown in place or raised"}
    return methods.get(crop.method, f"planted as {crop.start}s, not sown")


def _put(crop: Crop) -> tuple[str, str, str]:
    """What one does with it, has done, and calls it."""
    return ("sow", "sown", "sowing") if crop.start == "seed" else ("plant", "planted", "planting")


def _limit(limit: str) -> str:
    sentences = {
        "soil too cold": "the soil is too cold: it would lie too long or too little of it come up",
        "soil too hot": "the soil is too hot for it",
        "frost after emergence": "frost would catch what is up",
        "too little season left": "too little of the season is left to ripen",
        "hot days before harvest": "it would have to ripen in too hot days",
    }
    return sentences[limit]


def _why(crop: Crop, outlook: CropOutlook, today: date) -> list[str]:
    lines = []
    for window in outlook.windows:
        start, last = date.fromisoformat(window["earliest"]), date.fromisoformat(window["last"])
        if window["opens_after"]:
            lines.append(f"Before {words.day(start, today)} {_limit(window['opens_after'])}.")
        if window["closes_before"]:
            lines.append(f"After {words.day(last, today)} {_limit(window['closes_before'])}.")
        sure = words.likely(window["probability"])
        lines.append(f"Between the two a {_put(crop)[2]} succeeds {sure}, over {MEMBERS} courses that the weather may take.")
    lies = round(float(crops.longest_lie_d(crop)))
    lines.append(
        f"A {_put(crop)[2]} counts as a success when half of what comes up is up within {lies} days, at least half of what "
        f"lives comes up, no night in the three weeks after kills it, and {crop.maturity_d:.0f} days to harvest still fit."
    )
    return lines


def _facts(crop: Crop, units: Units) -> list[Fact]:
    def degrees(value_c: float) -> str:
        return f"{units.temperature_text(value_c, 0)}{units.temperature}"

    facts = [
        Fact("Wakes at", degrees(crop.minimum_c), crop.advice_source),
        Fact("Likes", f"{degrees(crop.optimum_from_c)} to {degrees(crop.optimum_to_c)}", crop.advice_source),
        Fact("Stops above", degrees(crop.maximum_c), crop.advice_source),
        *_emergence_facts(crop, units),
        Fact(
            "Stands",
            f"rows {units.length_text(crop.row_m)} apart, {units.length_text(crop.plant_m)} in the row",
            crop.growing_source,
        ),
        Fact("Stands frost to", degrees(crop.frost_limit_c), crop.growing_source),
        Fact("Ready", f"about {crop.maturity_d:.0f} days after it is up", crop.growing_source),
    ]
    if crop.raise_weeks:
        facts.append(
            Fact("Raised", f"{crop.raise_weeks:.0f} weeks from sowing to planting out, where one does", crop.growing_source)
        )
    if crop.heat_sum:
        by_sum = ", ".join(
            f"{crop.heat_sum.days_at(t):.0f} at {degrees(t)}" for t in (10.0, 15.0, 20.0) if t > crop.heat_sum.base_c + 1
        )
        facts.insert(4, Fact("By a second source", f"{by_sum} days", crop.heat_sum_source))
    return facts


def _emergence_facts(crop: Crop, units: Units) -> list[Fact]:
    if crop.start != "seed":
        return [
            Fact(
                "Days to shoots", f"{crops.days_to_emergence(crop.optimum_c, crop):.0f} in soil that suits it", crop.rate_source
            )
        ]
    return [
        Fact("Days to come up", _table_words(crop, units), crop.rate_source),
        Fact("Garden soil against laboratory", f"{crops.FIELD_FACTOR:g} times as long", "assumption"),
        Fact("Share that comes up", "by temperature, against its best", crop.share_source),
    ]


def _table_words(crop: Crop, units: Units) -> str:
    days = crops.days_to_emergence([5.0, 10.0, 15.0, 20.0, 25.0], crop, 1.0)
    shown = [
        f"{d:.0f} at {units.temperature_text(t, 0)}"
        for t, d in zip((5.0, 10.0, 15.0, 20.0, 25.0), days, strict=True)
        if d < 400
    ]
    return f"{', '.join(shown)} in the laboratory"


def sowing(outlook: CropOutlook, units: Units, today: date, offset: int) -> Sowing:
    """The candidate day nearest to `offset` days from today."""
    data = outlook.days
    # The outlook may be of yesterday: its days count from the day it was made for.
    index = min(range(len(data["day"])), key=lambda i: abs(data["day"][i] - offset))
    offset = data["day"][index]
    on = today + timedelta(days=offset)
    days_to = [[band[index] for band in fraction] for fraction in data["days_to"]]
    share = [band[index] for band in data["share"]]
    soil = f"Soil about {units.temperature_text(data['soil_c'][index])} in the week after."
    picture = emergence.emergence(on, FRACTIONS, days_to, share)
    crop = crops.crop(outlook.crop_key)
    said = _said(crop, on, days_to, share, today)
    return Sowing(on, offset, said, soil, _risk(data, index), picture, _rows(crop, on, days_to, share), share[1])


def _said(crop: Crop, on: date, days_to: list[list[Any]], share: list[float], today: date) -> str:
    sown = f"{words.sentence(_put(crop)[1])} {'today' if on == today else 'on ' + words.day(on, today)}"
    early, half, late = days_to[HALF]
    if half is None:
        return f"{sown}, it would most likely not come up."
    middle = on + timedelta(days=round(half))
    sure = f"{words.day(on + timedelta(days=round(early)))}"
    until = f"to {words.day(on + timedelta(days=round(late)))}" if late is not None else "or much later"
    end = f", {100 * share[1]:.0f} of 100 live seeds in the end" if crop.start == "seed" else ""
    return f"{sown}, half of it is up by {words.day(middle)} ({sure} {until}){end}."


def _risk(data: dict[str, Any], index: int) -> str:
    limit, chance = max(data["failing"].items(), key=lambda item: item[1][index])
    if chance[index] < 0.05:
        return "Nothing much stands against it."
    return f"It fails {words.likely(chance[index])} because {_limit(limit)}."


def _rows(crop: Crop, on: date, days_to: list[list[Any]], share: list[float]) -> list[tuple[str, str]]:
    rows = []
    for index, label in ((0, "the first"), (HALF, "half of them"), (len(FRACTIONS) - 1, "nearly all")):
        quick, middle, slow = days_to[index]
        if middle is not None:
            until = f"{slow:.0f}" if slow is not None else "∞"
            rows.append((label, f"{words.day(on + timedelta(days=round(middle)))} · {middle:.0f} days ({quick:.0f}–{until})"))
    if crop.start == "seed":
        rows.append(("of 100 live seeds", f"{100 * share[1]:.0f} ({100 * share[0]:.0f}–{100 * share[2]:.0f})"))
    return rows


def chosen_offset(in_days: str, sow: str, outlook: CropOutlook, today: date) -> int:
    """Days from today to show: the slider's, a date in the address, else the best day of the first window."""
    if in_days.isdigit():
        return int(in_days)
    try:
        return (date.fromisoformat(sow) - today).days
    except ValueError:
        pass  # no or no proper date in the address: the default below is the answer
    if outlook.windows:
        start = outlook.windows[0]["earliest" if outlook.sow_now else "best_from"]
        return max(0, (date.fromisoformat(start) - today).days)
    return 0
