"""The air under a cover, solved hour by hour as a steady balance of four temperatures: soil surface, inside air, and the
inner and outer face of the cover. The cover lets sun and some infrared through, exchanges heat by convection and radiation on
both sides, and takes up the water that evaporates beneath it. Nonlinear terms are settled in a few rounds."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.skin import PSYCHROMETER_KPA_K, SOIL_EMISSIVITY, Balance, Hour, Skin, vapour_curve
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN

Array = NDArray[np.float64]

AIR_J_M3K = 1200.0
SHELTERED_WIND = 0.6
"""Wind at a low cover over wind at two metres (assumption)."""
STILL_W_M2K, RISING_W_M2K, LAYERED_W_M2K = 1.0, 1.6, 0.3
"""Convection inside: a trickle, more where the lower face is the warmer one, little where it is the colder (assumption)."""
ROUNDS = 3
RULE_SPAN_K = 3.0
"""A rule opens fully when the inside passes its warmth by this much."""
WET_FROM = 0.15
"""Ground wetter than this wets the inside of a cover colder than itself."""
DRIPS = 0.9
"""Share of what condenses that runs back rather than leaving with the air (assumption)."""


@dataclass(frozen=True)
class Covers:
    """Covers over some columns, (columns,): as in `CoverKind`, with blankets and ageing worked in; opening: 0-1 as said;
    above_c: warmth a rule opens at, inf where there is none; exchange: factor of the air exchange."""

    solar: Array
    absorbs: Array
    infrared: Array
    emissivity: Array
    wet_infrared: Array
    wet_emissivity: Array
    conductance: Array
    gap_m: Array
    area_ratio: Array
    air_changes_h: Array
    open_changes_h: Array
    opening: Array
    above_c: Array
    exchange: Array

    def only(self, index: NDArray[np.intp]) -> Covers:
        """Some of the columns."""
        return Covers(**{f.name: getattr(self, f.name)[index] for f in fields(self)})


@dataclass(frozen=True)
class Inside:
    """Under the cover, (columns,) [°C]: air, the faces of the cover; and the opening in force 0-1."""

    air_c: Array
    inner_c: Array
    outer_c: Array
    opening: Array

    def only(self, index: NDArray[np.intp]) -> Inside:
        """Some of the columns."""
        return Inside(self.air_c[index], self.inner_c[index], self.outer_c[index], self.opening[index])


def air_exchange_w_m2k(covers: Covers, wind: Array, opening: Array) -> Array:
    """Heat carried by air passing in and out, per ground area and kelvin."""
    breeze = 0.4 + 0.3 * wind
    changes = covers.exchange * covers.air_changes_h + opening * covers.open_changes_h
    return changes * breeze * covers.gap_m * (AIR_J_M3K / 3600.0)


def covered_balance(
    skin: Skin, covers: Covers, hour: Hour, first_c: Array, surface_c: Array, before: Inside
) -> tuple[Balance, Inside]:
    """Balance of covered ground and the state inside; arguments as in `open_balance`, before: the last hour's inside."""
    surface, inside = surface_c, before
    wet_film = (skin.wet > WET_FROM) & (before.inner_c < surface_c)
    infrared = np.where(wet_film, covers.wet_infrared, covers.infrared)
    emissivity = np.where(wet_film, covers.wet_emissivity, covers.emissivity)
    opening = before.opening
    for _ in range(ROUNDS):
        opening = _opening(covers, inside.air_c, opening)
        balance, inside = _round(skin, covers, hour, first_c, (surface, inside), (infrared, emissivity), opening)
        surface = balance.s0 + balance.s1 * first_c
    return balance, inside


def _opening(covers: Covers, air_c: Array, now: Array) -> Array:
    """The opening in force: as said, or as far as a rule asks, moved half way a round so that it settles."""
    ruled = np.clip((air_c - covers.above_c) / RULE_SPAN_K, 0.0, 1.0) * covers.opening
    return np.where(np.isinf(covers.above_c), covers.opening, (ruled + np.minimum(now, covers.opening)) / 2)


