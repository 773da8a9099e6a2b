"""The air under a cover, solved hour by hour as a steady balance of soil surface, inside air, its vapour, and the inner and
outer face of the cover.

The cover lets sun and some infrared through and keeps the rest; frame and film hand part of the sun to the air. What passes
through cracks, cloth or vents carries heat and vapour and stirs the inside; vapour that meets a colder cover condenses, gives
up its heat there and mostly runs back. Nonlinear terms are settled in a few rounds.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from cloche_engine.compiled import lean
from cloche_engine.covers.kinds import LIES_M, STILL_AIR_W_MK
from cloche_engine.soil.soil_surface import (
    PSYCHROMETER_KPA_K,
    SOIL_EMISSIVITY,
    WIND_W_M2K,
    Balance,
    Hour,
    SoilSurface,
    convection_w_m2k,
    vapour_curve,
)
from cloche_engine.weather.sky import KELVIN, STEFAN_BOLTZMANN

AIR_J_M3K = 1200.0
STILL_W_M2K = 0.5
"""Exchange of a face with still air: a trickle, and conduction across half of the gap."""
SOIL_RISING_W_M2K, FILM_RISING_W_M2K, LAYERED_W_M2K = 4.4, 2.0, 0.3
"""Free convection, times the cube root of the difference: over rough soil 4 to 5 [Silva1988, Roy2002, from memory], under a
smooth cover colder than the air about 2 [Garzoli1981, from memory], little where the air lies in layers (assumption)."""
STIRS = 0.9
"""Air that comes in sweeps the faces inside: their exchange grows by so much of what it carries (assumption: all that enters
reaches them once), no more than under the open wind."""
WIND_OF_FLOW, RISE_OF_FLOW = 0.22, 0.012
"""What drives air through cracks, squared, at two metres of wind about 1: wind squared [s²/m²], and warmth times height [1/Km];
their ratio by the pressures of wind (coefficient 0.4) and stack (half of it) on a low cover."""
LEAST_FLOW = 0.08
FOG_TAKES = 0.08
"""Share of the light that drops on the inside throw back [Pieters1997, from memory]."""
UNEVEN_K = 0.5
"""How far the warmth of a bed's surface or a cover's face differs from spot to spot (assumption)."""
CLOSE_K, MOST_ROUNDS, FAST_ROUNDS, SLOW_ROUNDS = 0.05, 16, 3, 8
RULE_SPAN_K = 3.0
"""A rule opens fully when the inside passes its warmth by this much."""
DRIPS = 0.8
"""Share of what condenses that runs back into the bed rather than down beside it (assumption)."""
FOGS_FROM = 0.85
"""Parts of a cover are colder than its mean: they fog from this share of saturation at the mean face on (assumption)."""


class Cover(NamedTuple):
    """A cover over a column during one hour, with blankets included.

    Fields not listed here are those of `CoverKind`.

    Attributes
    ----------
    opening : float
        Opening that was set, 0-1.
    above_c : float
        Air temperature above which a rule opens the cover [°C], inf without a rule.
    light, exchange, loss : float
        Factors of its transmission, air exchange, and loss by conduction and infrared.
    """

    solar: float
    absorbs: float
    catches: float
    infrared: float
    emissivity: float
    wet_infrared: float
    wet_emissivity: float
    conductance: float
    gap_m: float
    area_ratio: float
    leans: float
    stands: float
    leak_m_h: float
    open_m_h: float
    permeable: float
    opening: float
    above_c: float
    light: float
    exchange: float
    loss: float


FACTORS_OF_COVER = 3


class Inside(NamedTuple):
    """State under a cover: air and both faces of the cover [°C], opening in force 0-1, vapour pressure [kPa]."""

    air_c: float
    inner_c: float
    outer_c: float
    opening: float
    vapour: float


@lean
def air_exchange_w_m2k(cover: Cover, wind: float, warmer_k: float, opening: float) -> float:
    """Return the heat carried by air exchange per ground area and kelvin [W/m²K].

    Parameters
    ----------
    cover : Cover
        The cover as it stands in this hour.
    wind : float
        Wind [m/s].
    warmer_k : float
        Inside over outside [K].
    opening : float
        Share of its full opening, 0-1.
    """
    drives = WIND_OF_FLOW * wind * wind + RISE_OF_FLOW * abs(warmer_k) * cover.gap_m / 0.3 + LEAST_FLOW * LEAST_FLOW
    # Through a hole by the root of what drives it, through the pores of a cloth in proportion [Darcy].
    flow = drives if cover.permeable > 0.0 else np.sqrt(drives)
    return (cover.exchange * cover.leak_m_h + opening * cover.open_m_h) * flow * (AIR_J_M3K / 3600.0)


@lean
def covered_balance(
    soil_surface: SoilSurface, cover: Cover, hour: Hour, first_c: float, surface_c: float, before: Inside
) -> tuple[Balance, Inside]:
    """Solve the energy balance of covered ground and return it with the state inside.

    Parameters
    ----------
    soil_surface : SoilSurface
        What the air meets: absorption, conductance, convection, wetness.
    cover : Cover
        The cover as it stands in this hour.
    hour : Hour
        Weather of the hour.
    first_c : float
        Temperature of the column's first cell [°C].
    surface_c : float
        The soil's surface, a guess [°C].
    before : Inside
        The last hour's inside.
    """
    fog, ruled = fog_on(before.vapour, before.inner_c), not np.isinf(cover.above_c)
    opening = min(before.opening, cover.opening) if ruled else cover.opening
    balance, inside = _round(soil_surface, cover, hour, first_c, surface_c, before, fog, opening)
    surface, last = surface_c, before
    wants, pace = 0.0, 0.5
    for number in range(MOST_ROUNDS - 1):
        # Half way a round once it is slow to settle: warm air above cold ground stirs less than the other way round. Under a
        # bell, where the two are nearly as warm as each other and next to nothing leaves, even half ways go to and fro.
        part = 1.0 if number < FAST_ROUNDS else 0.5 if number < SLOW_ROUNDS else 0.25
        surface, last = _toward(surface, balance.s0 + balance.s1 * first_c, part), _all_toward(last, inside, part)
        # A fogged film is the warmer one, on which nothing would condense; an opened cover the cooler, which nobody would open.
        fog = (fog + fog_on(last.vapour, last.inner_c)) / 2
        if ruled:
            more = _ruled(cover, inside.air_c) - opening
            pace = pace / 2 if more * wants < 0.0 else pace
            wants, opening = more, opening + pace * more
        balance, inside = _round(soil_surface, cover, hour, first_c, surface, last, fog, opening)
        moved = abs(balance.s0 + balance.s1 * first_c - surface) + abs(inside.air_c - last.air_c)
        if moved < CLOSE_K and abs(pace * wants) < 0.01:
            break
    return balance, inside


@lean
def _toward(start: float, end: float, part: float) -> float:
    return start + part * (end - start)


@lean
def _all_toward(start: Inside, end: Inside, part: float) -> Inside:
    air, inner = _toward(start.air_c, end.air_c, part), _toward(start.inner_c, end.inner_c, part)
    outer, vapour = _toward(start.outer_c, end.outer_c, part), _toward(start.vapour, end.vapour, part)
    return Inside(air, inner, outer, end.opening, vapour)


@lean
def fog_on(vapour_kpa: float, inner_c: float) -> float:
    """Return the fraction of the cover that is fogged, 0-1.

    Parameters
    ----------
    vapour_kpa : float
        Vapour of the air inside [kPa].
    inner_c : float
        Inner face of the cover [°C].
    """
    filled = vapour_kpa / vapour_curve(inner_c)[0]
    return min(max((filled - FOGS_FROM) / (1.0 - FOGS_FROM), 0.0), 1.0)


@lean
def _ruled(cover: Cover, air_c: float) -> float:
    """Return how far a rule opens the cover at this air temperature."""
    return min(max((air_c - cover.above_c) / RULE_SPAN_K, 0.0), 1.0) * cover.opening


@lean
def _free(difference_k: float, rising: float) -> float:
    """Return the free convection upwards from a face warmer by `difference_k` [W/m²K], small where it is colder.

    No face has a uniform temperature. Around zero, part of it is warmer than the air and part colder, so the two cases are
    blended.
    """
    spread_k = np.sqrt(difference_k**2 + UNEVEN_K**2)
    warmer = (1.0 + difference_k / spread_k) / 2
    return (LAYERED_W_M2K + warmer * (rising - LAYERED_W_M2K)) * np.cbrt(spread_k)


@lean
def _tangent(temperature_c: float) -> tuple[float, float]:
    """Return the saturation vapour pressure as p + c T around a temperature [kPa, kPa/K]."""
    pressure, curve = vapour_curve(temperature_c)
    return pressure - curve * temperature_c, curve


@lean
def _round(
    soil_surface: SoilSurface,
    cover: Cover,
    hour: Hour,
    first_c: float,
    surface: float,
    inside: Inside,
    fog: float,
    opening: float,
) -> tuple[Balance, Inside]:
    """Solve the balance linearised around a guess.

    The temperatures are eliminated from the outside inwards, with the given fog and opening in force.
    """
    infrared = cover.infrared + fog * (cover.wet_infrared - cover.infrared)
    emissivity = cover.emissivity + fog * (cover.wet_emissivity - cover.emissivity)
    infrared, emissivity = min(infrared * cover.loss, 1.0 - emissivity), min(emissivity * cover.loss, 1.0 - infrared)
    lets_in = min(cover.solar * cover.light, 1.0) * (1 - FOG_TAKES * fog)
    # A low sun comes in through what leans or stands, more than a level pane would catch, and falls on boards, hoops and film.
    sun, low_sun = hour.sun * lets_in, (cover.leans * hour.toward + cover.stands * hour.around) * lets_in
    area = cover.area_ratio
    # Radiation: soil to sky through the cover, soil to inner face, outer face to sky and, for its sides, to what stands around.
    kelvin, outer_k = surface + KELVIN, inside.outer_c + KELVIN
    through, slope = SOIL_EMISSIVITY * infrared, 4 * STEFAN_BOLTZMANN * kelvin**3
    between = SOIL_EMISSIVITY * emissivity * 4 * STEFAN_BOLTZMANN * ((surface + inside.inner_c) / 2 + KELVIN) ** 3
    radiates = emissivity * 4 * STEFAN_BOLTZMANN * outer_k**3
    sides = (area - 1.0) * radiates
    # Convection. Where the film lies on the soil there are two still layers.
    exchange = air_exchange_w_m2k(cover, hour.wind, inside.air_c - hour.air, opening)
    stirred = min(STIRS * exchange, WIND_W_M2K * hour.wind)
    least = STILL_W_M2K + 2 * STILL_AIR_W_MK / cover.gap_m + stirred
    below = least + _free(surface - inside.air_c, SOIL_RISING_W_M2K)
    above = (least + _free(inside.air_c - inside.inner_c, FILM_RISING_W_M2K)) * area
    wind = convection_w_m2k(inside.outer_c - hour.air, hour.wind, soil_surface.convection) * area
    # Vapour: from the soil, to the cover where it condenses, out with the air. vapour = v_s * surface + v_i * inner + v_0.
    p_s, c_s = _tangent(surface)
    p_i, c_i = _tangent(inside.inner_c)
    evaporates = (soil_surface.wet if p_s + c_s * surface > inside.vapour else 1.0) * below / PSYCHROMETER_KPA_K
    condenses = above / PSYCHROMETER_KPA_K if inside.vapour > p_i + c_i * inside.inner_c else 0.0
    carried = exchange / PSYCHROMETER_KPA_K
    vapours = evaporates + condenses + carried + 1e-6
    v_s, v_i = evaporates * c_s / vapours, condenses * c_i / vapours
    v_0 = (evaporates * p_s + condenses * p_i + (carried + 1e-6) * hour.vapour) / vapours
    # Outer face: outer = outer_1 * inner + outer_0. Half of the sun that the cover takes up is told to each face.
    conducts, absorbed = cover.conductance * cover.loss * area, cover.absorbs * hour.sun / 2
    # Rain that stands on a film upon the ground dries there, and takes the heat for it from the film.
    p_o, c_o = _tangent(inside.outer_c)
    dries = (
        hour.puddles * wind / PSYCHROMETER_KPA_K if cover.gap_m <= LIES_M and p_o + c_o * inside.outer_c > hour.vapour else 0.0
    )
    outer_sum = conducts + wind + radiates + sides + dries * c_o
    outer_gain = (wind + sides) * hour.air + emissivity * hour.sky + radiates * (inside.outer_c - outer_k / 4)
    outer_gain += dries * (hour.vapour - p_o)
    outer_0, outer_1 = (outer_gain + absorbed) / outer_sum, conducts / outer_sum
    # Inside air: air = air_s * surface + air_i * inner + air_0.
    air_sum = below + above + exchange
    air_s, air_i = below / air_sum, above / air_sum
    air_0 = (exchange * hour.air + cover.catches * sun + low_sun) / air_sum
    # Inner face: inner = inner_1 * surface + inner_0.
    inner_sum = between + above * (1 - air_i) + condenses * (c_i - v_i) + conducts * (1 - outer_1)
    inner_1 = (between + above * air_s + condenses * v_s) / inner_sum
    inner_0 = (above * air_0 + condenses * (v_0 - p_i) + conducts * outer_0 + absorbed) / inner_sum
    # Soil surface.
    total = through * slope + between * (1 - inner_1) + below * (1 - air_s - air_i * inner_1) + soil_surface.conductance
    total += evaporates * (c_s - v_s - v_i * inner_1)
    gains = soil_surface.absorbs * (1 - cover.catches) * sun + through * (hour.sky + slope * (surface - kelvin / 4))
    gains += between * inner_0 + below * (air_0 + air_i * inner_0) + evaporates * (v_0 + v_i * inner_0 - p_s)
    s1, s0 = soil_surface.conductance / total, gains / total
    surface = s0 + s1 * first_c
    inner = inner_1 * surface + inner_0
    vapour = v_s * surface + v_i * inner + v_0
    leaves = evaporates * (p_s + c_s * surface - vapour) - DRIPS * max(condenses * (vapour - p_i - c_i * inner), 0.0)
    state = Inside(air_s * surface + air_i * inner + air_0, inner, outer_1 * inner + outer_0, opening, vapour)
    return Balance(soil_surface.conductance * s0, soil_surface.conductance * (1 - s1), s0, s1, leaves), state
