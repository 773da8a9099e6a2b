"""Prospects of a crop in a place by a method on a day, the one source for slider, crop page, plan and Today."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from math import isfinite

from django.utils.translation import gettext as _

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.apps.windows.pages.limit_words import sentence
from cloche.bridge.services import crops
from cloche_engine.outlook_days import DayOutlook, day_of, harvests
from cloche_engine.windows.limits import HALF, SURE, Limit

RISKY = 0.5
"""Chance below which a plan is warned of, and below which no harvest is told: in most runs of the weather there is none."""
FAR_D = 14
"""A day further than this from the days that were judged has no prospect."""


@dataclass(frozen=True)
class Prospect:
    """Expected result of sowing or planting on a day.

    `chance` of success 0-1; `limit` the likeliest cause of failure with its chance; `half_on` the day half is up (None for
    plants or if never); `harvest_on` None where most weather scenarios bring no harvest; `hopeless` whether no day in sight
    is worth trying.
    """

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
        """Return whether a window would be open on the day."""
        return self.chance >= SURE

    @property
    def is_risky(self) -> bool:
        """Return whether failure is more likely than success."""
        return self.chance < RISKY


def prospect_on(outlook: CropOutlook, on: date, today: date) -> Prospect | None:
    """Return the prospect for a day from a stored outlook; None for a day it does not cover."""
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
    """Return the first day with the best chance, or None."""
    if outlook.days is None or not outlook.days.day:
        return None
    success = outlook.days.success
    return prospect_on(outlook, today + timedelta(days=int(outlook.days.day[success.index(max(success))])), today)


def outlooks_of(keys: Sequence[tuple[int, str]]) -> dict[tuple[int, str, bool], CropOutlook]:
    """Return stored outlooks by place, crop and whether sown in place, in one query."""
    places, named = {place for place, _crop in keys}, {crop for _place, crop in keys}
    rows = CropOutlook.objects.filter(place_id__in=places, crop_key__in=named)
    return {(row.place_id, row.crop_key, row.sown): row for row in rows}


def prospects_for(wanted: Iterable[tuple[int, str, bool, date]], today: date) -> dict[tuple[int, str, bool, date], Prospect]:
    """Return prospects by (place, crop, whether sown in place, day), in one query."""
    queries = list(wanted)
    by_key = outlooks_of([(place, crop) for place, crop, *_rest in queries])
    prospects = {}
    for place, crop, sown, on in queries:
        outlook = by_key.get((place, crop, sown))
        prospect = prospect_on(outlook, on, today) if outlook is not None else None
        if prospect is not None:
            prospects[place, crop, sown, on] = prospect
    return prospects


def for_harvest_by(outlook: CropOutlook, by: date, today: date) -> Prospect | None:
    """Return the last day that more likely than not brings a harvest by a date, else the day with the earliest harvest.

    None where no day in sight brings one.
    """
    if outlook.days is None:
        return None
    days = zip(outlook.days.day, harvests(outlook.days), outlook.days.success, strict=True)
    ripe = {offset: offset + wait for offset, wait, chance in days if chance >= RISKY and isfinite(wait)}
    in_time = [offset for offset, day in ripe.items() if day <= (by - today).days]
    if not ripe:
        return None
    best = max(in_time) if in_time else min(ripe, key=lambda offset: ripe[offset])
    return prospect_on(outlook, today + timedelta(days=best), today)


def better_than(outlook: CropOutlook, prospect: Prospect, today: date) -> Prospect | None:
    """Return a better day to offer in place of a risky one, or None."""
    best = best_day(outlook, today)
    return best if best is not None and best.chance > max(prospect.chance, RISKY) else None


def warning(prospect: Prospect, name: str, today: date) -> str:
    """Explain why a day is risky, as in "peas sown on 3 May fail eight times in ten: the soil is too cold"."""
    why = sentence(prospect.limit, prospect.sown) if prospect.limit else ""
    text = (
        _("{name} sown on {day} would fail {likely}") if prospect.sown else _("{name} planted out on {day} would fail {likely}")
    )
    failure = text.format(name=name, day=words.day(prospect.on, today), likely=words.likely(1 - prospect.chance))
    return _("{failure}: {why}.").format(failure=failure, why=why) if why else f"{failure}."
