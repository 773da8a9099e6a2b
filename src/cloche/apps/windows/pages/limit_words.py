"""Reasons that open and close windows, and comparison of the sowing rules, in words."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.results import RuleChoice
from cloche_engine.windows.limits import Limit

NAMES = {
    Limit.COLD: lazy("soil too cold"),
    Limit.HOT: lazy("soil too hot"),
    Limit.WET: lazy("ground too wet"),
    Limit.FROZEN: lazy("ground frozen"),
    Limit.NIGHTS: lazy("nights too cold"),
    Limit.FROST: lazy("frost after emergence"),
    Limit.LATE_FROST: lazy("frost before harvest"),
    Limit.LIGHT: lazy("under ten hours of light"),
    Limit.SEASON: lazy("too little season left"),
    Limit.HEAT: lazy("hot days before harvest"),
    Limit.BOLTS: lazy("bolts after cold"),
    Limit.DAYLENGTH: lazy("days of the wrong length"),
    Limit.FORWARD: lazy("too far grown before winter"),
    Limit.WINTER: lazy("winter too hard"),
    Limit.UNCOMFORTABLE: lazy("soil not yet in the ideal range"),
    Limit.DATE: lazy("before its date, counted from the last frost"),
}
SENTENCES = {
    Limit.COLD: lazy("the soil is too cold: seed would take too long, or too little would come up"),
    Limit.HOT: lazy("the soil is too hot for it"),
    Limit.WET: lazy("the ground is too wet to work"),
    Limit.FROZEN: lazy("the ground is frozen"),
    Limit.NIGHTS: lazy("the nights are too cold for it"),
    Limit.FROST: lazy("frost would kill seedlings that are up"),
    Limit.LATE_FROST: lazy("frost would come before the harvest"),
    Limit.LIGHT: lazy("days are too short: under ten hours of light, growth pauses"),
    Limit.SEASON: lazy("too little of the season is left to ripen"),
    Limit.HEAT: lazy("it would have to ripen in too much heat"),
    Limit.FORWARD: lazy("it would be too far grown when winter comes"),
    Limit.WINTER: lazy("the winter there is too hard for it"),
    Limit.BOLTS: lazy("cold weeks while it is young would make it bolt"),
    Limit.DAYLENGTH: lazy("days are the wrong length for it to flower or form bulbs"),
    Limit.UNCOMFORTABLE: lazy("the soil may not be in its ideal range yet"),
    Limit.DATE: lazy("its date, counted from the last frost, has not come"),
}
PLANTED = {
    Limit.COLD: lazy("the soil at the roots is too cold"),
    Limit.FROST: lazy("frost would catch it"),
    Limit.HOT: lazy("days would be too hot for it from the start"),
}


def limit_name(limit: str | None) -> str:
    """Return the name of a limit; empty for none."""
    return NAMES[Limit(limit)] if limit else ""


def sentence(limit: str, sown: bool = True) -> str:
    """Return a limit as the final clause of an explanation."""
    code = Limit(limit)
    return SENTENCES[code] if sown else PLANTED.get(code, SENTENCES[code])


RULE_NAMES = {
    "minimum": lazy("At the minimum temperature"),
    "comfortable": lazy("When comfortably warm"),
    "calendar": lazy("By the frost dates"),
}
NEVER = {
    "minimum": lazy("On every date ahead, failure is more likely than success"),
    "comfortable": lazy("No date ahead succeeds eight times in ten"),
    "calendar": lazy("Its date is beyond the end of the forecast"),
}


@dataclass(frozen=True)
class SowingRuleRow:
    """One sowing rule with its day, result and cost; `mine` marks the garden's own."""

    name: str
    mine: bool
    when: str
    offset: int | None
    then: str
    cost: str


def sowing_rule_rows(outlook: CropOutlook, mine: str, units: Units, today: date, price: float | None) -> list[SowingRuleRow]:
    """Compare all sowing rules for a crop, or return none where they do not apply."""
    return [_row(choice, choice.sowing_rule == mine, units, today, price) for choice in outlook.sowing_rules]


def together(outlook: CropOutlook, today: date) -> str:
    """State in a sentence that all rules agree on a day, or return an empty string."""
    days = {choice.day for choice in outlook.sowing_rules}
    if len(days) != 1 or None in days:
        return ""
    on = days.pop()
    fails = outlook.sowing_rules[0].fails
    end = _("hardly ever fails") if fails < 0.05 else _("fails {likely}").format(likely=words.likely(fails))
    return _("All three rules choose {day}: the sowing {end}.").format(day=words.day(on, today), end=end)


def expected_loss(outlook: CropOutlook, price: float | None) -> float:
    """Return the mean loss from sowing today, in packets or money, to rank hardy and cheap seed first."""
    return outlook.fails_now * (1.0 if price is None else price)


def _row(choice: RuleChoice, mine: bool, units: Units, today: date, price: float | None) -> SowingRuleRow:
    name = RULE_NAMES[choice.sowing_rule]
    if choice.day is None:
        return SowingRuleRow(name, mine, _("no day"), None, NEVER[choice.sowing_rule], "")
    on = choice.day
    soil = _("soil about {temperature}").format(temperature=units.temperature_text(choice.soil_c or 0.0))
    if choice.half_d is None:
        then = _("{soil}; half would never come up").format(soil=soil)
    else:
        then = _("{soil}; half of the seedlings up after {half_d} days, {share}% in the end").format(
            soil=soil, half_d=f"{choice.half_d:.0f}", share=f"{100 * choice.share:.0f}"
        )
    return SowingRuleRow(name, mine, words.day(on, today), (on - today).days, then, _cost(choice, price))


def _cost(choice: RuleChoice, price: float | None) -> str:
    parts = []
    if choice.fails >= 0.05:
        lost = (
            _("{fails} packets").format(fails=number_text(f"{choice.fails:.1f}"))
            if price is None
            else _("{fails} of seed").format(fails=number_text(f"{choice.fails * price:.2f}"))
        )
        parts.append(
            _("fails {likely} ({limit_name}), {lost} lost on average").format(
                likely=words.likely(choice.fails), limit_name=limit_name(choice.limit), lost=lost
            )
        )
    else:
        parts.append(_("hardly ever fails"))
    if choice.lost_d is not None and choice.lost_d >= 1:
        parts.append(
            _("up {count} later on average than with the soonest rule").format(
                count=words.count(round(choice.lost_d), "day", "days")
            )
        )
    return "; ".join(parts)
