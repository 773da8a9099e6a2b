"""After a frost: what the night did to each sowing that was up, what to look for, and until when sowing again is sensible."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any

from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.windows.pages.warmth import Grounds
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units

ORDER = ("lost", "regrows", "marked", "unhurt")
SAID = {
    "lost": "most likely lost",
    "regrows": "cut down, and most likely comes again",
    "marked": "marked, and most likely lives",
    "unhurt": "unhurt",
}
LOOK = {
    "lost": "Leaves hang glassy by noon and are black or straw-coloured a day later; the stem is soft at the soil. Give it two "
    "mild days before you dig: a firm green stem or heart means that it lives.",
    "marked": "Edges and the youngest leaves go glassy, then pale or brown within two days; the heart stays green. "
    "Leave it be.",
    "unhurt": "Leaves may hang until noon; there is nothing to do.",
}
COMES_AGAIN = {
    "growing point below ground": "The leaves go; scratch at the stem: where it is firm and green below the soil it shoots "
    "again within a week or two.",
    "shoots again": "The shoots turn black; new ones come in some twelve days. Leave them in the ground.",
}


@dataclass(frozen=True)
class AfterLine:
    """One sowing. harm: one of ORDER; text: what happened; look: for what; again: until when sowing again is sensible."""

    place: str
    place_pk: int
    name: str
    harm: str
    text: str
    look: str
    again: str


@dataclass(frozen=True)
class AfterPage:
    """Context of today/after.html."""

    headline: str
    sub: str
    lines: list[AfterLine]


def after_page(garden: Garden, units: Units, today: date) -> AfterPage:
    """All sowings that were up in a night that was cold enough, the worst hurt first."""
    lines = after_lines(garden, windows.grounds_in(garden), units, today)
    return AfterPage(headline_of(lines), _sub(lines), lines)


def after_lines(garden: Garden, grounds: Grounds, units: Units, today: date) -> list[AfterLine]:
    """A line each; the one source for the page and for Today's job."""
    cold = [(place, one) for place, ground in grounds for one in _hurt(ground.forecast.watch if ground else {}, today)]
    again = _again(garden, {place.pk for place, _ in cold}) if cold else {}
    found = [_line(one, place, units, today, again.get((place.pk, one["crop_key"]), [])) for place, one in cold]
    return sorted(found, key=lambda line: (ORDER.index(line.harm), line.place, line.name))


def _hurt(watch: dict[str, Any], today: date) -> Iterator[dict[str, Any]]:
    for one in watch.get("after", []):
        if (today - date.fromisoformat(one["morning"])).days <= 3:
            yield one


def headline_of(lines: list[AfterLine]) -> str:
    """How it went, in a sentence."""
    if not lines:
        return "No frost has reached what is up in the last nights."
    counts = [(harm, [line for line in lines if line.harm == harm]) for harm in ORDER]
    parts = [f"{words.count(len(of), 'sowing')} {SAID[harm].partition(',')[0]}" for harm, of in counts if of]
    return f"After the frost: {words.listed(parts, 4)}."


def _sub(lines: list[AfterLine]) -> str:
    if not lines:
        return "What frost does to a crop depends on its stage; after a cold night each sowing stands here."
    return "By the cold that plants felt where they stand, at their stage. What you see counts more: look before you act."


def _line(one: dict[str, Any], place: Place, units: Units, today: date, windows_: list[dict[str, Any]]) -> AfterLine:
    crop = crops.crop(one["crop_key"])
    low, middle, high = (units.temperature_text(value) for value in one["felt_c"])
    stage = "seedlings" if one["stage"] == "seedlings" else "grown plants"
    stands = f"; {stage} stand {units.temperature_text(one['limit_c'])}" if one["limit_c"] is not None else ""
    sure = f" ({words.likely(one['chance'])})" if one["harm"] != "unhurt" and one["chance"] < 0.95 else ""
    text = f"{words.sentence(SAID[one['harm']])}{sure}: about {middle} among them ({low} to {high}){stands}."
    look = COMES_AGAIN[crop.life.regrows] if one["harm"] == "regrows" else LOOK[one["harm"]]
    again = _again_words(windows_, today) if one["harm"] in ("lost", "regrows") else ""
    return AfterLine(place.name, place.pk, crop.name_plural, one["harm"], text, look, again)


def _again_words(windows_: list[dict[str, Any]], today: date) -> str:
    """Until when sowing again is still sensible there."""
    ahead = [w for w in windows_ if w["open_ended"] or date.fromisoformat(w["last"]) >= today]
    if not ahead:
        return "No sensible day to sow it again is left there this season."
    first, last = (date.fromisoformat(ahead[0][edge]) for edge in ("earliest", "last"))
    start = "" if first <= today else f" from {words.day(first, today)}"
    until = "" if ahead[0]["open_ended"] else f" until {words.day(last, today)}"
    return f"Sowing it again is sensible{start}{until}." if start or until else "Sowing it again is sensible."


def _again(garden: Garden, places: set[int]) -> dict[tuple[int, str], list[dict[str, Any]]]:
    rows = CropOutlook.objects.filter(place_id__in=places, place__garden=garden, method=CropOutlook.Method.DIRECT)
    return {(row[0], row[1]): row[2] for row in rows.values_list("place_id", "crop_key", "windows")}
