"""The three rules of when to sow, side by side with what each costs."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.shared import words
from cloche.apps.windows.pages.limit_words import limit_name
from cloche.bridge.values.stored import RuleChoice
from cloche.bridge.values.units import Units

NAMES = {"minimum": "At the minimum", "comfortable": "When comfortable", "calendar": "By the last frost"}
NEVER = {
    "minimum": "No day within those looked at has an even chance.",
    "comfortable": "No day within those looked at is sure enough.",
    "calendar": "Its date is not within the days looked at.",
}


@dataclass(frozen=True)
class SowingRuleRow:
    """One sowing rule: when, what then, what it costs; mine: the one this garden follows for the crop."""

    name: str
    mine: bool
    when: str
    offset: int | None
    then: str
    cost: str


def sowing_rule_rows(outlook: CropOutlook, mine: str, units: Units, today: date, price: float | None) -> list[SowingRuleRow]:
    """All three, or none for what they say nothing about."""
    return [_row(choice, choice.sowing_rule == mine, units, today, price) for choice in outlook.sowing_rules]


def together(outlook: CropOutlook, today: date) -> str:
    """Where all three fall on one day, that in a sentence; else nothing."""
    days = {choice.day for choice in outlook.sowing_rules}
    if len(days) != 1 or None in days:
        return ""
    on = days.pop()
    fails = outlook.sowing_rules[0].fails
    end = "hardly ever fails" if fails < 0.05 else f"fails {words.likely(fails)}"
    return f"All three of them say {words.day(on, today)}: the sowing {end}."


def expected_loss(outlook: CropOutlook, price: float | None) -> float:
    """Of sowing today, on average, in packets or in money: so that the hardy and the cheap go first."""
    return outlook.fails_now * (1.0 if price is None else price)


def _row(choice: RuleChoice, mine: bool, units: Units, today: date, price: float | None) -> SowingRuleRow:
    name = NAMES[choice.sowing_rule]
    if choice.day is None:
        return SowingRuleRow(name, mine, "no day", None, NEVER[choice.sowing_rule], "")
    on = choice.day
    soil = f"soil about {units.temperature_text(choice.soil_c or 0.0)}"
    if choice.half_d is None:
        then = f"{soil}; half would never be up"
    else:
        then = f"{soil}; half up after {choice.half_d:.0f} days, {100 * choice.share:.0f} of 100 in the end"
    return SowingRuleRow(name, mine, words.day(on, today), (on - today).days, then, _cost(choice, price))


def _cost(choice: RuleChoice, price: float | None) -> str:
    parts = []
    if choice.fails >= 0.05:
        lost = f"{choice.fails:.1f} packets" if price is None else f"{choice.fails * price:.2f} of seed"
        parts.append(f"fails {words.likely(choice.fails)} ({limit_name(choice.limit)}), {lost} lost on average")
    else:
        parts.append("hardly ever fails")
    if choice.lost_d is not None and choice.lost_d >= 1:
        parts.append(f"up {words.count(round(choice.lost_d), 'day')} later on average than the soonest way")
    return "; ".join(parts)
