"""What soil holds and conducts: heat capacity by constituents [deVries1963], conductivity by wetness [Johansen1975]."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

MINERAL_J_M3K, ORGANIC_J_M3K, WATER_J_M3K, ICE_J_M3K = 2.0e6, 2.5e6, 4.18e6, 1.9e6
"""Volumetric heat capacities of the solid constituents, water and ice [deVries1963, as in CampbellNorman1998 table 8.2]."""
LATENT_HEAT_J_M3 = 3.34e8
"""Heat of freezing a cubic metre of water."""
WATER_W_MK, ICE_W_MK, QUARTZ_W_MK, OTHER_W_MK = 0.57, 2.2, 7.7, 2.0
ORGANIC_W_MK = 0.25
MINERAL_DENSITY_KG_M3 = 2700.0


@dataclass(frozen=True)
class Texture:
    """A soil's constant make-up, as shares of its volume. quartz: share of the mineral part. moist: usual degree of
    saturation in spring beds (assumption)."""

    mineral: float
    organic: float
    quartz: float
    coarse: bool
    moist: float

    @property
    def pores(self) -> float:
        """Share of the volume that air and water fill."""
        return 1.0 - self.mineral - self.organic


TEXTURES = {
    "sand": Texture(0.57, 0.01, 0.75, True, 0.35),
    "loam": Texture(0.49, 0.03, 0.40, False, 0.50),
    "clay": Texture(0.44, 0.03, 0.25, False, 0.60),
    "compost": Texture(0.25, 0.18, 0.40, False, 0.50),
    "potting": Texture(0.04, 0.14, 0.40, False, 0.50),
}
"""Usual textures of garden ground (volume shares: assumption within the ranges of [CampbellNorman1998] chapter 8)."""


def heat_capacity_j_m3k(texture: Texture, saturation: float) -> float:
    """Volumetric heat capacity [J/m³K] at a degree of saturation 0-1 [deVries1963]."""
    water = saturation * texture.pores
    return MINERAL_J_M3K * texture.mineral + ORGANIC_J_M3K * texture.organic + WATER_J_M3K * water


def conductivity_w_mk(texture: Texture, saturation: float, frozen: bool = False) -> float:
    """Thermal conductivity [W/mK] at a degree of saturation 0-1 [Johansen1975]."""
    dry = _dry(texture)
    wetness = max(float(saturation), 1e-3)
    if frozen:
        kersten = wetness
    elif texture.coarse:
        kersten = (0.7 * np.log10(max(wetness, 0.05)) + 1.0) * min(wetness / 0.05, 1.0)  # the formula holds from 0.05 on
    else:
        kersten = np.log10(max(wetness, 0.1)) + 1.0
    return float(dry + (_saturated(texture, frozen) - dry) * np.clip(kersten, 0.0, 1.0))


def water_share(texture: Texture, saturation: float) -> float:
    """Volume of water in a volume of soil [m³/m³]."""
    return saturation * texture.pores


def _dry(texture: Texture) -> float:
    density = MINERAL_DENSITY_KG_M3 * texture.mineral
    mineral = (0.135 * density + 64.7) / (MINERAL_DENSITY_KG_M3 - 0.947 * density)
    # Organic matter is fluffy: its dry conductivity is that of peat [Farouki1981].
    solids = texture.mineral + texture.organic
    return (texture.mineral * mineral + texture.organic * 0.05) / solids


def _saturated(texture: Texture, frozen: bool) -> float:
    solids = texture.mineral + texture.organic
    mineral = QUARTZ_W_MK**texture.quartz * OTHER_W_MK ** (1 - texture.quartz)
    solid = mineral ** (texture.mineral / solids) * ORGANIC_W_MK ** (texture.organic / solids)
    liquid = ICE_W_MK if frozen else WATER_W_MK
    return float(solid**solids * liquid**texture.pores)
