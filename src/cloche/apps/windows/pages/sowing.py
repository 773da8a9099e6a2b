"""When to sow a crop, at once or in parts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.apps.shared.fields import DayField
from cloche.apps.shared.words import lazy
from cloche.apps.windows.pages.facts import put
from cloche.apps.windows.pages.limit_words import limit_name, sentence
from cloche.apps.windows.prospects import Prospect, for_harvest_by, prospect_on
from cloche.bridge.services import hedging
from cloche.bridge.values import border
from cloche.bridge.values.units import Units
from cloche.drawing import emergence
from cloche_engine import outlook_days
from cloche_engine.crops import seeds
from cloche_engine.crops.catalogue import Crop
from cloche_engine.outlook_days import DayOutlook, day_of
from cloche_engine.windows import growth
from cloche_engine.windows.limits import FRACTIONS, HALF

FULL = 0.9
"""What heat leaves of a harvest is told if it is less than this."""


@dataclass(frozen=True)
class Sowing:
    """Prospect of sowing on one day."""

    on: date
    offset: int
    text: str
    soil: str
    risk: str
    after: str
    picture: emergence.Emergence | None
    rows: list[tuple[str, str]]
    share: float


def sowing(crop: Crop, outlook: CropOutlook, units: Units, today: date, offset: int, bench: bool = False) -> Sowing:
    """Describe the candidate day nearest to `offset` days from today.

    `bench` means a tray, for which no harvest is given.
    """
    # The outlook may be of yesterday: its days count from the day it was made for.
    day = day_of(outlook.days, offset)
    on = today + timedelta(days=day.offset)
    prospect = prospect_on(outlook, on, today)
    return Sowing(
        on=on,
        offset=day.offset,
        text=_text(crop, on, day, today),
        soil=_("Soil about {temperature} in the following week.").format(temperature=units.temperature_text(day.soil_c)),
        risk=risk_words(day, sown=True),
        after=_after(crop, day, prospect, today, bench),
        picture=emergence.emergence(on, FRACTIONS, day.days_to, day.share),
        rows=_rows(crop, on, day),
        share=day.share[1],
    )


class HarvestForm(forms.Form):
    """Form for the date by which a harvest is wanted."""

    harvest_by = DayField(label=lazy("Harvest wanted by"))


@dataclass(frozen=True)
class HarvestBy:
    """Answer to a wanted harvest date; `offset` is the day to show, in days from today, if there is one."""

    text: str
    offset: int | None


def harvest_by(form: HarvestForm, crop: Crop, outlook: CropOutlook, today: date) -> HarvestBy:
    """Count back from a wanted harvest to the day of sowing or planting."""
    by = form.cleaned_data["harvest_by"]
    best = for_harvest_by(outlook, by, today)
    name, wanted = words.sentence(crop.name_plural), words.day(by, today)
    if best is None or best.harvest_on is None:
        return HarvestBy(_("{name} bring no harvest here on any date in sight.").format(name=name), None)
    values = {"name": name, "wanted": wanted, "day": words.day(best.on, today), "ripe": words.day(best.harvest_on, today)}
    if best.harvest_on <= by:
        text = (
            _("For a harvest by {wanted}, sow by {day}. {name} are then ready about {ripe}.")
            if best.sown
            else _("For a harvest by {wanted}, plant out by {day}. {name} are then ready about {ripe}.")
        )
    else:
        text = (
            _("It is too late for a harvest by {wanted}. The earliest is about {ripe}, if sown on {day}.")
            if best.sown
            else _("It is too late for a harvest by {wanted}. The earliest is about {ripe}, if planted out on {day}.")
        )
    return HarvestBy(text.format(**values), (best.on - today).days)


def risk_words(day: DayOutlook, sown: bool) -> str:
    """Describe the likeliest causes of failure."""
    if not day.failing or day.failing[0][1] < 0.05:
        return _("There is little risk.")
    limit, chance = day.failing[0]
    rest = [f"{limit_name(other)}, {words.likely(less)}" for other, less in day.failing[1:3] if less >= 0.1]
    besides = _(" Other reasons: {join}.").format(join="; ".join(rest)) if rest else ""
    return _("It may fail ({likely}): {sentence}.{besides}").format(
        likely=words.likely(chance), sentence=sentence(limit, sown), besides=besides
    )


def chosen_offset(in_days: str, sow: str, outlook: CropOutlook, today: date) -> int:
    """Return the days from today to show: from the slider, a date in the URL, or the best day of the first window.

    Without a window, the day with the best chance.
    """
    offset = border.whole(in_days)
    if offset is not None:
        return offset
    try:
        return (date.fromisoformat(sow) - today).days
    except ValueError:
        pass  # no or no proper date in the address: the default below is the answer
    if outlook.windows:
        first = outlook.windows[0]
        return max(0, ((first.earliest if outlook.sow_now else first.best_from) - today).days)
    success = outlook.days.success
    return int(outlook.days.day[success.index(max(success))])


def _text(crop: Crop, on: date, day: DayOutlook, today: date) -> str:
    sown = f"{words.sentence(put(crop)[1])} {_('today') if on == today else 'on ' + words.day(on, today)}"
    early, half, late = day.days_to[HALF]
    if half is None or early is None:
        return _("{sown}, it would probably not come up.").format(sown=sown)
    middle = on + timedelta(days=round(half))
    sure = f"{words.day(on + timedelta(days=round(early)))}"
    until = _("to {day}").format(day=words.day(on + timedelta(days=round(late)))) if late is not None else _("or much later")
    end = _(", {share}% of viable seed in the end").format(share=f"{100 * day.share[1]:.0f}") if crop.start == "seed" else ""
    return _("{sown}, half of it is up by {day} ({sure} {until}){end}.").format(
        sown=sown, day=words.day(middle), sure=sure, until=until, end=end
    )


def _after(crop: Crop, day: DayOutlook, prospect: Prospect | None, today: date, bench: bool) -> str:
    """Describe the vigour of the seedlings and the harvest; empty where nothing emerges."""
    half = day.days_to[HALF][1]
    if half is None:
        return ""
    thing = _("Seedlings") if crop.start == "seed" else _("Shoots")
    text = _("{thing} would {growth} in the three weeks after emergence.").format(thing=thing, growth=vigour_words(day.growth))
    return text if bench or prospect is None else f"{text} {harvest_words(crop, prospect, today)}".rstrip()


def harvest_words(crop: Crop, prospect: Prospect, today: date) -> str:
    """Describe the median harvest date and the share spared by heat."""
    if crop.life.perennial:
        return _("It is perennial; the harvest comes in later years.")
    if prospect.harvest_on is None:
        return _("In most simulations there is no harvest.")
    text, day = _("Harvest about {day}.").format(day=words.day(prospect.harvest_on, today)), prospect.day
    if day.yields >= FULL:
        return text
    return _("{text} Hot days would leave about {yields}% of a good harvest.").format(
        text=text, yields=f"{100 * day.yields:.0f}"
    )


def _rows(crop: Crop, on: date, day: DayOutlook) -> list[tuple[str, str]]:
    rows = []
    for index, label in ((0, _("the first")), (HALF, _("half of them")), (FRACTIONS.index(0.9), _("nine of ten"))):
        quick, middle, slow = day.days_to[index]
        if middle is not None:
            until = f"{slow:.0f}" if slow is not None else "∞"
            rows.append(
                (
                    label,
                    _("{day} · {middle} days ({quick}–{until})").format(
                        day=words.day(on + timedelta(days=round(middle))),
                        middle=f"{middle:.0f}",
                        quick=f"{quick:.0f}",
                        until=until,
                    ),
                )
            )
    slowest = day.days_to[-1][2]
    if slowest is not None:
        rows.append((_("failed if nothing by"), words.day(on + timedelta(days=round(slowest)))))
    if crop.start == "seed":
        rows.append((_("of 100 viable seeds"), f"{100 * day.share[1]:.0f} ({100 * day.share[0]:.0f}–{100 * day.share[2]:.0f})"))
    return rows


def vigour_words(index: float) -> str:
    """Describe growth of the seedlings as the end of "they would …"."""
    names = {
        growth.Vigour.THRIVE: _("thrive"),
        growth.Vigour.SLOW: _("grow slowly"),
        growth.Vigour.SURVIVE: _("hardly survive"),
    }
    return names[growth.vigour(index)]


CHANCES = (70, 80, 90, 95)
USUAL_CHANCE = 90


@dataclass(frozen=True)
class HedgePart:
    """Form values and the resulting plan, one line a sowing with a total."""

    chance: int
    chances: tuple[int, ...]
    by: str
    text: str
    parts: list[str]
    refused: str


def hedge_part(
    crop: Crop, rows: Sequence[CropOutlook], query: QueryDict, viable: float, today: date, usual_by: date | None
) -> HedgePart:
    """Split a packet over days and places from today's outlooks of the crop sown in place."""
    wanted = query.get("chance", str(USUAL_CHANCE))
    chance = next((level for level in CHANCES if level == border.whole(wanted)), USUAL_CHANCE)
    by_text = query.get("by", usual_by.isoformat() if usual_by else "")
    try:
        by = date.fromisoformat(by_text) if by_text else None
    except ValueError:
        return HedgePart(chance, CHANCES, by_text, "", [], _("Enter the date as year-month-day, for example 2026-07-15."))
    plan = hedging.split([(row.days, row.members) for row in rows], chance / 100, (by - today).days if by else None)
    if not plan.parts:
        until = _(" by {day}").format(day=words.day(by, today)) if by else ""
        return HedgePart(chance, CHANCES, by_text, _("No sowing in any place gives a crop{until}.").format(until=until), [], "")
    lines = [_line(crop, rows[part.place], part, len(plan.parts), viable, today) for part in plan.parts]
    return HedgePart(chance, CHANCES, by_text, _hedge_text(plan, chance, by, today), lines, "")


