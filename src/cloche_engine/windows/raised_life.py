"""The life of raised plants: from their sowing under cover to their planting out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum
from math import ceil

from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.raising import HARDEN_D
from cloche_engine.germination.steady import LABORATORY, days_to_emergence, in_soil
from cloche_engine.heat.source import AFTER_ALL_D

STURDY_D = 18
"""Days after they are up from which set-points go down a couple of degrees: slower, and sturdier."""
USUALLY_UP_D = 7
"""Of a crop's weeks on the bench so many days are usually past before it is up."""
USUAL_CELL_M = 0.04
CELL_WEEKS, WEEKS_A_M = 1.5, 80.0
"""Weeks from emergence until roots fill a cell: four and a half in 4 cm, seven in 7 cm (assumption)."""


STEPS_C = (16.0, 14.0)
"""Set-points after emergence for seedlings that stay on the heat: most are germinated at about 20 °C, pricked out at 16 °C and
grown on at 14 °C (common practice, no source)."""
DOWN_K = 2.0
"""Under the other rules set-points go down once, by a couple of degrees (common practice, no source)."""


class HeatOffRule(StrEnum):
    """When raised plants come off the heat."""

    FIRST = "first"
    HALF = "half"
    ALL = "all"
    KEPT = "kept"


class Due(StrEnum):
    """Steps in raising plants."""

    HEAT_OFF = "heat_off"
    TURN_DOWN = "turn_down"
    POT_ON = "pot_on"
    HARDEN = "harden"
    PLANT = "plant"
    PUT_OUT = "put_out"


@dataclass(frozen=True)
class Raised:
    """State of a sowing that is being raised.

    Attributes
    ----------
    half_on, all_on, first_on : date or None
        Half, nearly complete and first emergence, observed or predicted.
    leaf_on : date or None
        First true leaf, if observed.
    potted_on, cell_m : date or None, float or None
        Last potting, and size of the cell [m].
    heated : bool
        Whether the place is heated.
    plant_from : date or None
        First day on which it may be planted out.
    hardening_on : date or None
        First day of hardening off, if it has begun.
    heat_is_off : bool
        Whether the heat has been turned off.
    start_c : float or None
        Temperature below which the thermostat heats; None without one [°C].
    lowered_on : tuple of date
        Dates on which its set-point was lowered for this sowing.
    """

    half_on: date | None
    all_on: date | None
    leaf_on: date | None = None
    potted_on: date | None = None
    cell_m: float | None = None
    heated: bool = False
    plant_from: date | None = None
    hardening_on: date | None = None
    heat_is_off: bool = False
    first_on: date | None = None
    start_c: float | None = None
    lowered_on: tuple[date, ...] = ()


def weeks_in_cell(cell_m: float) -> float:
    """Return the weeks from emergence or potting on until roots fill a cell.

    Parameters
    ----------
    cell_m : float
        Width of the cell [m].
    """
    return CELL_WEEKS + WEEKS_A_M * cell_m


def heat_off_on(raised: Raised, rule: HeatOffRule) -> date | None:
    """Return the date on which plants come off the heat; None if not in sight or if they stay on it.

    Parameters
    ----------
    raised : Raised
        The sowing.
    rule : HeatOffRule
        First emergence, half emergence, some days after all are up, or never.
    """
    if rule is HeatOffRule.KEPT:
        return None
    if rule is HeatOffRule.FIRST:
        return raised.first_on or raised.half_on
    if rule is HeatOffRule.HALF:
        return raised.half_on
    after = None if raised.all_on is None else raised.all_on + timedelta(days=AFTER_ALL_D)
    return raised.leaf_on or after


def turned_down_to(raised: Raised, rule: HeatOffRule) -> float | None:
    """Return the next lower set-point of a thermostat [°C]; None without one, or if it need not go lower.

    Parameters
    ----------
    raised : Raised
        The sowing.
    rule : HeatOffRule
        Plants that stay on the heat go down in steps, others once.
    """
    if raised.start_c is None:
        return None
    if rule is HeatOffRule.KEPT:
        return next((step for step in STEPS_C if step < raised.start_c), None)
    return None if raised.lowered_on else raised.start_c - DOWN_K


