"""Jobs with plants: sow, count, plant, raise and protect."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date, timedelta

from cloche.apps.bench.life import Life
from cloche.apps.bench.tubers import TuberDue, sprouting_of, trays_in
from cloche.apps.covers.forms import WARMED
from cloche.apps.covers.selectors import pairs_of, trials_in
from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import filled_on
from cloche.apps.plan import texts
from cloche.apps.plan.pages.bed import patch_of
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.sowings.models import Intention, Sowing, Step
from cloche.apps.sowings.selectors import State, progress_of
from cloche.apps.today.after import Frosted
from cloche.apps.today.jobs.job import (
    DAY_H,
    MORNING_H,
    AlarmFacts,
    Facts,
    FrostedFacts,
    HotbedFacts,
    Job,
    JobKind,
    LastDayFacts,
    PlantFacts,
    RaisedFacts,
    SowFacts,
    TrialFacts,
    TuberFacts,
    UpFacts,
    WarmFacts,
)
from cloche.apps.windows.pages.ground import Grounds
from cloche.apps.windows.prospects import prospect_on, prospects_for
from cloche.bridge.services import crops, hotbeds
from cloche_engine.places.kinds import BENCHES
from cloche_engine.results import Harm
from cloche_engine.windows.limits import Limit
from cloche_engine.windows.raised_life import Due

CLOSING_D, TOP_UP_D, SOWN_AGO_D = 7, 12, 40
AHEAD_D = (4, 16)
"""So many days before a sowing a bed is covered: a week or more (common practice, no source)."""


def _job(kind: JobKind, subject: object, place: Place, facts: Facts, crop_key: str = "", at_h: float = DAY_H) -> Job:
    return Job(kind, str(subject), place.garden_id, place.name, place.pk, at_h, facts, crop_key)


def intended(meant_in: list[Intention], today: date) -> Iterator[Job]:
    """Yield sowings planned for today or earlier with the current state of the ground."""
    meant = [intention for intention in meant_in if intention.sow_on <= today]
    if not meant:
        return
    keys = {(intention.place_id, intention.crop_key) for intention in meant}
    rows = CropOutlook.objects.filter(
        place_id__in={place for place, _key in keys},
        crop_key__in={key for _place, key in keys},
        method=CropOutlook.Method.DIRECT,
    ).only("place_id", "crop_key", "method", "sow_now", "half_d", "share", "windows", "main_limit", "hopeless", "days")
    outlooks = {(row.place_id, row.crop_key): row for row in rows}
    for intention in meant:
        facts = _sow_facts(intention, outlooks.get((intention.place_id, intention.crop_key)), today)
        yield _job(JobKind.SOW, intention.pk, intention.place, facts, intention.crop_key, DAY_H - 1)


def _sow_facts(intention: Intention, outlook: CropOutlook | None, today: date) -> SowFacts:
    if outlook is None or outlook.half_d is None:
        return SowFacts(intention.sow_on)
    opens = outlook.windows[0].earliest if outlook.windows else None
    limit = outlook.windows[0].opens_after if outlook.windows else Limit(outlook.main_limit or Limit.COLD)
    prospect = prospect_on(outlook, today, today)
    chance = prospect.chance if prospect else None
    return SowFacts(intention.sow_on, outlook.half_d, outlook.share, outlook.sow_now, opens, limit, chance)


def warming(garden: Garden, meant_in: list[Intention], grounds: Grounds, free: list[str], today: date) -> Iterator[Job]:
    """Yield free covers to put on ahead of a planned sowing where the bare bed will be too cold."""
    by_place = {place.pk: ground for place, ground in grounds}
    for intention in meant_in:
        ground, days = by_place.get(intention.place_id), (intention.sow_on - today).days
        if ground is None or not free or not AHEAD_D[0] <= days <= AHEAD_D[1] or _is_covered(intention, ground):
            continue
        crop = crops.crop(intention.crop_key)
        wanted_c = crop.minimum_c if garden.sowing_rule == Garden.SowingRule.MINIMUM else crop.optimum_from_c
        week = ground.data.far_mid_c[days : days + 7]
        if week and sum(week) / len(week) < wanted_c:
            warm_d = min((d for d, _ in WARMED), key=lambda d: abs(d - days))
            facts = WarmFacts(intention.sow_on, sum(week) / len(week), wanted_c, tuple(free), warm_d)
            yield _job(JobKind.WARM, intention.pk, intention.place, facts, intention.crop_key)


def _is_covered(intention: Intention, ground: Ground) -> bool:
    planned = intention.place.cover_periods.filter(first__lte=intention.sow_on).exclude(last__lt=intention.sow_on).exists()
    watch = ground.forecast.watch
    return planned or watch is None or watch.covered is not None


def awaited(made: list[Sowing], today: date) -> Iterator[Job]:
    """Yield sowings that should have emerged by now."""
    for sowing in made:
        progress = progress_of(sowing, today)
        if progress.state is State.OVERDUE and progress.overdue_on is not None:
            yield _job(JobKind.OVERDUE, sowing.pk, sowing.place, UpFacts(progress.overdue_on), sowing.crop_key)
        elif progress.state is State.DUE and progress.half_on is not None:
            yield _job(JobKind.COUNT, sowing.pk, sowing.place, UpFacts(progress.half_on), sowing.crop_key)


def closing(windows: dict[str, list[forecasts.Sown]], made: list[Sowing], today: date) -> Iterator[Job]:
    """Yield windows that close within the week, for crops not sown lately."""
    lately = {row.crop_key for row in made if row.sown_on > today - timedelta(days=SOWN_AGO_D)}
    for key, rows in windows.items():
        rows_closing = _last_chance([row for row in rows if row.place.kind not in BENCHES])
        if rows_closing is None or key in lately:
            continue
        day, place, again = rows_closing
        if (day - today).days <= CLOSING_D:
            facts = LastDayFacts(day, (again[0], again[1].name) if again else None)
            yield _job(JobKind.LAST_DAY, key, place, facts, key)


def _last_chance(rows: list[forecasts.Sown]) -> tuple[date, Place, tuple[date, Place] | None] | None:
    """Return the last day and place of a crop's open windows, with the next window to open if any.

    None where none is open or one has no end in sight.
    """
    now = [row for row in rows if row.windows and row.sow_now]
    if not now or any(row.windows[0].open_ended for row in now):
        return None
    day, place = max(((row.windows[0].last, row.place) for row in now), key=lambda pair: pair[0])
    later = [(window.earliest, row.place) for row in rows for window in row.windows[1 if row.sow_now else 0 :]]
    if any(first <= day for first, _ in later):
        return None
    return day, place, min(later, key=lambda pair: pair[0], default=None)


def after_frost(frosted: Sequence[Frosted]) -> Iterator[Job]:
    """Yield one job for the garden to check plants after damaging frost."""
    hurt = tuple(sowing for sowing in frosted if sowing.what.harm is not Harm.UNHURT)
    if hurt:
        yield _job(JobKind.AFTER_FROST, hurt[0].place.garden_id, hurt[0].place, FrostedFacts(hurt))


def trials(garden: Garden, today: date) -> Iterator[Job]:
    """Yield running trials without a pair of readings today."""
    for trial in trials_in(garden):
        if trial.ended_on is None and not pairs_of(trial, since=today):
            yield _job(JobKind.TRIAL, trial.pk, trial.covered, TrialFacts(trial.pk, trial.bare.name), at_h=MORNING_H)


def hotbed(ground: Ground, today: date) -> Iterator[Job]:
    """Yield a hotbed that is about to cool."""
    times = hotbeds.times_of(ground.data, ground.forecast.day, filled_on(ground.place))
    if times.fades is not None and 0 <= (times.fades - today).days <= TOP_UP_D:
        yield _job(JobKind.TOP_UP, ground.place.pk, ground.place, HotbedFacts(times.fades))


MOST = 12


def planned(garden: Garden, today: date) -> Iterator[Job]:
    """Yield plantings due today or earlier, oldest first."""
    rows = plantings_in(garden).filter(planted_on=None, planned_on__lte=today, ended_on=None).exclude(crop_key="")
    meant = sorted(rows, key=lambda planting: (planting.planned_on or today, planting.pk))[:MOST]
    if not meant:
        return
    prospects = prospects_for([(planting.place_id, planting.crop_key, planting.is_seeded, today) for planting in meant], today)
    for planting in meant:
        sown = planting.is_seeded
        count = texts.how_many(planting, patch_of(planting)) or 0
        name = texts.plants_of(planting) if count != 1 else texts.crop_name(planting)
        prospect = prospects.get((planting.place_id, planting.crop_key, sown, today))
        chance = None if prospect is None else 1 - prospect.chance
        facts = PlantFacts(planting.pk, planting.planned_on or today, f"{count} {name}", sown, chance)
        yield Job(
            JobKind.PLANT, str(planting.pk), garden.pk, planting.place.name, planting.place_id, DAY_H, facts, planting.crop_key
        )


WRITES = {Due.HEAT_OFF: Step.Kind.HEAT_OFF, Due.TURN_DOWN: Step.Kind.TURNED_DOWN, Due.HARDEN: Step.Kind.HARDENING}
"""What a tick writes into a sowing's life; the others need to say where or into what."""


