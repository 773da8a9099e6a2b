"""The air under a cover, solved hour by hour as a steady balance of four temperatures: soil surface, inside air, and the
inner and outer face of the cover. The cover lets sun and some infrared through, exchanges heat by convection and radiation on
both sides, and takes up the water that evaporates beneath it. Nonlinear terms are settled in a few rounds."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.skin import PSYCHROMETER_KPA_K, SOIL_EMISSIVITY, Hour, Skin, vapour_curve
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN

Array = NDArray[np.float64]

AIR_J_M3K = 1200.0
SHELTERED_WIND = 0.6
"""Wind at a low cover over wind at two metres (assumption)."""
STILL_W_M2K, RISING_W_M2K, LAYERED_W_M2K = 1.0, 1.6, 0.3
"""Convection inside: a trickle, more where the lower face is the warmer one, little where it is the colder (assumption)."""
ROUNDS = 2
RULE_SPAN_K = 3.0
"""A rule opens fully when the inside passes its warmth by this much."""
WET_FROM = 0.15
"""Ground wetter than this wets the inside of a cover colder than itself."""
DRIPS = 0.9
"""Share of what condenses that runs back rather than leaving with the air (assumption)."""


@dataclass(frozen=True)
class Covers:
    """Covers over some columns, (columns,): as in `CoverKind`, with blankets worked in; opening: 0-1 as said;
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
    changes = covers.exchange * covers.air_changes_h + opening * covers.open_changes_h
    return changes * (0.4 + 0.3 * wind) * covers.gap_m * (AIR_J_M3K / 3600.0)


def covered_balance(
    skin: Skin, covers: Covers, hour: Hour, first_c: Array, surface_c: Array, before: Inside
) -> tuple[tuple[Array, ...], Inside]:
    """(a, b, s0, s1, latent) of covered ground as in `Balance`, and the state inside; before: the last hour's inside."""
    surface, inside = surface_c, before
    wet_film = (skin.wet > WET_FROM) & (before.inner_c < surface_c)
    infrared = np.where(wet_film, covers.wet_infrared, covers.infrared)
    emissivity = np.where(wet_film, covers.wet_emissivity, covers.emissivity)
    still = _Still.of(skin, covers, hour, infrared, emissivity)
    opening = before.opening
    for _ in range(ROUNDS):
        opening = _opening(covers, inside.air_c, opening)
        linear, inside = _round(skin, covers, hour, first_c, (surface, inside), still, opening)
        surface = linear[2] + linear[3] * first_c
    return linear, inside


def _opening(covers: Covers, air_c: Array, now: Array) -> Array:
    """The opening in force: as said, or as far as a rule asks, moved half way a round so that it settles."""
    ruled = np.minimum(np.maximum((air_c - covers.above_c) / RULE_SPAN_K, 0.0), 1.0) * covers.opening
    return np.where(np.isinf(covers.above_c), covers.opening, (ruled + np.minimum(now, covers.opening)) / 2)


@dataclass(frozen=True)
class _Still:
    """What stays the same over the rounds of an hour."""

    through: Array
    between: Array
    emissivity: Array
    narrow: Array
    wind: Array
    conducts: Array
    sides: Array
    absorbed: Array
    sun_in: Array

    @classmethod
    def of(cls, skin: Skin, covers: Covers, hour: Hour, infrared: Array, emissivity: Array) -> _Still:
        area = covers.area_ratio
        return cls(
            SOIL_EMISSIVITY * infrared,
            (SOIL_EMISSIVITY * 4 * STEFAN_BOLTZMANN) * emissivity,
            emissivity,
            # Two still layers, where the film lies on the soil.
            STILL_W_M2K + 0.05 / covers.gap_m,
            (4.0 + 3.5 * SHELTERED_WIND * hour.wind) * area * skin.convection,
            covers.conductance * area,
            (area - 1.0) * emissivity,
            covers.absorbs * hour.sun / 2,
            skin.absorbs * covers.solar * hour.sun,
        )


def _rising(difference_k: Array) -> Array:
    """Convection [W/m²K] upwards over a lower face warmer by difference_k, little where it is colder."""
    return np.where(difference_k > 0, RISING_W_M2K, LAYERED_W_M2K) * np.cbrt(np.abs(difference_k))


def _round(
    skin: Skin, covers: Covers, hour: Hour, first_c: Array, guess: tuple[Array, Inside], still: _Still, opening: Array
) -> tuple[tuple[Array, ...], Inside]:
    """All terms linearised about a guess, and the four temperatures eliminated from the outside inwards."""
    surface, inside = guess
    # Radiation: soil to sky through the cover, soil to inner face, outer face to sky and, for its sides, to what stands around.
    kelvin, outer_k = surface + KELVIN, inside.outer_c + KELVIN
    slope = (4 * STEFAN_BOLTZMANN) * kelvin * kelvin * kelvin
    middle_c = (surface + inside.inner_c) / 2
    middle = middle_c + KELVIN
    between = still.between * middle * middle * middle
    outer_slope = (4 * STEFAN_BOLTZMANN) * outer_k * outer_k * outer_k
    # Convection and vapour.
    below = still.narrow + _rising(surface - inside.air_c)
    above = (still.narrow + _rising(inside.air_c - inside.inner_c)) * covers.area_ratio
    exchange = air_exchange_w_m2k(covers, hour.wind, opening)
    _, curve = vapour_curve(middle_c)
    vapour = np.where(surface > inside.inner_c, skin.wet, 0.0) * below * curve * (1 / PSYCHROMETER_KPA_K)
    leaves = (1 - DRIPS) * vapour + np.minimum(vapour, 0.3 * exchange)
    # Outer face: (outer) = to_inner * inner + outer_0.
    radiates, sides = still.emissivity * outer_slope, still.sides * outer_slope
    outer_sum = still.conducts + still.wind + radiates + sides
    outer_gain = (still.wind + sides) * hour.air + still.emissivity * hour.sky + radiates * (inside.outer_c - outer_k / 4)
    outer_0, outer_1 = (outer_gain + still.absorbed) / outer_sum, still.conducts / outer_sum
    # Inside air: air = air_s * surface + air_i * inner + air_0.
    air_sum = below + above + exchange
    air_s, air_i, air_0 = below / air_sum, above / air_sum, exchange * hour.air / air_sum
    # Inner face: inner = inner_1 * surface + inner_0.
    gives = between + vapour
    inner_sum = gives + above * (1 - air_i) + still.conducts * (1 - outer_1)
    inner_1 = (gives + above * air_s) / inner_sum
    inner_0 = (above * air_0 + still.conducts * outer_0 + still.absorbed) / inner_sum
    # Soil surface.
    total = still.through * slope + gives * (1 - inner_1) + below * (1 - air_s - air_i * inner_1) + leaves + skin.conductance
    gains = still.sun_in + still.through * (hour.sky + slope * (surface - kelvin / 4))
    gains = gains + gives * inner_0 + below * (air_0 + air_i * inner_0) + leaves * inside.inner_c
    s1, s0 = skin.conductance / total, gains / total
    surface = s0 + s1 * first_c
    inner = inner_1 * surface + inner_0
    state = Inside(air_s * surface + air_i * inner + air_0, inner, outer_1 * inner + outer_0, opening)
    latent = np.maximum(leaves * (surface - inside.inner_c), 0.0)
    return (skin.conductance * s0, skin.conductance * (1 - s1), s0, s1, latent), state
