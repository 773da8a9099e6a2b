"""What soil columns are made of and what acts on them."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

GAMMA = 2.0 - np.sqrt(2.0)
STAGE = GAMMA / 2
"""Share of the step that each stage of TR-BDF2 takes implicitly, and the weight of the step's end in its mean."""
WEIGHT = np.sqrt(2.0) / 4
"""Weight of the step's start and of the middle stage in its mean."""
MIDDLE, START = 1 / (GAMMA * (2 - GAMMA)), (1 - GAMMA) ** 2 / (GAMMA * (2 - GAMMA))
FREEZING_RANGE_K = 0.1
"""Water freezes between 0 °C and this much below."""


@dataclass(frozen=True)
class Columns:
    """What the ground of each column is made of: (columns, cells), (columns, cells - 1) or (columns,).

    capacity [J/m²K] of each cell unfrozen and frozen; latent [J/m²] of its water; conductance [W/m²K] between
    neighbouring centres, unfrozen and frozen; top from the face to the first centre; bottom from the last centre to below.
    """

    capacity: Array
    frozen_capacity: Array
    latent: Array
    conductance: Array
    frozen_conductance: Array
    top: Array
    bottom: Array

    def only(self, index: NDArray[np.intp]) -> Columns:
        """Some of the columns."""
        return Columns(**{f.name: getattr(self, f.name)[index] for f in fields(self)})

    def enthalpy(self, soil_c: Array) -> Array:
        """Heat held above unfrozen ground at 0 °C [J/m²], (columns, cells)."""
        warm, cold = np.maximum(soil_c, -FREEZING_RANGE_K), np.minimum(soil_c + FREEZING_RANGE_K, 0.0)
        return np.asarray(self.capacity * warm + self.frozen_capacity * cold - self.latent * ice_share(soil_c))

    def heat_slope(self, soil_c: Array) -> Array:
        """Derivative of `enthalpy` [J/m²K]."""
        mushy = self.capacity + self.latent / FREEZING_RANGE_K
        return np.where(soil_c >= 0, self.capacity, np.where(soil_c > -FREEZING_RANGE_K, mushy, self.frozen_capacity))

    def conductance_at(self, soil_c: Array) -> Array:
        """Conductance between cells as frozen as they are [W/m²K]."""
        ice = ice_share(soil_c)
        return self.conductance + (self.frozen_conductance - self.conductance) * (ice[:, 1:] + ice[:, :-1]) / 2


@dataclass(frozen=True)
class Drive:
    """What acts on the columns during a step: surface flux a - b T [W/m²] into the first cell, (columns,); sources [W/m²]
    in each cell, (columns, cells); temperature below [°C], (columns,)."""

    a: Array
    b: Array
    source: Array
    deep_c: Array

    def only(self, index: NDArray[np.intp]) -> Drive:
        """For some of the columns."""
        return Drive(self.a[index], self.b[index], self.source[index], self.deep_c[index])


def ice_share(soil_c: Array) -> Array:
    """Share of the water that is frozen, 0-1."""
    return np.clip(soil_c * (-1.0 / FREEZING_RANGE_K), 0.0, 1.0)


def net_heat(conductance: Array, columns: Columns, drive: Drive, soil_c: Array) -> Array:
    """Heat into each cell [W/m²], (columns, cells)."""
    heat = drive.source.copy()
    between = conductance * (soil_c[:, 1:] - soil_c[:, :-1])
    heat[:, :-1] += between
    heat[:, 1:] -= between
    heat[:, 0] += drive.a - drive.b * soil_c[:, 0]
    heat[:, -1] += columns.bottom * (drive.deep_c - soil_c[:, -1])
    return heat