def _turn_down_on(raised: Raised, crop: Crop, rule: HeatOffRule) -> date | None:
    down = turned_down_to(raised, rule)
    if down is None or raised.half_on is None or raised.heat_is_off:
        return None
    if rule is not HeatOffRule.KEPT:
        return raised.half_on + timedelta(days=STURDY_D) if crop.season == "warm" else None
    sturdy = raised.half_on + timedelta(days=STURDY_D)
    return raised.half_on if down == STEPS_C[0] else max([sturdy, *(on + timedelta(days=STURDY_D) for on in raised.lowered_on)])


def next_steps(raised: Raised, crop: Crop, rule: HeatOffRule, today: date) -> list[tuple[Due, date]]:
    """Return the coming steps with their dates, in order.

    Parameters
    ----------
    raised : Raised
        The sowing.
    rule : HeatOffRule
        When the plants come off the heat.
    today : date
        The day; hardening that is not begun begins no sooner.
    """
    steps: list[tuple[Due, date]] = []
    off, down = heat_off_on(raised, rule), _turn_down_on(raised, crop, rule)
    if raised.heated and off and not raised.heat_is_off:
        steps.append((Due.HEAT_OFF, off))
    if down:
        steps.append((Due.TURN_DOWN, down))
    if raised.half_on:
        out = out_on(raised, crop, today)
        since = raised.potted_on or raised.half_on
        full = since + timedelta(days=ceil(7 * weeks_in_cell(raised.cell_m or USUAL_CELL_M)))
        if out is None or full < out:
            steps.append((Due.POT_ON, full))
        if out is not None:
            if raised.hardening_on is None:
                steps.append((Due.HARDEN, out - timedelta(days=HARDEN_D)))
            steps.append((Due.PLANT, out))
    return sorted(steps, key=lambda due: due[1])


def out_on(raised: Raised, crop: Crop, today: date) -> date | None:
    """Return the date on which plants are grown and hardened enough for planting out; None if not in sight.

    Parameters
    ----------
    raised : Raised
        The sowing.
    today : date
        The day.
    """
    if raised.plant_from is None or raised.half_on is None:
        return None
    grown = raised.half_on + timedelta(days=max(7 * crop.raise_weeks - USUALLY_UP_D, HARDEN_D))
    begun = max(raised.hardening_on or today, raised.half_on)
    return max(raised.plant_from, grown, begun + timedelta(days=HARDEN_D))


@dataclass(frozen=True)
class Raising:
    """Days before planting out: of sowing, of emergence and of hardening off; emergence_d until half are up."""

    sow_d: int
    up_d: int
    harden_d: int
    emergence_d: float


def raising(crop: Crop, bench_c: float | Sequence[float], plant_day: int = 0) -> Raising | None:
    """Return the days of raising, counted back through hardening off, growing on and emergence; None if seed does not come up
    on that bench.

    Weeks of raising are told of a bench at the crop's own germination temperature; what a colder one costs is added. Sowing
    days before day 0 take the first day's soil.

    Parameters
    ----------
    bench_c : float | Sequence[float]
        Soil of the bench [°C], one for all days or one a day from day 0, on the last of which it stays.
    plant_day : int
        The day of planting out.
    """
    usual_d = _up_in(crop, crop.germinate_c)
    grow_d = max(round(crop.raise_weeks * 7 - usual_d), HARDEN_D)
    up = plant_day - grow_d
    emergence_d = _counted_back(crop, bench_c, up)
    if emergence_d is None:
        return None
    return Raising(grow_d + ceil(emergence_d), grow_d, HARDEN_D, emergence_d)


def _counted_back(crop: Crop, bench_c: float | Sequence[float], up: int) -> float | None:
    if isinstance(bench_c, float | int):
        days = _up_in(crop, float(bench_c))
        return days if days < 200 else None
    made, day = 0.0, up
    while made < 1.0:
        day -= 1
        soil = bench_c[min(max(day, 0), len(bench_c) - 1)]
        made += 1.0 / _up_in(crop, soil)
        if up - day > 200:
            return None
    return float(up - day)


def _up_in(crop: Crop, soil_c: float) -> float:
    # Watered mix on a bench is the laboratory's soil rather than the garden's.
    return float(days_to_emergence(soil_c, crop, in_soil(crop, LABORATORY), crop.sowing_depth_m))
