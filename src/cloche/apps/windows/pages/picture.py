"""Charts of a place on one time axis: covers, soil by depth, seed depth and air under cover."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.utils.translation import gettext as _

from cloche.apps.forecasts.selectors import Ground
from cloche.apps.places.selectors import covers_of
from cloche.apps.readings import selectors as measured
from cloche.apps.shared import words
from cloche.bridge.values.units import Units
from cloche.drawing import air, chart, strips
from cloche.drawing.geometry import Tick
from cloche_engine.layout import FIELD_STEP_H

DEPTH_LABELS_M = (0.05, 0.10, 0.20, 0.40)
DEPTH_LABELS_IN = (2, 4, 8, 16)


@dataclass(frozen=True)
class Depth:
    """A depth to choose: URL key, label and whether chosen."""

    key: str
    label: str
    chosen: bool


@dataclass(frozen=True)
class GroundPicture:
    """Charts on one time axis.

    `other` is the line of another depth, empty if none is chosen; `in_room` marks the air of a room without a cover.
    """

    field: chart.Field
    course: chart.Chart
    covers: list[strips.Strip]
    air: air.Air | None
    depths: list[Depth]
    other: str
    in_room: bool


def picture_of(ground: Ground, units: Units, local: datetime, also: str) -> GroundPicture:
    """Draw three weeks back and two ahead; `also` is a further depth in cm."""
    data = ground.data
    span = chart.Span(ground.start, ground.end, local)
    field = chart.field(data.field_c, data.field_depths_m, _depth_ticks(units, data.field_depths_m[-1]), span)
    scaled = [[units.temperature_from_c(v) for v in side] for side in (data.near_low_c, data.near_mid_c, data.near_high_c)]
    readings = [_point(reading, ground, units) for reading in measured.points_between(ground.place, span.start, local)]
    drawn = chart.chart(chart.Hours(*scaled), readings, span)
    depths, other = _other_depth(ground, units, also, drawn.limits, span)
    over, inside = strips.strips(_covers(ground, local), span), _air(ground, units, span)
    return GroundPicture(field, drawn, over, inside, depths, other, in_room=ground.place.room_id is not None and not over)


def _other_depth(
    ground: Ground, units: Units, also: str, limits: tuple[float, float], span: chart.Span
) -> tuple[list[Depth], str]:
    """Return depths to choose from, and the line of the chosen one."""
    choices, line = [], ""
    for depth_m, row in zip(ground.data.field_depths_m, ground.data.field_c, strict=True):
        key = f"{depth_m * 100:.0f}"
        choices.append(Depth(key, _("the surface") if depth_m == 0 else units.length_text(depth_m), key == also))
        if key == also:
            line = chart.line([units.temperature_from_c(v) for v in row], FIELD_STEP_H, limits, span)
    return choices, line


def _covers(ground: Ground, local: datetime) -> list[tuple[datetime | None, datetime | None, str, str, int]]:
    """Return the dated covers, or the permanent one."""
    place, zone = ground.place, local.tzinfo
    covers: list[tuple[datetime | None, datetime | None, str, str, int]] = []
    there = covers_of(place)
    for cover in there:
        period = cover.period
        if period is None:
            covers.append((None, None, cover.name, _("{cover_name}, always on").format(cover_name=cover.name), 0))
            continue
        on = datetime(period.first.year, period.first.month, period.first.day, tzinfo=zone)
        off = None
        if period.last is not None:
            after = period.last + timedelta(days=1)
            off = datetime(after.year, after.month, after.day, tzinfo=zone)
        name = cover.name
        covers.append(
            (
                on if on > ground.start else None,
                off,
                name,
                _("{name}, since {day}").format(name=name, day=words.day(period.first)),
                sum(cover.lies_under(other) for other in there),
            )
        )
    return covers


def _air(ground: Ground, units: Units, span: chart.Span) -> air.Air | None:
    """Draw the air under the cover, if the place has one."""
    data = ground.data
    if not data.inside_mid_c:
        return None
    scaled = [
        [units.temperature_from_c(v) for v in side] for side in (data.inside_low_c, data.inside_mid_c, data.inside_high_c)
    ]
    outside = [units.temperature_from_c(v) for v in data.outside_c]
    return air.air(chart.Hours(*scaled), outside, units.temperature_from_c(0.0), span)


def _point(reading, ground: Ground, units: Units) -> tuple[datetime, float, str, bool, bool]:  # type: ignore[no-untyped-def]
    local = reading.taken_at.astimezone(ground.place.garden.timezone)
    at_seed_depth = abs(reading.depth_m - ground.place.seed_depth_m) < 0.011
    text = _("{temperature} at {length}, ").format(
        temperature=units.temperature_text(reading.temperature_c), length=units.length_text(reading.depth_m)
    )
    text += f"{words.day(local.date())} {words.clock(local)}"
    strange = reading.pk in ground.data.strange
    return local, units.temperature_from_c(reading.temperature_c), text, at_seed_depth, strange


def _depth_ticks(units: Units, deepest_m: float) -> list[Tick]:
    if units.length == "cm":
        ticks = [Tick(m, _("{m} cm").format(m=f"{m * 100:.0f}")) for m in DEPTH_LABELS_M]
    else:
        ticks = [Tick(units.metres(inches), _("{inches} in").format(inches=inches)) for inches in DEPTH_LABELS_IN]
    return [tick for tick in ticks if tick.at <= deepest_m]
