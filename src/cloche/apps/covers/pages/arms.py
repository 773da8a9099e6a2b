"""What came up in each bed of a cover trial, and the other covers that are tried against the same bare bed."""

from __future__ import annotations

from datetime import timedelta
from math import isfinite
from typing import TYPE_CHECKING

from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import crops

if TYPE_CHECKING:
    from cloche.bridge.services.germinated import Half

TOGETHER_D = 3
"""Sowings of a crop in both beds within so many days are compared."""


def emergence_lines(trial: CoverTrial) -> list[str]:
    """By crop, how soon half was up and how much came up, covered and bare."""
    beds = (trial.covered, trial.bare)
    rows = sowings_in(trial.covered.garden).filter(
        place__in=beds, sown_on__gte=trial.begun_on - timedelta(days=TOGETHER_D), counts__isnull=False
    )
    if trial.ended_on:
        rows = rows.filter(sown_on__lte=trial.ended_on)
    made = list(rows.distinct())
    lines = {}
    for covered in (sowing for sowing in made if sowing.place_id == trial.covered_id):
        bare = next((sowing for sowing in made if sowing.place_id == trial.bare_id and _together(covered, sowing)), None)
        if bare is not None and covered.crop_key not in lines:
            lines[covered.crop_key] = _line(covered, bare)
    return [lines[key] for key in sorted(lines, key=lambda key: crops.crop(key).name)]


def _together(sowing: Sowing, other: Sowing) -> bool:
    return sowing.crop_key == other.crop_key and abs((sowing.sown_on - other.sown_on).days) <= TOGETHER_D


def _line(covered: Sowing, bare: Sowing) -> str:
    name = crops.crop(covered.crop_key).name_plural.capitalize()
    text = _("{name}: half up after {covered} covered, {bare} bare").format(name=name, covered=_half(covered), bare=_half(bare))
    shares = [_share(sowing) for sowing in (covered, bare)]
    if all(shares):
        text += _("; of 100 sown {covered} came up covered, {bare} bare").format(covered=shares[0], bare=shares[1])
    return text + "."


def _half(sowing: Sowing) -> str:
    half = _days(sowing)
    if half is None:
        return _("a time that cannot be told yet")
    days = words.count(round(half.days), "day", "days")
    if not isfinite(half.high):
        return days
    return _("{days} ({low} to {high})").format(days=days, low=f"{half.low:.0f}", high=f"{half.high:.0f}")


def _days(sowing: Sowing) -> Half | None:
    from cloche.bridge.services.germinated import days_to_half

    return days_to_half(sowing.sown_on, [(count.on, count.up) for count in sowing.counts.all()])


def _share(sowing: Sowing) -> str:
    from cloche.bridge.services.germinated import share_up

    up = max((count.up for count in sowing.counts.all()), default=0)
    if not sowing.seeds or up > sowing.seeds:
        return ""
    share = share_up(up, sowing.seeds)
    return _("{share} ({low} to {high})").format(
        share=f"{100 * share.share:.0f}", low=f"{100 * share.low:.0f}", high=f"{100 * share.high:.0f}"
    )
