"""Where each raised sowing has come to, and what comes next for it. Facts: texts tell them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from cloche.apps.bench.selectors import heat_on, planting_from, raised_on
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, Place
from cloche.apps.sowings.models import Sowing, Step
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import crops
from cloche.core.crops.catalogue import Crop
from cloche.core.windows.raised_life import Due, Raised, next_steps

HALF = 0.5


@dataclass(frozen=True)
class Life:
    """A sowing on the bench. up: share of what is expected that is up, seen or foretold, 0-1; due: what comes next; out: first
    day for planting it out and where; half_on, all_on: by which it is told."""

    sowing: Sowing
    crop: Crop
    raised: Raised
    up: float
    due: list[tuple[Due, date]]
    out: tuple[date, Place] | None
    heat: HeatPeriod | None

    def on(self, what: Due) -> date | None:
        """Its day for something; None: not in sight."""
        return next((day for due, day in self.due if due is what), None)


def lives_in(
    garden: Garden, today: date, raised: dict[int, Place] | None = None, sowings: Iterable[Sowing] | None = None
) -> list[Life]:
    """Every sowing that stands where plants are raised, in walking order of its place. raised, sowings: the garden's, where
    they are at hand."""
    places = {place.pk: place for place in raised_on(garden)} if raised is None else raised
    everything = sowings_in(garden) if sowings is None else sowings
    rows = [sowing for sowing in everything if sowing.place_id in places and _stands(sowing)]
    for sowing in rows:
        sowing.place = places[sowing.place_id]
    out = planting_from(garden, {sowing.crop_key for sowing in rows})
    lives = [life_of(sowing, garden, places[sowing.place_id], today, out.get(sowing.crop_key)) for sowing in rows]
    order = list(places)
    return sorted(lives, key=lambda one: (order.index(one.sowing.place_id), one.sowing.sown_on, one.sowing.pk))


def _stands(sowing: Sowing) -> bool:
    """Whether there is anything left to raise."""
    nothing = sowing.finished and not any(count.up for count in sowing.counts.all())
    return not nothing and not any(step.kind == Step.Kind.PLANTED for step in sowing.steps.all())


def life_of(sowing: Sowing, garden: Garden, place: Place, today: date, out: tuple[date, Place] | None) -> Life:
    """One of them."""
    crop = crops.crop(sowing.crop_key)
    steps = list(sowing.steps.all())
    period = heat_on(place, today)
    heated = period.source != HeatPeriod.Kind.HOUSE if period else place.kind in ("mat", "box", "cable", "hotbed")
    last = {step.kind: step for step in steps}
    potted = next((step for step in reversed(steps) if step.cell_m is not None), None)
    raised = Raised(
        half_on=_half_on(sowing),
        all_on=sowing.outlook.most[1] if sowing.outlook else None,
        leaf_on=last[Step.Kind.LEAF].on if Step.Kind.LEAF in last else None,
        potted_on=potted.on if potted else None,
        cell_m=sowing.cell_m,
        heated=heated,
        ruled=period is not None and period.control == HeatPeriod.Control.THERMOSTAT,
        plant_from=max(out[0], today) if out else None,
        hardening_on=last[Step.Kind.HARDENING].on if Step.Kind.HARDENING in last else None,
        heat_is_off=Step.Kind.HEAT_OFF in last,
    )
    due = next_steps(raised, crop, garden.heat_off_rule == Garden.HeatOffRule.HALF, today)
    return Life(sowing, crop, raised, _up(sowing, today), due, out, period)


def _expected(sowing: Sowing) -> float | None:
    if not sowing.seeds or not sowing.outlook or not sowing.outlook.up[1]:
        return None
    return max(sowing.outlook.up[1][-1] / 100 * sowing.seeds, 1.0)


def _half_on(sowing: Sowing) -> date | None:
    """Half of what is expected up: the first count that shows it, else as foretold."""
    expected = _expected(sowing)
    seen = [count.on for count in sowing.counts.all() if count.up and (not expected or count.up >= HALF * expected)]
    return min(seen) if seen else sowing.outlook.half[1] if sowing.outlook else None


def _up(sowing: Sowing, today: date) -> float:
    expected, counts = _expected(sowing), [count.up for count in sowing.counts.all()]
    if counts:
        return min(counts[-1] / expected, 1.0) if expected else float(counts[-1] > 0)
    if sowing.outlook is None or not sowing.outlook.up[1]:
        return 0.0
    curve = sowing.outlook.up[1]
    day = min(max((today - sowing.sown_on).days, 0), len(curve) - 1)
    return curve[day] / curve[-1] if curve[-1] else 0.0


def days_up(life: Life, today: date) -> int:
    """Days since half of it was up; 0 while it is not."""
    half = life.raised.half_on
    return max((today - half).days, 0) if half else 0
