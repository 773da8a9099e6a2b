"""Whether a forecast can be true: checked before it is stored, so that no page ever shows a temperature that cannot be."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import fields
from itertools import pairwise
from math import isfinite
from typing import Any

from cloche.bridge.values.stored import CropDays, FrostDates, PlaceForecast

POSSIBLE_C = (-100.0, 110.0)
"""Between the coldest air that is taken in, colder still under a film on a clear night, and the hottest that a closed cover in
full sun could reach (assumption)."""
SLACK_K = 0.011
"""Bands are stored with two decimals: their edges may cross by one rounding step."""


class Unsound(ValueError):
    """A forecast that contains something impossible; the message says what."""


def check(ground: PlaceForecast, frosts: FrostDates, crops: Iterable[CropDays]) -> None:
    """Refuse a forecast that is not finite, not physically possible or out of order. Raises Unsound."""
    for name, values in _temperatures(ground):
        _refuse_impossible(name, values)
    for name in ("near", "far", "inside"):
        low, middle, high = (getattr(ground, f"{name}_{edge}_c") for edge in ("low", "mid", "high"))
        if any(not a <= b + SLACK_K or not b <= c + SLACK_K for a, b, c in zip(low, middle, high, strict=True)):
            raise Unsound(f"{name}: the edges of the band cross")
    for name, value in _numbers("", ground):
        if not isfinite(value):
            raise Unsound(f"{name.lstrip('.')} is {value}")
    for season in (frosts.spring, frosts.autumn):
        if season is not None and list(season) != sorted(season):
            raise Unsound("frost dates are not in order")
    for crop in crops:
        _check_crop(crop)


def _temperatures(ground: PlaceForecast) -> Iterator[tuple[str, list[float]]]:
    for each in fields(ground):
        if each.name.endswith("_c"):
            values = getattr(ground, each.name)
            rows = values if values and isinstance(values[0], list) else [values]
            yield from ((each.name, row) for row in rows)


def _refuse_impossible(name: str, values: list[float]) -> None:
    low, high = POSSIBLE_C
    wrong = next((value for value in values if not low <= value <= high), None)  # NaN compares false, so it is caught too
    if wrong is not None:
        raise Unsound(f"{name} is {wrong}")


def _numbers(name: str, value: Any) -> Iterator[tuple[str, float]]:
    """Every number in a record, with its path."""
    if isinstance(value, float):
        yield name, value
    elif isinstance(value, dict):
        for key, item in value.items():
            yield from _numbers(f"{name}[{key}]", item)
    elif isinstance(value, list | tuple):
        for item in value:
            yield from _numbers(name, item)
    elif hasattr(value, "__dataclass_fields__"):
        for each in fields(value):
            yield from _numbers(f"{name}.{each.name}", getattr(value, each.name))


def _check_crop(crop: CropDays) -> None:
    for number_name in ("half_d", "share", "fails_now"):
        value = getattr(crop, number_name)
        if value is not None and not isfinite(value):
            raise Unsound(f"{crop.crop_key}: {number_name} is {value}")
    for window in crop.windows:
        days = [window.earliest, window.best_from, window.best_to, window.last]
        if days != sorted(days):
            raise Unsound(f"{crop.crop_key}: a window’s days are not in order")
    for earlier, later in pairwise(crop.windows):
        if later.earliest <= earlier.last:
            raise Unsound(f"{crop.crop_key}: windows overlap")
