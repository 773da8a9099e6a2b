"""The prospect on a crop, in a place, by a method, on a day: the one function for slider, crop page, plan and Today."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.apps.windows.pages.limit_words import sentence
from cloche.bridge.services import crops
from cloche_engine.outlook_days import DayOutlook, day_of
from cloche_engine.windows.limits import HALF, SURE, Limit

RISKY = 0.5
"""Chance below which a plan is warned of, and below which no harvest is told: in most runs of the weather there is none."""
FAR_D = 14
"""A day further than this from the days that were judged has no prospect."""


@dataclass(frozen=True)
class Prospect:
    """What would come of a day. chance: of success, 0-1; limit: what it most likely fails by, with its chance; half_on: half of
    it up, None of plantings and where it never is; harvest_on: None where most runs of the weather bring no harvest; hopeless:
    whether no day in sight has a chance worth trying."""

    on: date
    sown: bool
    chance: float
    limit: Limit | None
    limit_chance: float
    half_on: date | None
    harvest_on: date | None
    hopeless: bool
    day: DayOutlook

    @property
    def is_sure(self) -> bool:
        """Whether a window would be open on that day."""
        return self.chance >= SURE

    @property
    def is_risky(self) -> bool:
        """Whether it fails more often than not."""
        return self.chance < RISKY


def prospect_on(outlook: CropOutlook, on: date, today: date) -> Prospect | None:
    """Of a stored outlook with its days; None for a day outside those that were judged."""
    if outlook.days is None or not outlook.days.day:
        return None
    # The outlook may be of yesterday: its days count from the day it was made for.
    day = day_of(outlook.days, (on - today).days)
    if abs(day.offset - (on - today).days) > FAR_D:
        return None
    crop = crops.crop(outlook.crop_key)
    half = day.days_to[HALF][1] if day.days_to else None
    limit, limit_chance = day.failing[0] if day.failing else (None, 0.0)
    ripens = day.harvest_d is not None and (day.success >= RISKY or crop.winter is not None)
    return Prospect(
        on=on,
        sown=outlook.sown,
        chance=day.success,
        limit=limit,
        limit_chance=limit_chance,
        half_on=None if half is None else on + timedelta(days=round(half)),
        harvest_on=on + timedelta(days=day.harvest_d) if ripens and day.harvest_d is not None else None,
        hopeless=outlook.hopeless,
        day=day,
    )


def best_day(outlook: CropOutlook, today: date) -> Prospect | None:
    """The day with the best chance of all that were judged, the first of several."""
    if outlook.days is None or not outlook.days.day:
        return None
    success = outlook.days.success
    return prospect_on(outlook, today + timedelta(days=int(outlook.days.day[success.index(max(success))])), today)


def outlooks_of(keys: Sequence[tuple[int, str]]) -> dict[tuple[int, str, bool], CropOutlook]:
    """Stored outlooks of crops in places, by place, crop and whether sown in place: one query."""
    places, named = {place for place, _crop in keys}, {crop for _place, crop in keys}
    rows = CropOutlook.objects.filter(place_id__in=places, crop_key__in=named)
    return {(row.place_id, row.crop_key, row.sown): row for row in rows}


def prospects_for(wanted: Iterable[tuple[int, str, bool, date]], today: date) -> dict[tuple[int, str, bool, date], Prospect]:
    """Of (place, crop, whether sown in place, day): one query for all of them."""
    queries = list(wanted)
    by_key = outlooks_of([(place, crop) for place, crop, *_rest in queries])
    prospects = {}
    for place, crop, sown, on in queries:
        outlook = by_key.get((place, crop, sown))
        prospect = prospect_on(outlook, on, today) if outlook is not None else None
        if prospect is not None:
            prospects[place, crop, sown, on] = prospect
    return prospects


def better_than(outlook: CropOutlook, prospect: Prospect, today: date) -> Prospect | None:
    """One better day to offer instead of a risky one; None where none is."""
    best = best_day(outlook, today)
    return best if best is not None and best.chance > max(prospect.chance, RISKY) else None


def warning(prospect: Prospect, name: str, today: date) -> str:
    """Why a day is risky: peas sown on 3 May fail eight times in ten: the soil is too cold."""
    why = sentence(prospect.limit, prospect.sown) if prospect.limit else ""
    text = (
        _("{name} sown on {day} would fail {likely}") if prospect.sown else _("{name} planted out on {day} would fail {likely}")
    )
    failure = text.format(name=name, day=words.day(prospect.on, today), likely=words.likely(1 - prospect.chance))
    return _("{failure}: {why}.").format(failure=failure, why=why) if why else f"{failure}."
