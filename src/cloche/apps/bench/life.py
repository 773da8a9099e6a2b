"""Where each raised sowing has come to, and what comes next for it. Facts: texts tell them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from itertools import pairwise

from cloche.apps.bench.selectors import heat_on, planting_from, raised_on
from cloche.apps.forecasts.selectors import ground_of, soil_of
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, Place
from cloche.apps.sowings.models import Sowing, Step
from cloche.apps.sowings.selectors import Progress, State, progress_of, sowings_in
from cloche.apps.windows.prospects import prospects_for
from cloche.bridge.services import beds, crops
from cloche_engine.crops.catalogue import Crop
from cloche_engine.places.kinds import BENCH_KINDS, BENCHES
from cloche_engine.windows.raised_life import Due, HeatOffRule, Raised, next_steps, turned_down_to


@dataclass(frozen=True)
class Life:
    """A sowing that is being raised: `due` is its next step, `out` the first day for planting it out and where.

    `rule` is the sowing's own rule for taking it off the heat, or else the garden's.
    """

    sowing: Sowing
    crop: Crop
    raised: Raised
    rule: HeatOffRule
    progress: Progress
    due: list[tuple[Due, date]]
    out: tuple[date, Place] | None
    heat: HeatPeriod | None

    @property
    def up(self) -> float:
        """Emerged fraction of the expected number, counted or predicted, 0-1."""
        return self.progress.share

    @property
    def lower_c(self) -> float | None:
        """Next lower set-point of the thermostat [°C], if any."""
        return turned_down_to(self.raised, self.rule)

    def on(self, what: Due) -> date | None:
        """Return the date of a step, None if not in sight."""
        return next((day for due, day in self.due if due is what), None)


def lives_in(
    garden: Garden, today: date, raised: dict[int, Place] | None = None, sowings: Iterable[Sowing] | None = None
) -> list[Life]:
    """Return every sowing in a place for raising plants, in walking order.

    `raised` and `sowings` are those of the garden, if already loaded.
    """
    places = {place.pk: place for place in raised_on(garden)} if raised is None else raised
    everything = sowings_in(garden) if sowings is None else sowings
    rows = [sowing for sowing in everything if sowing.place_id in places and _stands(sowing, today)]
    for sowing in rows:
        sowing.place = places[sowing.place_id]
    out = planting_from(garden, {sowing.crop_key for sowing in rows})
    lives = [life_of(sowing, garden, places[sowing.place_id], today, out.get(sowing.crop_key)) for sowing in rows]
    order = list(places)
    return sorted(lives, key=lambda life: (order.index(life.sowing.place_id), life.sowing.sown_on, life.sowing.pk))


def _stands(sowing: Sowing, today: date) -> bool:
    """Return whether any plants are left to raise."""
    return progress_of(sowing, today).stands


def life_of(sowing: Sowing, garden: Garden, place: Place, today: date, out: tuple[date, Place] | None) -> Life:
    """Return the state of one sowing."""
    crop = crops.crop(sowing.crop_key)
    steps = list(sowing.steps.all())
    period = heat_on(place, today)
    heated = period.source != HeatPeriod.Kind.HOUSE if period else place.kind in ("mat", "box", "cable", "hotbed")
    last = {step.kind: step for step in steps}
    potted = next((step for step in reversed(steps) if step.cell_m is not None), None)
    progress = progress_of(sowing, today)
    raised = Raised(
        half_on=progress.half_on,
        all_on=progress.most_on,
        leaf_on=last[Step.Kind.LEAF].on if Step.Kind.LEAF in last else None,
        potted_on=potted.on if potted else None,
        cell_m=sowing.cell_m,
        heated=heated,
        first_on=progress.first_on,
        start_c=period.start_c if period and period.control == HeatPeriod.Control.THERMOSTAT else None,
        lowered_on=_lowered_on(place, steps, sowing.sown_on),
        plant_from=max(out[0], today) if out else None,
        hardening_on=last[Step.Kind.HARDENING].on if Step.Kind.HARDENING in last else None,
        heat_is_off=Step.Kind.HEAT_OFF in last,
    )
    # Where nothing has shown when silence means failure, the sowing is to be looked at before anything else is advised.
    silent = progress.state in (State.OVERDUE, State.FAILED)
    rule = HeatOffRule(sowing.heat_off_rule or garden.heat_off_rule)
    due = [] if silent else next_steps(raised, crop, rule, today)
    return Life(sowing, crop, raised, rule, progress, due, out, period)


def _lowered_on(place: Place, steps: list[Step], since: date) -> tuple[date, ...]:
    """Return the days on which the thermostat was turned down since a sowing, by a job or at its tray."""
    ticked = {step.on for step in steps if step.kind == Step.Kind.TURNED_DOWN}
    thermostats = [period for period in place.heat_periods.all() if period.control == HeatPeriod.Control.THERMOSTAT]
    lower = {after.first for before, after in pairwise(thermostats) if after.start_c < before.start_c and after.first > since}
    return tuple(sorted(ticked | lower))


def waits_to_go_out(life: Life) -> bool:
    """Return whether a sowing stands where plants are raised and has a bed to go to."""
    planted = any(step.kind == Step.Kind.PLANTED for step in life.sowing.steps.all())
    return life.out is not None and life.sowing.place.kind in BENCH_KINDS and not planted


def ripe_on(life: Life, today: date) -> date | None:
    """Return the predicted first harvest of a sowing: where it stands, or in the bed it goes out to; None if unknown."""
    sowing = life.sowing
    if life.out is not None and waits_to_go_out(life):
        day, bed = max(life.on(Due.PLANT) or life.out[0], today), life.out[1]
        wanted = (bed.pk, sowing.crop_key, False, day)
        prospect = prospects_for([wanted], today).get(wanted)
        return prospect.harvest_on if prospect else None
    planted = next((step.on for step in sowing.steps.all() if step.kind == Step.Kind.PLANTED), None)
    if planted is None and sowing.place.kind in BENCHES:
        return None
    begins = planted or life.progress.half_on
    if begins is None:
        return None
    soil = soil_of(sowing.place, ground_of(sowing.place), today)
    mean_c, latitude_deg = soil.since(begins), sowing.place.garden.latitude_deg
    return beds.course(sowing.crop_key, begins, mean_c, latitude_deg, planted is not None).ripe if mean_c else None


def days_up(life: Life, today: date) -> int:
    """Return the days since half emergence, 0 before it."""
    half = life.raised.half_on
    return max((today - half).days, 0) if half else 0
