"""Germination trials in words and pictures: shares and days to half with their intervals, beside the table values."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from functools import cache, partial
from math import isfinite
from typing import TYPE_CHECKING

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.trials.models import GerminationTrial, TrialBatch
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.geometry import Linear, Tick, path

if TYPE_CHECKING:
    from cloche.bridge.services.trials import BatchResult

WIDTH, HEIGHT, LEFT, RIGHT, TOP, GROUND = 640.0, 210.0, 40.0, 540.0, 12.0, 180.0
FEWEST_D = 10


@dataclass(frozen=True)
class BatchLine:
    """One batch in words.

    `counts` holds numbers and texts; `tested` tells whether its packet can take the result.
    """

    batch: TrialBatch
    name: str
    share: str
    half: str
    expected: str
    counts: list[tuple[int, str]]
    tested: bool


@dataclass(frozen=True)
class Curve:
    """Step curve of a batch's counts with a label at its end."""

    steps: str
    x: float
    y: float
    name: str


@dataclass(frozen=True)
class TrialPage:
    """Context of trials/trial.html."""

    headline: str
    lines: list[BatchLine]
    curves: list[Curve]
    days: list[Tick]
    values: list[Tick]


def trial_page(trial: GerminationTrial, units: Units, today: date) -> TrialPage:
    """Build the page of a trial with all its batches."""
    from cloche.bridge.services.trials import result

    batches = list(trial.batches.select_related("packet", "place").prefetch_related("counts"))
    lines, done = [], []
    soil = cache(partial(soil_since, trial, today))
    for batch in batches:
        warmth = warmth_of(batch, soil)
        counts = [(count.on, count.up) for count in batch.counts.all()]
        batch_result = result(batch.crop_key, batch.seeds, trial.begun_on, counts, warmth)
        done.append((batch, batch_result))
        lines.append(_line(batch, batch_result, warmth, trial, units, today))
    span = max([FEWEST_D, *((count.on - trial.begun_on).days for batch in batches for count in batch.counts.all())])
    x, y = Linear(0, span, LEFT, RIGHT), Linear(0, 1, GROUND, TOP)
    return TrialPage(
        _headline(trial, done, units),
        lines,
        [_curve(batch, line.name, trial, x, y) for batch, line in zip(batches, lines, strict=True) if batch.counts.all()],
        [Tick(round(x(day), 1), str(day)) for day in range(0, span + 1, max(1, round(span / 8)))],
        [Tick(round(y(share), 1), f"{100 * share:.0f}") for share in (0.0, 0.25, 0.5, 0.75, 1.0)],
    )


def warmth_of(batch: TrialBatch, soil: Callable[[Place], float | None]) -> float | None:
    """Return the temperature of a batch as set, or the mean of its place since the trial began [°C]; None if unknown."""
    return batch.warmth_c if batch.warmth_c is not None or batch.place is None else soil(batch.place)


def soil_since(trial: GerminationTrial, today: date, place: Place) -> float | None:
    """Return the mean soil temperature of a place during a trial [°C]; None if unknown."""
    days = max(((trial.ended_on or today) - trial.begun_on).days, 1)
    soil = forecasts.daily_soil(place, forecasts.ground_of(place), trial.begun_on, days)
    known = [value for value in soil if value is not None]
    return sum(known) / len(known) if known else None


def _line(
    batch: TrialBatch, batch_result: BatchResult, warmth: float | None, trial: GerminationTrial, units: Units, today: date
) -> BatchLine:
    name = crops.crop(batch.crop_key).name
    if batch.packet and batch.packet.variety:
        name = f"{name}, {batch.packet.variety}"
    where = units.temperature_text(warmth) if warmth is not None else ""
    if batch.place is not None:
        where = f"{batch.place.name} {where}".strip()
    share = batch_result.share
    text = _("{up} of {seeds}: {share}% ({low}–{high}%)").format(
        up=share.up,
        seeds=share.seeds,
        share=f"{100 * share.share:.0f}",
        low=f"{100 * share.low:.0f}",
        high=f"{100 * share.high:.0f}",
    )
    counts = [
        (count.pk, _("{day}: {up} up").format(day=words.day(count.on, today), up=count.up)) for count in batch.counts.all()
    ]
    return BatchLine(
        batch,
        f"{name}, {where}" if where else name,
        text,
        _half(batch_result),
        _expected(batch_result, warmth),
        counts,
        bool(batch.packet and share.up),
    )


def _half(batch_result: BatchResult) -> str:
    half = batch_result.half
    if half is None:
        return _("too few to say")
    high = number_text(f"{half.high:.1f}") if isfinite(half.high) else _("many")
    return _("{days} days ({low} to {high})").format(
        days=number_text(f"{half.days:.1f}"), low=number_text(f"{half.low:.1f}"), high=high
    )


def _expected(batch_result: BatchResult, warmth: float | None) -> str:
    if warmth is None:
        return ""
    if batch_result.expected_d is None:
        return _("none would come up")
    return _("{days} days, {share}% of viable seed").format(
        days=f"{batch_result.expected_d:.0f}", share=f"{100 * (batch_result.expected_share or 0.0):.0f}"
    )


def _headline(trial: GerminationTrial, done: list[tuple[TrialBatch, BatchResult]], units: Units) -> str:
    counted = [(batch, batch_result) for batch, batch_result in done if batch_result.share.up]
    if not counted:
        return _("{name}: nothing is up yet.").format(name=trial.name)
    batch, best = max(counted, key=lambda pair: (pair[1].share.share, -(pair[1].half.days if pair[1].half else 999.0)))
    where = units.temperature_text(batch.warmth_c, 0) if batch.warmth_c is not None else batch.place.name if batch.place else ""
    return _("{name}: best result {crop} at {where}, {share}%.").format(
        name=trial.name, crop=crops.crop(batch.crop_key).name, where=where, share=f"{100 * best.share.share:.0f}"
    )


def _curve(batch: TrialBatch, name: str, trial: GerminationTrial, x: Linear, y: Linear) -> Curve:
    points, last = [(x(0), y(0))], 0.0
    for count in batch.counts.all():
        day, share = (count.on - trial.begun_on).days, count.up / batch.seeds
        points += [(x(day), y(last)), (x(day), y(share))]
        last = share
    return Curve(path(points), round(points[-1][0], 1), round(points[-1][1], 1), name)