def _hedge_text(plan: hedging.Hedge, chance: int, by: date | None, today: date) -> str:
    count = len(plan.parts)
    until = _(" by {day}").format(day=words.day(by, today)) if by else ""
    reached = _("{reached} times in 100").format(reached=f"{100 * plan.reached:.0f}")
    how = _("One sowing gives") if count == 1 else _("The packet in {count} equal parts gives").format(count=count)
    short = (
        ""
        if plan.reached >= chance / 100
        else _(", less than the {chance} asked for. More parts would not help much").format(chance=chance)
    )
    worst = round(plan.lost_worst * count)
    lost = (
        _("all of the seed")
        if worst == count
        else _("{worst} of the {count} parts").format(worst=worst, count=count)
        if worst
        else _("none of it")
    )
    mishap = _("one sowing in {mishap} is assumed to fail by accident").format(mishap=f"{1 / hedging.MISHAP:.0f}")
    return _("{how} a crop{until} {reached}{short}. In the worst year of ten, {lost} is lost to the weather; {mishap}.").format(
        how=how, until=until, reached=reached, short=short, lost=lost, mishap=mishap
    )


def _line(crop: Crop, row: CropOutlook, sown_part: hedging.Candidate, count: int, viable: float, today: date) -> str:
    day = outlook_days.day_of(row.days, sown_part.day)
    up = day.share[1] * viable if day.share else viable
    together = seeds.per_station(crop, up)
    part = _("all of it") if count == 1 else _("1 of {count} parts").format(count=count)
    when = words.day(today + timedelta(days=sown_part.day), today)
    each = _(", {count} per station").format(count=words.count(together, "seed", "seeds")) if crop.start == "seed" else ""
    return _("{sentence} in {name}: {part}{each}").format(
        sentence=words.sentence(when), name=row.place.name, part=part, each=each
    )
