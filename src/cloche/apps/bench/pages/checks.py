"""What is checked of a heater before the season, and what has been ticked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.places.models import BenchCheck, Place
from cloche.apps.shared import words

SEASON_D = 200
"""A tick counts for one season; the next spring everything is checked again."""


@dataclass(frozen=True)
class Check:
    """A check with its text; `when` is the day of its latest tick, which counts if `done`."""

    item: str
    text: str
    when: str
    done: bool


@dataclass(frozen=True)
class Checks:
    """Context of bench/_checks.html."""

    headline: str
    lines: list[Check]
    all_done: bool


def checks_of(place: Place, today: date) -> Checks:
    """Return the checks of a heated place."""
    ticked = {check.item: check.on for check in place.bench_checks.all()}
    lines = []
    for item, text in _texts().items():
        on = ticked.get(item)
        done = on is not None and on > today - timedelta(days=SEASON_D)
        lines.append(Check(item, text, words.day(on, today) if on else "", done))
    ready = sum(line.done for line in lines)
    headline = _("All {number} checks are done for this season.").format(number=len(lines))
    if ready < len(lines):
        headline = _("{done} of {number} checks are done for this season.").format(done=ready, number=len(lines))
    return Checks(headline, lines, ready == len(lines))


def _texts() -> dict[str, str]:
    items = BenchCheck.Item
    return {
        items.RUN: _("Run it for an hour or two with a thermometer before you set any seed on it."),
        items.SPOTS: _("Read nine spots to find hot and cold ones, and save them as a test run."),
        items.BREAKER: _("The residual-current device (ground-fault switch) trips when its test button is pressed."),
        items.CABLE: _("The cable is undamaged, nowhere crossed or coiled, and covered along its whole length."),
        items.PROBE: _("The probe sits in a tray beside the roots and cannot slip out."),
        items.CUT_OUT: _("There is a second cut-out that works without the thermostat, and a spare thermostat in the shed."),
        items.OFF_FLOOR: _("The bench stands off the floor, out of reach of mice and standing water."),
        items.ROOTS: _("Trays stand on a root-proof sheet and can easily be lifted off for watering."),
        items.TIMER: _("The lamp’s timer switches only the lamp, never the heat."),
    }
