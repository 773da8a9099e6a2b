"""Queries on sowings and their progress."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from django.db.models import Prefetch, Q, QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed.models import Packet
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.bridge.services import crops
from cloche.bridge.services.beds import viability_of
from cloche_engine.crops.seeds import FRESH_RATE, Viability

FOLLOWED_D, YEAR_D = 150, 365


def sowings_in(garden: Garden) -> QuerySet[Sowing]:
    """Return the sowings in a garden's current places, latest first."""
    current = Place.objects.filter(garden=garden)
    rows = Sowing.objects.filter(place__in=current, removed_at__isnull=True).select_related("place", "packet")
    steps = Step.objects.order_by("on", "id").select_related("place", "left")
    return rows.prefetch_related(Prefetch("counts", Count.objects.order_by("on")), Prefetch("steps", steps))


def sowings_followed(garden: Garden, today: date, lately_d: int, raised: Iterable[int]) -> QuerySet[Sowing]:
    """Return the sowings a forecast follows: open ones, those of the past `lately_d` days, and a year's in places that raise
    plants.

    `raised` holds the numbers of those places.
    """
    still = Q(finished=False) | Q(sown_on__gt=today - timedelta(days=lately_d))
    return sowings_in(garden).filter(still | Q(place__in=raised, sown_on__gte=today - timedelta(days=YEAR_D)))


def viability(packet: Packet, today: date, sowings: list[Sowing]) -> Viability:
    """Return a packet's viability from its age, its germination test and its completely counted sowings."""
    crop = crops.crop(packet.crop_key)
    age_y = None if packet.packed_year is None else max(0, today.year - packet.packed_year)
    trials: list[tuple[int, int, float]] = []
    if packet.tested_of and packet.tested_up is not None:
        trials.append((packet.tested_of, packet.tested_up, 1.0))
    for sowing in sowings:
        if sowing.packet_id == packet.pk and sowing.finished and sowing.seeds and sowing.outlook:
            counts = [count.up for count in sowing.counts.all()]
            if counts:
                trials.append((sowing.seeds, min(max(counts), sowing.seeds), min(sowing.outlook.share, 0.999)))
    return viability_of(crop, age_y, trials)


def usual_rate(garden: Garden, crop_key: str, today: date) -> float:
    """Return the viable share of the seed in use, or that of fresh seed where nothing is known."""
    packet = Packet.objects.filter(garden=garden, crop_key=crop_key, in_use=True, removed_at__isnull=True).first()
    if packet is None:
        return FRESH_RATE
    return viability(packet, today, list(sowings_in(garden).filter(packet=packet, finished=True))).rate


def intended_in(garden: Garden) -> QuerySet[Intention]:
    """Return planned sowings that are neither made nor cancelled, earliest first."""
    current = Place.objects.filter(garden=garden)
    return Intention.objects.filter(place__in=current, made=None, dropped_at=None).select_related("place")


HALF, ALL = 0.5, 0.9
"""Shares of what is expected from which half of it, and all but stragglers, are up."""


class State(StrEnum):
    """State of a sowing today."""

    AWAITED = "awaited"
    """Nothing is up, and nothing had to be."""
    DUE = "due"
    """Half of it should be up by now; nobody has counted."""
    OVERDUE = "overdue"
    """Nothing has been counted after the day on which silence means failure."""
    COMING_UP = "coming_up"
    UP = "up"
    """Everything expected to come up has come up, apart from stragglers."""
    PLANTED_OUT = "planted_out"
    FINISHED = "finished"
    FAILED = "failed"
    """Finished, and nothing was ever up."""


@dataclass(frozen=True)
class Progress:
    """Progress of a sowing today.

    `counted` is the highest count (None without); `expected` low, middle and high of the final number (None if not known);
    `share` the part of it that is up, 0-1; `first_on`, `half_on` and `most_on` the days for the first, half and nearly all,
    counted (`half_counted`) or forecast; `overdue_on` the day from which it has failed.
    """

    state: State
    counted: int | None
    expected: tuple[int, int, int] | None
    share: float
    first_on: date | None
    half_on: date | None
    half_counted: bool
    most_on: date | None
    overdue_on: date | None

    @property
    def stands(self) -> bool:
        """Return whether seed or plants still need care where they were raised."""
        return self.state not in (State.PLANTED_OUT, State.FAILED)


def progress_of(sowing: Sowing, today: date) -> Progress:
    """Return progress from counts, steps and forecast."""
    counts = sorted((count.on, count.up) for count in sowing.counts.all())
    counted = max((up for _, up in counts), default=None)
    expected = _expected(sowing, counted)
    goal = _goal(sowing, counted, expected)
    first_on, _ = _reached(counts, None, 0.0, _forecast(sowing, "first"))
    half_on, half_counted = _reached(counts, goal, HALF, _forecast(sowing, "half"))
    most_on, _ = _reached(counts, goal, ALL, _forecast(sowing, "most"))
    overdue_on = sowing.outlook.overdue if sowing.outlook else None
    share = _share(sowing, counted, goal, today)
    state = _state(sowing, counted, share, half_on, overdue_on, today)
    return Progress(state, counted, expected, share, first_on, half_on, half_counted, most_on, overdue_on)


def _expected(sowing: Sowing, counted: int | None) -> tuple[int, int, int] | None:
    if not sowing.seeds or sowing.outlook is None or not sowing.outlook.up[1]:
        return None
    low, middle, high = (max(round(side[-1] * sowing.seeds / 100), counted or 0) for side in sowing.outlook.up)
    return low, middle, high


def _goal(sowing: Sowing, counted: int | None, expected: tuple[int, int, int] | None) -> float | None:
    """Return the number that counts as all: the result of a finished sowing or else what is expected; None if unknown."""
    if sowing.finished and counted:
        return float(counted)
    return max(float(expected[1]), 1.0) if expected else None


def _forecast(sowing: Sowing, name: str) -> date | None:
    day: date | None = getattr(sowing.outlook, name)[1] if sowing.outlook else None
    return day


def _reached(
    counts: list[tuple[date, int]], goal: float | None, share: float, forecast: date | None
) -> tuple[date | None, bool]:
    """Return the first count that reaches a share, or the forecast date but not before the last count."""
    seen = [on for on, up in counts if up and (goal is None or up >= share * goal)]
    if seen:
        return seen[0], True
    if counts and forecast is not None:
        return max(forecast, counts[-1][0] + timedelta(days=1)), False
    return forecast, False


def _share(sowing: Sowing, counted: int | None, goal: float | None, today: date) -> float:
    if counted is not None:
        return min(counted / goal, 1.0) if goal else float(counted > 0)
    if sowing.outlook is None or not sowing.outlook.up[1]:
        return 0.0
    curve = sowing.outlook.up[1]
    day = min(max((today - sowing.sown_on).days, 0), len(curve) - 1)
    return curve[day] / curve[-1] if curve[-1] else 0.0


def _state(
    sowing: Sowing, counted: int | None, share: float, half_on: date | None, overdue_on: date | None, today: date
) -> State:
    if any(step.kind == Step.Kind.PLANTED for step in sowing.steps.all()):
        return State.PLANTED_OUT
    if sowing.finished:
        return State.FINISHED if counted or counted is None else State.FAILED
    if counted:
        return State.UP if share >= ALL else State.COMING_UP
    if overdue_on is not None and overdue_on < today:
        return State.OVERDUE
    return State.DUE if half_on is not None and half_on <= today else State.AWAITED
