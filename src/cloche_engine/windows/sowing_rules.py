"""The three rules of when to sow, as rules over the same numbers, and what each would cost.

*At the minimum*: as soon as the soil most likely reaches the crop's minimum, an even chance being enough. *Comfortable*: once
it surely lies inside the crop's range. *By the calendar*: so many days about the usual last frost, whatever the soil says
(common practice, no source). The one that a garden follows decides its windows everywhere; the others stand beside it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from cloche_engine.crops.catalogue import HALF_A_DEGREE_F
from cloche_engine.windows.limits import HALF, Limit, longest_in_soil_d
from cloche_engine.windows.outlook import Outlook
from cloche_engine.windows.rules import SowingRule
from cloche_engine.windows.spans import Window, joined, spans_of, window

CALENDAR_D = {"hardy": -35, "half-hardy": -14, "tender": 10}
"""Days after the usual last frost (common practice, no source)."""
LIKELY = 0.5
AS_WARM_K = 1.0
MISSED_D = 60
"""A calendar date missed by more than this belongs to another season."""


@dataclass(frozen=True)
class Choice:
    """Date that a rule would choose, and its result.

    Attributes
    ----------
    day : int or None
        None if the rule would not sow within the days considered.
    fails : float
        Probability of failure, 0-1, which is also the average fraction of the seed lost.
    soil_c : float
        Median soil temperature on that day [°C].
    half_d, share : float
        As in the outlook.
    lost_d : float
        Days by which it emerges later than the earliest rule, including failures that are sown again.
    limit : Limit or None
        Its most frequent cause of failure.
    """

    sowing_rule: SowingRule
    day: int | None
    fails: float = 1.0
    soil_c: float = float("nan")
    half_d: float = float("inf")
    share: float = 0.0
    lost_d: float = 0.0
    limit: Limit | None = None


def compare(outlook: Outlook, by_rule: dict[SowingRule, list[Window]]) -> list[Choice]:
    """Return the choices of all three rules.

    Parameters
    ----------
    outlook : Outlook
        The crop's outlook in the place.
    by_rule : dict[SowingRule, list[Window]]
        The windows of each, none where they do not differ.
    """
    if not by_rule:
        return []
    first = {sowing_rule: int(np.searchsorted(outlook.day, rows[0].earliest)) for sowing_rule, rows in by_rule.items() if rows}
    up = {sowing_rule: _expected_up(outlook, index) for sowing_rule, index in first.items()}
    soonest = min(up.values(), default=0.0)
    return [
        _choice(outlook, sowing_rule, first[sowing_rule], up[sowing_rule] - soonest)
        if sowing_rule in first
        else Choice(sowing_rule, None)
        for sowing_rule in SowingRule
    ]


def windows_by(outlook: Outlook, last_frost_day: float | None) -> dict[SowingRule, list[Window]]:
    """Return the windows by each rule; none where the rules do not differ, as for crops that overwinter or are planted out.

    Parameters
    ----------
    outlook : Outlook
        The crop's outlook in the place.
    last_frost_day : float | None
        The usual last spring frost in days from day 0, negative when past; None: never any.
    """
    if outlook.crop.winter is not None or not len(outlook.days_to):
        return {}
    spans = spans_of(joined(outlook.day, outlook.success))
    return {
        SowingRule.MINIMUM: _at_minimum(outlook),
        SowingRule.COMFORTABLE: [_comfortable(outlook, *span) for span in spans],
        SowingRule.CALENDAR: _by_calendar(outlook, spans, last_frost_day),
    }


def _between(outlook: Outlook, first: int, last: int) -> Window:
    return window(first, last, outlook.day, outlook.success, outlook.failing, outlook.good)


def _at_minimum(outlook: Outlook) -> list[Window]:
    """Return the windows from when the soil has probably reached the minimum, on days that more likely than not give a crop."""
    reached = (outlook.soil_c >= outlook.crop.minimum_c - HALF_A_DEGREE_F).mean(axis=1) >= LIKELY
    windows = []
    for first, last in spans_of(joined(outlook.day, outlook.success, LIKELY)):
        warm = np.flatnonzero(reached[first : last + 1])
        if len(warm):
            windows.append(_between(outlook, first + int(warm[0]), last))
    return windows


def _comfortable(outlook: Outlook, first: int, last: int) -> Window:
    """Return the window from when the soil is reliably in the ideal range, or about as warm as this soil gets."""
    surely_c = outlook.soil_sure_c[first : last + 1]
    wanted_c = min(outlook.crop.optimum_from_c - HALF_A_DEGREE_F, float(surely_c.max()) - AS_WARM_K)
    start = first + int(np.argmax(surely_c >= wanted_c))
    window = _between(outlook, start, last)
    return replace(window, opens_after=Limit.UNCOMFORTABLE) if start > first else window


def _by_calendar(outlook: Outlook, spans: list[tuple[int, int]], last_frost_day: float | None) -> list[Window]:
    """Return the first span from its date on, whatever the soil temperature; a date long past keeps the rest of the season."""
    wanted = 0.0 if last_frost_day is None else last_frost_day + CALENDAR_D[outlook.crop.hardiness]
    windows = []
    for number, (first, last) in enumerate(spans):
        start = first
        if number == 0 and wanted >= -MISSED_D:
            start = int(np.searchsorted(outlook.day, max(wanted, 0.0)))
        if start <= last:
            window = _between(outlook, start, last)
            windows.append(replace(window, opens_after=Limit.DATE) if start != first and start > 0 else window)
    return windows


def _choice(outlook: Outlook, sowing_rule: SowingRule, index: int, lost_d: float) -> Choice:
    fails = 1 - float(outlook.success[index])
    limit = max(outlook.failing, key=lambda each: float(outlook.failing[each][index])) if fails >= 0.05 else None
    half_d, share = float(outlook.days_to[HALF, 1, index]), float(outlook.share[1, index])
    return Choice(sowing_rule, int(outlook.day[index]), fails, float(outlook.soil_mid_c[index]), half_d, share, lost_d, limit)


def _expected_up(outlook: Outlook, index: int) -> float:
    """Return the mean day on which half are up, if failures are noticed and sown again."""
    day, in_soil_d = float(outlook.day[index]), longest_in_soil_d(outlook.crop)
    fails, half_d = 1 - float(outlook.success[index]), float(outlook.days_to[HALF, 1, index])
    first = day + min(half_d, in_soil_d)
    again = min(int(np.searchsorted(outlook.day, day + in_soil_d)), len(outlook.day) - 1)
    second = day + in_soil_d + min(float(outlook.days_to[HALF, 1, again]), in_soil_d)
    return (1 - fails) * first + fails * second
