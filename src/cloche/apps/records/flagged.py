"""Doubtful readings of the last three weeks: reason, effect on the forecast, and the grower's decision."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import groupby
from typing import Any

from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers import selectors as logged
from cloche.apps.loggers.models import LoggedHour
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services.readings import TRANSPLANT_DEPTH_M, QualityFlag, Row, expected_at, flags_of
from cloche.bridge.values.units import Units
from cloche.drawing.spark import Spark, spark
from cloche_engine.results import PlaceForecast

LOOKED_BACK, AROUND = timedelta(days=21), timedelta(days=2)
SAME_DEPTH_M = 0.006
REASONS = {
    QualityFlag.FAHRENHEIT: lazy("far off, but right if it was °F: was the unit mistaken?"),
    QualityFlag.AIR: lazy("closer to the air than to the soil: was the probe in the ground?"),
    QualityFlag.SPIKE: lazy("far from the readings before and after: soil does not jump and come back"),
    QualityFlag.FLAT: lazy("did not change for a day or more while the soil did: is the probe stuck?"),
    QualityFlag.STEP: lazy("there is a jump from here on: was the probe moved?"),
    QualityFlag.DEPTH: lazy("not at the depth at which this place is usually read"),
    QualityFlag.FAR: lazy("far from the expected temperature: had the probe settled?"),
}
REVIEWS = {"right", "left_out", ""}


@dataclass(frozen=True)
class Item:
    """One doubtful reading, or consecutive logger hours with the same flag."""

    numbers: str
    place: Place
    what: str
    why: str
    effect: str
    review: str
    reading_pk: int | None
    picture: Spark


@dataclass(frozen=True)
class FlagPage:
    """Context of the page; `settled` lists readings the grower has already judged."""

    headline: str
    items: list[Item]
    settled: list[Item]


def flag_page(garden: Garden, units: Units, now: datetime) -> FlagPage:
    """Build the page for all places in walking order."""
    since = now - LOOKED_BACK
    grounds = windows.grounds_in(garden)
    readings, hours = _by_place(_readings(garden, since)), _by_place(_hours([place for place, _unused in grounds], since, now))
    reviews = _words_on_hours(garden, since)
    items: list[Item] = []
    for place, ground in grounds:
        place.garden = garden
        data = ground.data if ground else None
        items += _read_flags(place, readings.get(place.pk, []), data, units)
        items += _logged_flags(place, hours.get(place.pk, []), reviews, data, units)
    open_ones = [item for item in items if not item.review]
    return FlagPage(_headline(len(open_ones)), open_ones, [item for item in items if item.review])


def _readings(garden: Garden, since: datetime) -> list[Reading]:
    current = Reading.objects.current().filter(place__garden=garden, taken_at__gte=since)
    return list(current.order_by("taken_at"))


def _hours(places: list[Place], since: datetime, now: datetime) -> list[logged.HourPoint]:
    return logged.hours_between([place.pk for place in places], since, now, left_out=True)


def _by_place(rows: Iterable[Any]) -> dict[int, list[Any]]:
    by_place: dict[int, list[Any]] = {}
    for row in rows:
        by_place.setdefault(row.place_id, []).append(row)
    return by_place


def _words_on_hours(garden: Garden, since: datetime) -> dict[int, str]:
    rows = LoggedHour.objects.filter(probe__device__garden=garden, hour__gte=since).exclude(review="")
    return {logged.number_of(probe, hour): review for probe, hour, review in rows.values_list("probe_id", "hour", "review")}


def _headline(number: int) -> str:
    if not number:
        return _("No reading of the last three weeks is in doubt.")
    return _("{count} in the record of the last three weeks {part} doubtful.").format(
        count=words.count(number, "thing", "things"), part=_("is") if number == 1 else _("are")
    )


def _read_flags(place: Place, readings: list[Reading], data: PlaceForecast | None, units: Units) -> list[Item]:
    rows: list[Row] = [(r.pk, r.taken_at, r.depth_m, r.temperature_c) for r in readings]
    flagged = flags_of(rows, data, (place.seed_depth_m, TRANSPLANT_DEPTH_M))
    shown = [r for r in readings if r.pk in flagged or r.review]
    return [_reading_item(place, r, flagged.get(r.pk), data, units, _picture([r], readings, data)) for r in shown]


def _picture(odd: list[Any], among: list[Any], data: PlaceForecast | None, joined: bool = False) -> Spark:
    """Draw the doubtful values among their neighbours at the same depth with the expected band."""
    depth_m, marked = odd[0].depth_m, {reading.pk for reading in odd}
    start, end = odd[0].taken_at - AROUND, odd[-1].taken_at + AROUND
    points = [(r.taken_at, r.temperature_c, r.pk in marked) for r in among if abs(r.depth_m - depth_m) < SAME_DEPTH_M]
    return spark(start, end, points, expected_at(data, depth_m), joined)


def _reading_item(
    place: Place, reading: Reading, flag: QualityFlag | None, data: PlaceForecast | None, units: Units, picture: Spark
) -> Item:
    value, depth = units.temperature_text(reading.temperature_c), units.length_text(reading.depth_m)
    what = _("{value} at {depth}, {when}").format(value=value, depth=depth, when=_when(place, reading.taken_at))
    why = REASONS[flag] if flag else _("no longer in doubt")
    return Item(
        str(reading.pk), place, what, why, _effect(reading.pk, reading.review, data), reading.review, reading.pk, picture
    )


def _when(place: Place, at: datetime) -> str:
    local = at.astimezone(place.garden.timezone)
    return f"{words.day(local.date())} {words.clock(local)}"


def _effect(number: int, review: str, data: PlaceForecast | None) -> str:
    if review == Reading.Review.LEFT_OUT:
        return _("left out of the forecast")
    weight = 1.0 if data is None else data.weights.get(number, 1.0)
    if weight >= 0.9:
        return _("used with full weight")
    return _("used with {max}% of the usual weight").format(max=max(1, round(weight * 100)))


def _logged_flags(
    place: Place, hours: list[logged.HourPoint], reviews: dict[int, str], data: PlaceForecast | None, units: Units
) -> list[Item]:
    items: list[Item] = []
    for depth in sorted({h.depth_m for h in hours}):
        own = [h for h in hours if h.depth_m == depth]
        flagged = flags_of([(h.pk, h.taken_at, h.depth_m, h.temperature_c) for h in own], data, (depth,))
        kinds = [(h, flagged.get(h.pk), reviews.get(h.pk, "")) for h in own]
        for (flag, review), run in groupby(kinds, key=lambda entry: entry[1:]):
            if flag or review:
                items.append(_run_item(place, [entry[0] for entry in run], own, flag, review, data, units))
    return items


def _run_item(
    place: Place,
    run: list[logged.HourPoint],
    among: list[logged.HourPoint],
    flag: QualityFlag | None,
    review: str,
    data: PlaceForecast | None,
    units: Units,
) -> Item:
    first, last = run[0], run[-1]
    low, high = min(h.temperature_c for h in run), max(h.temperature_c for h in run)
    value = (
        units.temperature_text(low)
        if len(run) == 1
        else _("{temperature} to {temperature2}").format(
            temperature=units.temperature_text(low), temperature2=units.temperature_text(high)
        )
    )
    span = (
        _when(place, first.taken_at)
        if len(run) == 1
        else _("{when} to {when2}").format(when=_when(place, first.taken_at), when2=_when(place, last.taken_at))
    )
    what = _("logger, {value} at {length}, {span}").format(value=value, length=units.length_text(first.depth_m), span=span)
    why = REASONS[flag] if flag else _("no longer in doubt")
    effect = _effect(first.pk, review, data)
    return Item(
        ",".join(str(h.pk) for h in run), place, what, why, effect, review, None, _picture(run, among, data, joined=True)
    )


@transaction.atomic
def give_word(garden: Garden, numbers: list[int], review: str) -> int:
    """Store the grower's judgement of readings (positive numbers) or logger hours (negative); return how many."""
    places: set[int] = set()
    for reading in Reading.objects.current().filter(pk__in=[n for n in numbers if n > 0], place__garden=garden):
        reading.review = review
        reading.save()
        places.add(reading.place_id)
    done = len(places)
    for number in (n for n in numbers if n < 0):
        probe_id, hour = logged.hour_of(number)
        rows = LoggedHour.objects.filter(probe_id=probe_id, hour=hour, probe__device__garden=garden, probe__place__isnull=False)
        places |= set(rows.values_list("probe__place_id", flat=True))
        done += rows.update(review=review)
    for place in Place.objects.filter(pk__in=places).order_by("pk"):
        note_change_at(place)
    return done