def _round(
    skin: Skin,
    covers: Covers,
    hour: Hour,
    first_c: Array,
    guess: tuple[Array, Inside],
    optics: tuple[Array, Array],
    opening: Array,
) -> tuple[Balance, Inside]:
    """All terms linearised about a guess, and the four temperatures eliminated from the outside inwards."""
    surface, inside = guess
    infrared, emissivity = optics
    area = covers.area_ratio
    # Radiation: soil to sky through the cover, soil to inner face, outer face to sky and, for its sides, to what stands around.
    kelvin, outer_k = surface + KELVIN, inside.outer_c + KELVIN
    emitted, slope = STEFAN_BOLTZMANN * kelvin**4, 4 * STEFAN_BOLTZMANN * kelvin**3
    through = SOIL_EMISSIVITY * infrared
    between = SOIL_EMISSIVITY * emissivity * 4 * STEFAN_BOLTZMANN * ((kelvin + inside.inner_c + KELVIN) / 2) ** 3
    outer_emitted, outer_slope = STEFAN_BOLTZMANN * outer_k**4, 4 * STEFAN_BOLTZMANN * outer_k**3
    # Convection and vapour.
    narrow = 0.05 / covers.gap_m  # two still layers, where the film lies on the soil
    rise = surface - inside.air_c
    below = STILL_W_M2K + RISING_W_M2K * np.cbrt(np.maximum(rise, 0)) + LAYERED_W_M2K * np.cbrt(np.maximum(-rise, 0)) + narrow
    lift = inside.air_c - inside.inner_c
    above = STILL_W_M2K + RISING_W_M2K * np.cbrt(np.maximum(lift, 0)) + LAYERED_W_M2K * np.cbrt(np.maximum(-lift, 0)) + narrow
    above = above * area
    wind = (4.0 + 3.5 * SHELTERED_WIND * hour.wind) * area * skin.convection
    exchange = air_exchange_w_m2k(covers, hour.wind, opening)
    _, curve = vapour_curve((surface + inside.inner_c) / 2)
    vapour = np.where(surface > inside.inner_c, skin.wet, 0.0) * below * curve / PSYCHROMETER_KPA_K
    leaves = (1 - DRIPS) * vapour + np.minimum(vapour, 0.3 * exchange)
    # Outer face: (outer) = to_inner * inner + outer_0.
    conducts = covers.conductance * area
    sides = (area - 1.0) * emissivity * outer_slope
    outer_sum = conducts + wind + emissivity * outer_slope + sides
    outer_gain = wind * hour.air + sides * hour.air + emissivity * (hour.sky - outer_emitted + outer_slope * inside.outer_c)
    absorbed = covers.absorbs * hour.sun / 2
    outer_0, outer_1 = (outer_gain + absorbed) / outer_sum, conducts / outer_sum
    # Inside air: air = air_s * surface + air_i * inner + air_0.
    air_sum = below + above + exchange
    air_s, air_i, air_0 = below / air_sum, above / air_sum, exchange * hour.air / air_sum
    # Inner face: inner = inner_1 * surface + inner_0.
    inner_sum = between + vapour + above * (1 - air_i) + conducts * (1 - outer_1)
    inner_1 = (between + vapour + above * air_s) / inner_sum
    inner_0 = (above * air_0 + conducts * outer_0 + absorbed) / inner_sum
    # Soil surface.
    to_air_1 = below * (1 - air_s - air_i * inner_1)
    to_air_0 = below * (air_0 + air_i * inner_0)
    total = through * slope + (between + vapour) * (1 - inner_1) + to_air_1 + leaves + skin.conductance
    gains = skin.absorbs * covers.solar * hour.sun + through * (hour.sky - emitted + slope * surface)
    gains = gains + (between + vapour) * inner_0 + to_air_0 + leaves * inside.inner_c
    s1, s0 = skin.conductance / total, gains / total
    surface = s0 + s1 * first_c
    inner = inner_1 * surface + inner_0
    state = Inside(air_s * surface + air_i * inner + air_0, inner, outer_1 * inner + outer_0, opening)
    latent = leaves * (surface - inside.inner_c)
    return Balance(skin.conductance * s0, skin.conductance * (1 - s1), s0, s1, np.maximum(latent, 0.0)), state
