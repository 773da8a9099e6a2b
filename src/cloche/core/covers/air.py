"""The air under a cover, solved hour by hour as a steady balance of four temperatures: soil surface, inside air, and the
inner and outer face of the cover. The cover lets sun and some infrared through, exchanges heat by convection and radiation on
both sides, and takes up the water that evaporates beneath it. Nonlinear terms are settled in a few rounds."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from cloche.core.compiled import compiled
from cloche.core.soil.skin import PSYCHROMETER_KPA_K, SOIL_EMISSIVITY, Balance, Hour, Skin, vapour_curve
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN

AIR_J_M3K = 1200.0
SHELTERED_WIND = 0.6
"""Wind at a low cover over wind at two metres (assumption)."""
STILL_W_M2K, RISING_W_M2K, LAYERED_W_M2K = 1.0, 1.6, 0.3
"""Convection inside: a trickle, more where the lower face is the warmer one, little where it is the colder (assumption)."""
CLOSE_K, MOST_ROUNDS = 0.05, 8
RULE_SPAN_K = 3.0
"""A rule opens fully when the inside passes its warmth by this much."""
WET_FROM = 0.15
"""Ground wetter than this wets the inside of a cover colder than itself."""
DRIPS = 0.9
"""Share of what condenses that runs back rather than leaving with the air (assumption)."""


class Cover(NamedTuple):
    """A cover over a column in an hour: as in `CoverKind`, with blankets worked in; opening: 0-1 as said; above_c: warmth a
    rule opens at, inf where there is none; exchange: factor of the air exchange."""

    solar: float
    absorbs: float
    infrared: float
    emissivity: float
    wet_infrared: float
    wet_emissivity: float
    conductance: float
    gap_m: float
    area_ratio: float
    air_changes_h: float
    open_changes_h: float
    opening: float
    above_c: float
    exchange: float


class Inside(NamedTuple):
    """Under the cover [°C]: air, the faces of the cover; and the opening in force 0-1."""

    air_c: float
    inner_c: float
    outer_c: float
    opening: float


@compiled
def air_exchange_w_m2k(cover: Cover, wind: float, opening: float) -> float:
    """Heat carried by air passing in and out, per ground area and kelvin."""
    changes = cover.exchange * cover.air_changes_h + opening * cover.open_changes_h
    return changes * (0.4 + 0.3 * wind) * cover.gap_m * (AIR_J_M3K / 3600.0)


@compiled
def covered_balance(
    skin: Skin, cover: Cover, hour: Hour, first_c: float, surface_c: float, before: Inside
) -> tuple[Balance, Inside]:
    """Balance of covered ground and the state inside; before: the last hour's inside."""
    wet = skin.wet > WET_FROM and before.inner_c < surface_c
    infrared, emissivity = (cover.wet_infrared, cover.wet_emissivity) if wet else (cover.infrared, cover.emissivity)
    balance, inside = _round(skin, cover, hour, first_c, surface_c, before, infrared, emissivity)
    for _ in range(MOST_ROUNDS - 1):
        surface, last = balance.s0 + balance.s1 * first_c, inside
        balance, inside = _round(skin, cover, hour, first_c, surface, last, infrared, emissivity)
        moved = abs(balance.s0 + balance.s1 * first_c - surface) + abs(inside.air_c - last.air_c)
        if moved < CLOSE_K and abs(inside.opening - last.opening) < 0.01:
            break
    return balance, inside


@compiled
def _opening(cover: Cover, air_c: float, now: float) -> float:
    """The opening in force: as said, or as far as a rule asks, moved half way a round so that it settles."""
    if np.isinf(cover.above_c):
        return cover.opening
    ruled = min(max((air_c - cover.above_c) / RULE_SPAN_K, 0.0), 1.0) * cover.opening
    return (ruled + min(now, cover.opening)) / 2


@compiled
def _rising(difference_k: float) -> float:
    """Convection [W/m²K] upwards over a lower face warmer by difference_k, little where it is colder."""
    return (RISING_W_M2K if difference_k > 0 else LAYERED_W_M2K) * np.cbrt(abs(difference_k))


@compiled
def _round(
    skin: Skin, cover: Cover, hour: Hour, first_c: float, surface: float, inside: Inside, infrared: float, emissivity: float
) -> tuple[Balance, Inside]:
    """All terms linearised about a guess, and the four temperatures eliminated from the outside inwards."""
    area, opening = cover.area_ratio, _opening(cover, inside.air_c, inside.opening)
    # Radiation: soil to sky through the cover, soil to inner face, outer face to sky and, for its sides, to what stands around.
    kelvin, outer_k = surface + KELVIN, inside.outer_c + KELVIN
    through, slope = SOIL_EMISSIVITY * infrared, 4 * STEFAN_BOLTZMANN * kelvin**3
    middle_c = (surface + inside.inner_c) / 2
    between = SOIL_EMISSIVITY * emissivity * 4 * STEFAN_BOLTZMANN * (middle_c + KELVIN) ** 3
    radiates = emissivity * 4 * STEFAN_BOLTZMANN * outer_k**3
    sides = (area - 1.0) * radiates
    # Convection and vapour. Where the film lies on the soil there are two still layers.
    narrow = STILL_W_M2K + 0.05 / cover.gap_m
    below = narrow + _rising(surface - inside.air_c)
    above = (narrow + _rising(inside.air_c - inside.inner_c)) * area
    wind = (4.0 + 3.5 * SHELTERED_WIND * hour.wind) * area * skin.convection
    exchange = air_exchange_w_m2k(cover, hour.wind, opening)
    vapour = 0.0
    if surface > inside.inner_c:
        _, curve = vapour_curve(middle_c)
        vapour = skin.wet * below * curve / PSYCHROMETER_KPA_K
    leaves = (1 - DRIPS) * vapour + min(vapour, 0.3 * exchange)
    # Outer face: (outer) = outer_1 * inner + outer_0.
    conducts, absorbed = cover.conductance * area, cover.absorbs * hour.sun / 2
    outer_sum = conducts + wind + radiates + sides
    outer_gain = (wind + sides) * hour.air + emissivity * hour.sky + radiates * (inside.outer_c - outer_k / 4)
    outer_0, outer_1 = (outer_gain + absorbed) / outer_sum, conducts / outer_sum
    # Inside air: air = air_s * surface + air_i * inner + air_0.
    air_sum = below + above + exchange
    air_s, air_i, air_0 = below / air_sum, above / air_sum, exchange * hour.air / air_sum
    # Inner face: inner = inner_1 * surface + inner_0.
    gives = between + vapour
    inner_sum = gives + above * (1 - air_i) + conducts * (1 - outer_1)
    inner_1 = (gives + above * air_s) / inner_sum
    inner_0 = (above * air_0 + conducts * outer_0 + absorbed) / inner_sum
    # Soil surface.
    total = through * slope + gives * (1 - inner_1) + below * (1 - air_s - air_i * inner_1) + leaves + skin.conductance
    gains = skin.absorbs * cover.solar * hour.sun + through * (hour.sky + slope * (surface - kelvin / 4))
    gains += gives * inner_0 + below * (air_0 + air_i * inner_0) + leaves * inside.inner_c
    s1, s0 = skin.conductance / total, gains / total
    surface = s0 + s1 * first_c
    inner = inner_1 * surface + inner_0
    latent = max(leaves * (surface - inside.inner_c), 0.0)
    state = Inside(air_s * surface + air_i * inner + air_0, inner, outer_1 * inner + outer_0, opening)
    return Balance(skin.conductance * s0, skin.conductance * (1 - s1), s0, s1, latent), state
