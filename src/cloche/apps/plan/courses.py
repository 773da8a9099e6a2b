"""Growth of plantings through the season: height, nights and the room under their cover."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import UNKNOWN_C, Ground, Soil, ground_of, outlooks_at, soil_of
from cloche.apps.places.models import Cover, Place
from cloche.apps.places.selectors import covers_on
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.sowings.selectors import progress_of
from cloche.apps.weather.selectors import reported_days
from cloche.bridge.services import beds, crops

PERENNIAL_D = 365


@dataclass(frozen=True)
class Grows:
    """A planting through time.

    `up` is the day of emergence or planting out, `course` its growth from then on, and `until` the day its ground is free
    (None if not in sight).
    """

    planting: Planting
    begins: date
    up: date
    course: beds.Course
    until: date | None


@dataclass(frozen=True)
class Known:
    """Inputs of growth in a place: its forecast, daily soil temperature and outlooks for sowing in place."""

    ground: Ground | None
    soil: Soil
    outlooks: dict[str, CropOutlook]
    latitude_deg: float
    today: date

    def grows(self, planting: Planting) -> Grows:
        """Follow a planting through time with these inputs."""
        return grows(planting, self.soil, self.outlooks, self.latitude_deg, self.today)


def known_of(place: Place, today: date) -> Known:
    """Load the inputs of growth in a place."""
    ground = ground_of(place)
    outlooks = {row.crop_key: row for row in outlooks_at(place) if row.method == CropOutlook.Method.DIRECT}
    return Known(ground, soil_of(place, ground, today), outlooks, place.garden.latitude_deg, today)


def begins_on(planting: Planting, today: date) -> date:
    """Return the day on which a planting goes in or went in; an overdue one counts as today."""
    if planting.planted_on is not None:
        return planting.planted_on
    return max(planting.planned_on or today, today)


def grows(planting: Planting, soil: Soil, outlooks: dict[str, CropOutlook], latitude_deg: float, today: date) -> Grows:
    """Follow a planting from its first day until its ground is free.

    `outlooks` holds the place's outlooks by crop for sowing in place.
    """
    begins = begins_on(planting, today)
    seeded = planting.is_seeded
    up = _up_on(planting, begins, outlooks, today) if seeded else begins
    happened = planting.events.all() if planting.pk else []
    measured = [event for event in happened if event.height_m is not None]
    mean_c = soil.since(up) or [UNKNOWN_C]
    course = beds.course(planting.crop_key, up, mean_c, latitude_deg, not seeded, planting.height_m)
    if measured:
        # What was measured counts from its day on.
        last = measured[-1]
        after = last.on + timedelta(days=1)
        later = beds.course(planting.crop_key, after, soil.since(after) or [UNKNOWN_C], latitude_deg, True, last.height_m)
        head = _towards(course.height_m[: max((last.on - up).days, 0)], last.height_m)
        course = beds.Course(up, [*head, last.height_m or 0.0, *later.height_m], course.grown, course.ripe)
    return Grows(planting, begins, up, course, _free_from(planting, course))


def _towards(course: list[float], measured_m: float | None) -> list[float]:
    """Scale a course up to a measured height on the day it was measured."""
    if len(course) < 2 or measured_m is None or course[-1] <= course[0]:
        return course
    share = (measured_m - course[0]) / (course[-1] - course[0])
    return [round(course[0] + share * (height - course[0]), 3) for height in course]


def _up_on(planting: Planting, begins: date, outlooks: dict[str, CropOutlook], today: date) -> date:
    sowing = planting.sowing
    half_on = None if sowing is None else progress_of(sowing, today).half_on
    if half_on is not None:
        return half_on
    outlook = outlooks.get(planting.crop_key)
    days = outlook.half_d if outlook is not None and outlook.half_d is not None else crops.crop(planting.crop_key).coming_up_d
    return begins + timedelta(days=round(days))


def _free_from(planting: Planting, course: beds.Course) -> date | None:
    if planting.ended_on is not None:
        return planting.ended_on
    if course.ripe is None:
        return None
    # A crop that is cut or picked again and again stands a while after its first harvest.
    return course.ripe + timedelta(days=crops.picked_for_d(planting.crop_key))


OF_A_NIGHT = (PlantEvent.Kind.DIED, PlantEvent.Kind.STOOD)
EVENING, MORNING = time(17), time(9)


def lowest_before(place: Place, on: date) -> float | None:
    """Return the lowest air temperature of the night before a day, under the cover if there is one [°C]; None if unknown.

    The forecast knows the last weeks. A night longer ago is told by its low in the garden's weather, of a place that lay open.
    """
    lowest = _by_forecast(place, on)
    if lowest is not None or covers_on(place, on):
        return lowest
    garden = place.garden
    line = garden.weather.filter(day=on).values_list("low_c", flat=True).first()
    if line is not None:
        return float(line)
    day = next(
        (
            reported_day
            for reported_day in reported_days(garden, since=on)
            if reported_day.day == on and not reported_day.lead_d
        ),
        None,
    )
    return None if day is None else day.low_c


def _by_forecast(place: Place, on: date) -> float | None:
    ground = ground_of(place)
    if ground is None:
        return None
    zone, data = place.garden.timezone, ground.data
    ends = (datetime.combine(day, at, tzinfo=zone) for day, at in ((on - timedelta(days=1), EVENING), (on, MORNING)))
    first, last = (int((at - data.start) / timedelta(hours=1)) for at in ends)
    hours = (data.inside_mid_c or data.outside_c)[max(first, 0) : max(last, 0)]
    return round(min(hours), 1) if hours and first >= 0 else None


def room_under(cover_key: str, item: Cover | None, shape: BedShape) -> beds.Room | None:
    """Return the room under a cover, or None where plants lift it or stand in it as in a room."""
    width = min(item.width_m, shape.width_m) if item and item.width_m else shape.width_m
    if item is None:
        return beds.room_over(cover_key, width)
    return beds.room_over(cover_key, width, (item.width_m, item.spread_m), (item.low_m, item.high_m))


def across_m(planting: Planting, shape: BedShape) -> float:
    """Return the distance of a patch's centre from the bed's edge [m]; the middle of the bed for one not on the plan."""
    return shape.width_m / 2 if planting.y_m is None else planting.y_m + planting.width_m / 2


def clear_m(planting: Planting, shape: BedShape, room: beds.Room) -> float:
    """Return the free height above a patch [m]."""
    return room.height_m(across_m(planting, shape) * room.width_m / shape.width_m)
