"""Water at the surface: what the top holds for evaporation, and the snow that lies on it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.skin import Balance, Skin
from cloche.core.soil.stretch import Stretch

Array = NDArray[np.float64]

POOL_MM, STORE_MM, RISES_MM_H = 8.0, 40.0, 0.03
"""Water that the wet surface holds, what the centimetres below can give it, and what rises from deeper (assumptions): a
surface dries in stages, fast while wet, then ever slower."""
VAPORISATION_J_KG, MELT_J_KG = 2.45e6, 3.34e5
FAST_SHARE = 0.5
"""Of the wet surface's water, the most that an hour takes."""
SNOW_BELOW_C = 0.8
SNOW_M_PER_MM, SNOW_W_MK, SNOW_ABSORBS = 0.005, 0.2, 0.2
"""Snow of 200 kg/m³: conductivity within 0.1-0.3 W/mK, albedo 0.8."""
FULL_SNOW_MM = 4.0
_LITTLE_MM = 1e-6


class Water:
    """Pool and snow of every column [mm], (columns,)."""

    def __init__(self, count: int) -> None:
        self.pool, self.store, self.snow = np.full(count, 0.3 * POOL_MM), np.full(count, 0.7 * STORE_MM), np.zeros(count)
        self.any_snow = self.snows = False
        self._clear()

    def _clear(self) -> None:
        zero = np.zeros_like(self.snow)
        self._rain, self._snowfall, self._latent, self._melt, self._hours = zero, zero, zero, zero, 0

    def skin(self, stretch: Stretch) -> Skin:
        """The surface as wet and as snowy as it now is."""
        slow = stretch.wetness * (self.store / STORE_MM)
        wet = stretch.evaporation * (slow + (1 - stretch.wetness) * (self.pool / POOL_MM))
        bare = Skin(stretch.absorbs, stretch.conductance, stretch.convection, np.minimum(wet, 1.0))
        if not self.any_snow:
            return bare
        white = np.clip(self.snow / FULL_SNOW_MM, 0.0, 1.0)
        through = 1.0 / (1.0 / bare.conductance + self.snow * (SNOW_M_PER_MM / SNOW_W_MK))
        return Skin(bare.absorbs + (SNOW_ABSORBS - bare.absorbs) * white, through, bare.convection, bare.wet * (1 - white))

    def hold_at_freezing(self, balance: Balance, skin: Skin, first_c: Array) -> tuple[Balance, Array | None]:
        """Snow keeps the surface from rising above 0 °C; what it takes up melts it [mm in the hour]."""
        if not self.any_snow:
            return balance, None
        warm = np.flatnonzero((self.snow > _LITTLE_MM) & (balance.s0 + balance.s1 * first_c > 0.0))
        if not len(warm):
            return balance, None
        melt = np.zeros_like(self.snow)
        surface = balance.s0[warm] + balance.s1[warm] * first_c[warm]
        melt[warm] = surface * skin.conductance[warm] / balance.s1[warm] * 3600.0 / MELT_J_KG
        held = replace(balance, a=balance.a.copy(), b=balance.b.copy(), s0=balance.s0.copy(), s1=balance.s1.copy())
        held.a[warm], held.b[warm], held.s0[warm], held.s1[warm] = 0.0, skin.conductance[warm], 0.0, 0.0
        return held, melt

    def note(self, rain_mm: Array, air_c: Array, latent_w_m2: Array, melt_mm: Array | None) -> None:
        """Rain, snowfall, melt and evaporation of an hour."""
        self._hours += 1
        self._latent = self._latent + latent_w_m2
        if melt_mm is not None:
            self._melt = self._melt + melt_mm
        if rain_mm.any():
            snowing = air_c < SNOW_BELOW_C
            self._rain = self._rain + np.where(snowing, 0.0, rain_mm)
            if snowing.any():
                self._snowfall = self._snowfall + np.where(snowing, rain_mm, 0.0)
                self.snows = bool(self._snowfall.any())

    def settle(self, stretch: Stretch) -> None:
        """Work in what was noted; snow does not lie on what is covered, nor rain fall there."""
        opened = ~stretch.is_covered
        if self.any_snow or self.snows:
            self.snow = np.where(opened, np.maximum(self.snow + self._snowfall - self._melt, 0.0), 0.0)
            self.any_snow = bool((self.snow > _LITTLE_MM).any())
        gone = self._latent * (3600.0 / VAPORISATION_J_KG)
        before = self.pool + self._rain * opened + self._melt
        from_pool = np.minimum(gone, np.maximum(before, 0.0) * FAST_SHARE)
        pool = before - from_pool
        self.pool = np.minimum(pool, POOL_MM)
        rises = RISES_MM_H * self._hours * stretch.supply
        self.store = np.minimum(np.maximum(self.store + rises + (pool - self.pool) - (gone - from_pool), 0.0), STORE_MM)
        self.snows = False
        self._clear()
