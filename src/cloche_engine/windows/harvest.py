"""From the day plants are up or set out to harvest, in every scenario: what ends a crop, and what is left of it.

Every array is (days to judge, members).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.windows.growth import full_growth_d
from cloche_engine.windows.limits import (
    BOLT_LIGHT_H,
    BOLTS_ABOVE_H,
    BOLTS_K_H,
    BULB_WAIT_D,
    BULBS_TO_D,
    COOL_NIGHTS_K,
    DELAYED_D,
    ESTABLISHES_D,
    HEAT_SPAN_K,
    LEAST_PRINTED_D,
    LEAST_YIELD,
    LONG_DAY_H,
    PICKED,
    RIPENS_D,
    SENSITIVE_FROM,
    SETS_BY_NIGHT_K,
    SHORT_DAY_H,
    STRETCHES,
    Limit,
    among_plants_c,
)
from cloche_engine.windows.season import Season
from cloche_engine.windows.stages import on, reached

Array = NDArray[np.float64]
Days = NDArray[np.intp]
Limiting = dict[Limit, NDArray[np.bool_]]
WHOLE = np.ones(1)
DARK = 0.6
"""Light that allows less growth than this is what holds a crop back."""


@dataclass(frozen=True)
class Harvest:
    """Harvest of a crop.

    Attributes
    ----------
    ripe : ndarray
        Days from day 0, beyond the last day of the season for never.
    yields : ndarray
        Fraction of a good harvest, 0-1.
    limiting : Limiting
        What prevents it.
    """

    ripe: Days
    yields: Array
    limiting: Limiting


def harvest(crop: Crop, season: Season, up: Days, printed_d: float, young_d: int, lead: float = 1.0) -> Harvest:
    """Return the harvest of a crop that is up: when, how much, and what limits it.

    Parameters
    ----------
    season : Season
        The season's air and light at the site.
    up : Days
        The day it is up or set out.
    printed_d : float
        Days to harvest from it in the season they are printed for.
    young_d : int
        Days after it that are judged elsewhere.
    lead : float
        Share of the growth before bulbs that is still to be made.
    """
    need = np.full(up.shape, full_growth_d(crop, printed_d))
    if crop.life.perennial:
        return _established(crop, season, up)
    last = season.days
    old = np.minimum(up + young_d, last)
    if crop.life.regrows == "shoots":
        need += DELAYED_D * (on(season.next_frost(among_plants_c(crop, crop.frost_limit_c)), up) < old)
    grown = season.grown_d(crop)
    sensitive, picked, ripe = reached(grown, up, need, np.array([SENSITIVE_FROM, PICKED, 1.0]))
    too_small, wait = _bulbs(crop, season, up, lead)
    if crop.life.bulb_lead_d is not None:
        picked, ripe = (np.minimum(np.maximum(day, up + wait + RIPENS_D), last + 1) for day in (picked, ripe))
    never = picked > last
    sensitive, picked_in = np.minimum(sensitive, last), np.minimum(picked, last)
    limiting: Limiting = {
        Limit.LATE_FROST: on(season.next_frost(among_plants_c(crop, crop.frost_grown_c)), old) < picked_in,
        Limit.SEASON: never | _stretches(crop, up, picked, printed_d),
    }
    if crop.life.flower_frost_c is not None:
        flowers_c = among_plants_c(crop, crop.life.flower_frost_c)
        limiting[Limit.LATE_FROST] |= on(season.next_frost(flowers_c), sensitive) < picked_in
    dark = limiting[Limit.SEASON] & (season.mean_light(up, picked_in) < DARK)
    limiting[Limit.LIGHT] = dark
    limiting[Limit.SEASON] = limiting[Limit.SEASON] & ~dark
    yields = _heat_left(crop, season, up, sensitive, picked_in)
    limiting[Limit.HEAT] = ~never & (yields < LEAST_YIELD)
    limiting |= _bolts(crop, season, up) | _by_daylength(crop, season, up, sensitive)
    if crop.life.bulb_lead_d is not None:
        limiting[Limit.DAYLENGTH] = too_small
    return Harvest(ripe, np.where(limiting[Limit.HEAT] | never, 0.0, yields), limiting)


def _stretches(crop: Crop, up: Days, picked: Days, printed_d: float) -> NDArray[np.bool_]:
    """Return whether late peas and broad beans flower in long or lengthening days, as they must for a good crop."""
    if crop.life.bulb_lead_d is not None:
        return np.zeros(up.shape, dtype=np.bool_)
    return np.asarray(picked - up > STRETCHES[crop.hardiness] * max(printed_d, LEAST_PRINTED_D))


def _established(crop: Crop, season: Season, up: Days) -> Harvest:
    """Return whether perennials are strong enough to regrow; their harvest is in a later year."""
    (strong,) = reached(season.grown_d(crop), up, np.full(up.shape, ESTABLISHES_D), WHOLE)
    never = np.full(up.shape, season.days + 1)
    weak = strong - up > STRETCHES[crop.hardiness] * ESTABLISHES_D
    return Harvest(never, (~weak).astype(np.float64), {Limit.SEASON: weak})


def _heat_left(crop: Crop, season: Season, up: Days, sensitive: Days, ripe: Days) -> Array:
    """Return the share of the harvest that is left after heat in the sensitive stage."""
    if crop.heat_limit_c is None:
        return np.ones(sensitive.shape)
    hot_c = season.heat_c(sensitive, ripe, _by_night(crop))
    limit_c = np.full(sensitive.shape, crop.heat_limit_c)
    if crop.life.long_days == "bolts":
        light_h = np.maximum(*(season.light_h[np.minimum(day, season.days - 1)] for day in (up, sensitive)))
        limit_c -= BOLTS_K_H * np.maximum(light_h - BOLTS_ABOVE_H, 0.0)
    return np.asarray(np.clip(LEAST_YIELD + (limit_c - hot_c) / (2 * HEAT_SPAN_K), 0.0, 1.0))


def _by_night(crop: Crop) -> float:
    return SETS_BY_NIGHT_K if crop.season == "warm" or crop.start == "tuber" else COOL_NIGHTS_K


def _bolts(crop: Crop, season: Season, up: Days) -> Limiting:
    """Return whether a crop bolts: chilled when young, then days that are long enough."""
    chill = crop.life.chill
    if chill is None:
        return {}
    last = season.days
    end = np.minimum(up + chill.within_d, last)
    cold = season.chilled_d(chill.below_c)
    light_h = season.light_h[np.minimum(end, last - 1)]
    return {Limit.BOLTS: (on(cold, end) - on(cold, up) >= chill.days) & (light_h >= BOLT_LIGHT_H)}


def _by_daylength(crop: Crop, season: Season, up: Days, sensitive: Days) -> Limiting:
    """Return whether peas and broad beans that come up in long days flower in long or lengthening days, as they must for a good
    crop.
    """
    if crop.life.long_days != "flowers":
        return {}
    last = season.days - 1
    at = np.minimum(sensitive, last)
    young = season.light_h[np.minimum(up, last)] > SHORT_DAY_H
    return {Limit.DAYLENGTH: young & (season.light_h[at] < LONG_DAY_H) & ~season.lengthens[at]}


def _bulbs(crop: Crop, season: Season, up: Days, share: float) -> tuple[NDArray[np.bool_], Days]:
    """Return whether no kind grown at this latitude forms useful bulbs, and days until those of the best kind swell."""
    small, wait = np.ones(up.shape, dtype=np.bool_), np.zeros(up.shape, dtype=np.intp)
    if crop.life.bulb_lead_d is None:
        return small, wait
    last = season.days - 1
    start, grown = np.minimum(up, last), season.grown_d(crop)
    for until in season.until_bulbing:
        ahead = until[start]
        lead = on(grown, np.minimum(start + ahead + BULBS_TO_D, last)) - on(grown, start)
        fits = (lead >= share * crop.life.bulb_lead_d) & (ahead <= BULB_WAIT_D)
        wait = np.where(small & (fits | (wait == 0)), ahead, wait)
        small &= ~fits
    return small, wait