def raised(lives: list[Life], today: date) -> Iterator[Job]:
    """Yield steps of raised plants that are due."""
    for life in lives:
        for what, on in life.due:
            if on <= today:
                place, step = life.sowing.place, WRITES.get(what, "")
                facts = RaisedFacts(life, what, on, str(step))
                where = (f"{life.sowing.pk}-{what}", place.garden_id, place.name, place.pk)
                yield Job(JobKind.RAISE, *where, DAY_H + 0.5, facts, life.crop.key)


def put_out(lives: list[Life], grounds: Grounds, today: date) -> Iterator[Job]:
    """Yield plants brought in for the cold that can go back out, since the coming night is safe."""
    known = {place.pk: ground for place, ground in grounds}
    for life in lives:
        moves = [step for step in life.sowing.steps.all() if step.left_id is not None]
        if not moves or moves[-1].kind != Step.Kind.BROUGHT_IN:
            continue
        ground = known.get(moves[-1].left_id or 0)
        watch = ground.forecast.watch if ground else None
        if watch is not None and watch.nights and watch.nights[0].way is None:
            place = life.sowing.place
            where = (f"{life.sowing.pk}-{Due.PUT_OUT}", place.garden_id, place.name, place.pk)
            yield Job(JobKind.RAISE, *where, MORNING_H + 2, RaisedFacts(life, Due.PUT_OUT, today), life.crop.key)


def sprouting(garden: Garden, grounds: Grounds, today: date) -> Iterator[Job]:
    """Yield trays of seed potatoes that frost threatens, or that are to be planted."""
    known = {place.pk: ground for place, ground in grounds}
    for tray in trays_in(garden, today):
        state = sprouting_of(tray, known.get(tray.place_id), today)
        due = None if tray.planted_on else state.due(today)
        if due is not None:
            where = (f"{tray.pk}-{due}", garden.pk, tray.place.name, tray.place_id)
            yield Job(JobKind.TUBERS, *where, DAY_H, TuberFacts(state, due), tray.crop_key, urgent=due is TuberDue.FROST)


def alarm(ground: Ground) -> Iterator[Job]:
    """Yield a heater that does not work as it should."""
    heat_alarm, place = ground.data.alarm, ground.place
    if heat_alarm is not None:
        where = (f"{place.pk}-{heat_alarm.fault}", place.garden_id, place.name, place.pk)
        yield Job(JobKind.HEAT, *where, MORNING_H - 1, AlarmFacts(heat_alarm), urgent=True)
