"""Hedged sowing: a packet split over days and places for a wanted chance of a crop by a date."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.bridge.services import hedging
from cloche.bridge.values import border, outlook_days
from cloche.core.crops import seeds
from cloche.core.crops.catalogue import Crop

CHANCES = (70, 80, 90, 95)
USUAL_CHANCE = 90


@dataclass(frozen=True)
class HedgePart:
    """The form's answers, and the plan: one line a sowing, and what it comes to."""

    chance: int
    chances: tuple[int, ...]
    by: str
    text: str
    parts: list[str]
    refused: str


def hedge_part(
    crop: Crop, rows: Sequence[CropOutlook], query: QueryDict, viable: float, today: date, usual_by: date | None
) -> HedgePart:
    """rows: outlooks of the crop, sown in place, wherever it could go, of today's forecasts."""
    wanted = query.get("chance", str(USUAL_CHANCE))
    chance = next((level for level in CHANCES if level == border.whole(wanted)), USUAL_CHANCE)
    by_text = query.get("by", usual_by.isoformat() if usual_by else "")
    try:
        by = date.fromisoformat(by_text) if by_text else None
    except ValueError:
        return HedgePart(chance, CHANCES, by_text, "", [], _("Write the date as year-month-day, like 2026-07-15."))
    plan = hedging.split([(row.days, row.members) for row in rows], chance / 100, (by - today).days if by else None)
    if not plan.parts:
        until = _(" by {day}").format(day=words.day(by, today)) if by else ""
        return HedgePart(chance, CHANCES, by_text, _("No sowing in any place gives a crop{until}.").format(until=until), [], "")
    lines = [_line(crop, rows[part.place], part, len(plan.parts), viable, today) for part in plan.parts]
    return HedgePart(chance, CHANCES, by_text, _text(plan, chance, by, today), lines, "")


def _text(plan: hedging.Hedge, chance: int, by: date | None, today: date) -> str:
    count = len(plan.parts)
    until = _(" by {day}").format(day=words.day(by, today)) if by else ""
    reached = _("{reached} times in 100").format(reached=f"{100 * plan.reached:.0f}")
    how = _("One sowing gives") if count == 1 else _("The packet in {count} equal parts gives").format(count=count)
    short = (
        ""
        if plan.reached >= chance / 100
        else _(", less than the {chance} asked for: more parts would not help much").format(chance=chance)
    )
    worst = round(plan.lost_worst * count)
    lost = (
        _("all of the seed")
        if worst == count
        else _("{worst} of the {count} parts").format(worst=worst, count=count)
        if worst
        else _("none of it")
    )
    mishap = _("one sowing in {mishap} is taken to fail by mishap").format(mishap=f"{1 / hedging.MISHAP:.0f}")
    return _("{how} a crop{until} {reached}{short}. In the worst year of ten {lost} is lost to the weather; {mishap}.").format(
        how=how, until=until, reached=reached, short=short, lost=lost, mishap=mishap
    )


def _line(crop: Crop, row: CropOutlook, sown_part: hedging.Candidate, count: int, viable: float, today: date) -> str:
    day = outlook_days.day_of(row.days, sown_part.day)
    up = day.share[1] * viable if day.share else viable
    together = seeds.per_station(crop, up)
    part = _("all of it") if count == 1 else _("1 of {count} parts").format(count=count)
    when = words.day(today + timedelta(days=sown_part.day), today)
    each = _(", {count} a station").format(count=words.count(together, "seed", "seeds")) if crop.start == "seed" else ""
    return _("{sentence} in {name}: {part}{each}").format(
        sentence=words.sentence(when), name=row.place.name, part=part, each=each
    )
