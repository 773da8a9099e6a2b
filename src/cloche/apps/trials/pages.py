"""Germination trials in words and pictures: shares and days to half with their intervals, beside the table values."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from functools import cache, partial
from math import isfinite
from typing import TYPE_CHECKING

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.places.models import Place
from cloche.apps.seed.selectors import values_in_use
from cloche.apps.shared import words
from cloche.apps.trials.models import GerminationTrial, TrialBatch
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.germination import ByWarmth, Course, by_warmth, course

if TYPE_CHECKING:
    from django.forms import BoundField

    from cloche.apps.trials.forms import CountGrid
    from cloche.bridge.services.trials import BatchResult, Pace

FEWEST_D = 10


@dataclass(frozen=True)
class BatchLine:
    """One batch in words.

    `counts` holds numbers and texts; `tested` tells whether its packet can take the result.
    """

    batch: TrialBatch
    name: str
    crop: str
    warmth: str
    share: str
    half: str
    expected: str
    brief: str
    counts: list[tuple[int, str]]
    tested: bool


@dataclass(frozen=True)
class TrialPage:
    """Context of trials/trial.html."""

    headline: str
    lines: list[BatchLine]
    courses: list[Course]
    warmths: list[str] = field(default_factory=list)
    table: list[tuple[str, list[BatchLine | None]]] = field(default_factory=list)
    responses: list[ByWarmth] = field(default_factory=list)
    learned: list[LearnedLine] = field(default_factory=list)

    def rows_with(self, grid: CountGrid) -> list[tuple[str, list[tuple[BatchLine, BoundField] | None]]]:
        """Return the rows of the table with the fields of their counts; without a table, a row for each batch."""
        rows: list[tuple[str, list[BatchLine | None]]] = self.table or [(line.name, [line]) for line in self.lines]
        return [
            (name, [None if line is None else (line, grid[f"up_{line.batch.pk}"]) for line in cells]) for name, cells in rows
        ]


@dataclass(frozen=True)
class LearnedLine:
    """What a trial taught about a crop; `pace` is None where it tells no more than the shares."""

    crop_key: str
    text: str
    pace: Pace | None
    in_use: bool


def trial_page(trial: GerminationTrial, units: Units, today: date) -> TrialPage:
    """Build the page of a trial with all its batches."""
    batches = _batches(trial)
    lines, done = [], []
    soil = cache(partial(soil_since, trial, today))
    for batch in batches:
        warmth = warmth_of(batch, soil)
        batch_result = _result(batch, trial, warmth)
        done.append((batch, batch_result))
        lines.append(_line(batch, batch_result, warmth, trial, units, today))
    warmths = sorted({batch.warmth_c for batch in batches if batch.warmth_c is not None})
    table = _table(lines, warmths)
    return TrialPage(
        _headline(trial, done, units),
        lines,
        _courses(trial, lines),
        [warmth_text(warmth, units) for warmth in warmths],
        table,
        _responses(done, units) if table else [],
        _learned(trial, done, units),
    )


def warmth_text(warmth_c: float, units: Units) -> str:
    """Return a set temperature, with a decimal only where it has one."""
    shown = units.temperature_from_c(warmth_c)
    return units.temperature_text(warmth_c, 0 if abs(shown - round(shown)) < 0.05 else 1)


def _table(lines: list[BatchLine], warmths: list[float]) -> list[tuple[str, list[BatchLine | None]]]:
    """Return the batches as a table of crops and temperatures; empty if they are not one batch for each pair."""
    at = {(line.batch.crop_key, line.batch.packet_id, line.batch.warmth_c): line for line in lines}
    if len(warmths) < 2 or len(at) < len(lines) or any(line.batch.warmth_c is None for line in lines):
        return []
    seeds = dict.fromkeys((line.batch.crop_key, line.batch.packet_id) for line in lines)
    names = {(line.batch.crop_key, line.batch.packet_id): line.crop for line in lines}
    return [(names[seed], [at.get((*seed, warmth)) for warmth in warmths]) for seed in seeds]


def _responses(done: list[tuple[TrialBatch, BatchResult]], units: Units) -> list[ByWarmth]:
    """Return a drawing for each crop: the share that came up at each temperature, beside the tables."""
    drawn = []
    for key in dict.fromkeys(batch.crop_key for batch, _done in done):
        mine = [(batch, batch_result) for batch, batch_result in done if batch.crop_key == key and batch.counts.all()]
        points = [(b.warmth_c, r.share.share, r.share.low, r.share.high) for b, r in mine if b.warmth_c is not None]
        if len({point[0] for point in points}) < 2:
            continue
        expected = [(b.warmth_c, r.expected_share or 0.0) for b, r in mine if b.warmth_c is not None]
        labels = [(point[0], units.temperature_text(point[0], 0)) for point in points]
        drawn.append(by_warmth(words.sentence(crops.crop(key).name_plural), sorted(points), sorted(set(expected)), labels))
    return drawn


def learned_of(trial: GerminationTrial, units: Units) -> list[LearnedLine]:
    """Return what a trial taught about each of its crops with temperatures of their own."""
    return _learned(trial, [(batch, _result(batch, trial, batch.warmth_c)) for batch in _batches(trial)], units)


def _batches(trial: GerminationTrial) -> list[TrialBatch]:
    return list(trial.batches.select_related("packet", "place").prefetch_related("counts"))


def _result(batch: TrialBatch, trial: GerminationTrial, warmth_c: float | None) -> BatchResult:
    from cloche.bridge.services.trials import result

    counts = [(count.on, count.up) for count in batch.counts.all()]
    return result(batch.crop_key, batch.seeds, trial.begun_on, counts, warmth_c)


def _learned(trial: GerminationTrial, done: list[tuple[TrialBatch, BatchResult]], units: Units) -> list[LearnedLine]:
    from cloche.bridge.services.trials import pace_of

    lines, in_use = [], values_in_use(trial.garden)
    for key in dict.fromkeys(batch.crop_key for batch, _done in done):
        mine = [(b, r) for b, r in done if b.crop_key == key and b.warmth_c is not None and b.counts.all()]
        if not any(batch_result.share.up for _batch, batch_result in mine):
            continue
        pace = pace_of([(r.half, r.expected_d) for _b, r in mine if r.half is not None and r.expected_d is not None])
        name = words.sentence(crops.crop(key).name_plural)
        parts = [_coldest(name, mine, units)] if len(mine) > 1 else []
        if pace is not None:
            text = _("{name} took {times} times as long as in the tables ({low} to {high}), from {batches}.")
            numbers = {side: number_text(f"{getattr(pace, side):.2f}") for side in ("times", "low", "high")}
            parts.append(text.format(name=name, batches=words.count(pace.batches, "batch", "batches"), **numbers))
        followed = pace is not None and in_use.get(key, {}).get("pace") == round(pace.times, 2)
        if parts:
            lines.append(LearnedLine(key, " ".join(parts), pace, followed))
    return lines


def _coldest(name: str, mine: list[tuple[TrialBatch, BatchResult]], units: Units) -> str:
    """Return the coldest temperature at which at least half as many came up as at the best."""
    best = max(batch_result.share.share for _batch, batch_result in mine)
    coldest = min(batch.warmth_c for batch, r in mine if r.share.share >= best / 2 and batch.warmth_c is not None)
    return _("{name}: at {coldest} and above, at least half as many came up as at the best temperature.").format(
        name=name, coldest=warmth_text(coldest, units)
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
        name,
        _("unknown") if warmth is None else warmth_text(warmth, units),
        text,
        _half(batch, batch_result, trial),
        _expected(batch_result, warmth),
        _brief(batch_result) if counts else _("of {seeds}").format(seeds=batch.seeds),
        counts,
        bool(batch.packet and share.up),
    )


def _brief(batch_result: BatchResult) -> str:
    """Return share and days to half without their intervals, for a cell of the table."""
    share = f"{100 * batch_result.share.share:.0f}%"
    if batch_result.half is None:
        return share
    return _("{share}, {days}").format(share=share, days=words.count(round(batch_result.half.days), "day", "days"))


def _half(batch: TrialBatch, batch_result: BatchResult, trial: GerminationTrial) -> str:
    half = batch_result.half
    if half is None:
        first = next((count for count in batch.counts.all() if count.up), None)
        if first is not None and batch_result.share.up == first.up and first == batch.counts.all()[0]:
            return _("by day {day}").format(day=(first.on - trial.begun_on).days)
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


def _courses(trial: GerminationTrial, lines: list[BatchLine]) -> list[Course]:
    """Return a drawing for each crop: the share that was up on each day of counting, batch by batch."""
    drawn = []
    for crop in dict.fromkeys(line.crop for line in lines):
        mine = [line for line in lines if line.crop == crop and line.counts]
        batches = []
        for line in mine:
            batch = line.batch
            counts = [((count.on - trial.begun_on).days, count.up / batch.seeds) for count in batch.counts.all()]
            batches.append((line.warmth, counts))
        if batches:
            drawn.append(course(words.sentence(crop), batches, FEWEST_D))
    return drawn
