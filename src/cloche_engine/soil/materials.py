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
    """Constant properties of a soil; shares are of its volume.

    Attributes
    ----------
    quartz : float
        Fraction of the mineral part that is quartz.
    moist : float
        Usual degree of saturation in spring beds (assumption).
    pool_mm, store_mm : float
        Water at the surface and in the next few centimetres at field capacity [mm].
    above_mm : float
        Further water taken up before any runs off [mm].
    drains_h : float
        Hours until a third of that is left.
    """

    mineral: float
    organic: float
    quartz: float
    coarse: bool
    moist: float
    pool_mm: float
    store_mm: float
    above_mm: float
    drains_h: float

    @property
    def pores(self) -> float:
        """Return the porosity, the fraction filled with air and water."""
        return 1.0 - self.mineral - self.organic


TEXTURES = {
    "sand": Texture(0.57, 0.01, 0.75, True, 0.35, 4.0, 19.0, 35.0, 8.0),
    "loam": Texture(0.49, 0.03, 0.40, False, 0.50, 8.0, 40.0, 30.0, 24.0),
    "clay": Texture(0.44, 0.03, 0.25, False, 0.60, 9.0, 54.0, 20.0, 60.0),
    "compost": Texture(0.25, 0.18, 0.40, False, 0.50, 9.0, 54.0, 30.0, 18.0),
    "potting": Texture(0.04, 0.14, 0.40, False, 0.50, 8.0, 24.0, 15.0, 4.0),
    "sharp_sand": Texture(0.58, 0.00, 0.80, True, 0.30, 3.0, 12.0, 40.0, 2.0),
    "grit": Texture(0.56, 0.00, 0.60, True, 0.10, 1.0, 4.0, 40.0, 0.5),
    "vermiculite": Texture(0.06, 0.00, 0.00, False, 0.50, 8.0, 30.0, 30.0, 6.0),
    "perlite": Texture(0.05, 0.00, 0.00, False, 0.25, 4.0, 12.0, 40.0, 1.0),
}
"""Usual textures of garden ground (volume shares: assumption within the ranges of [CampbellNorman1998] chapter 8), and of what
benches are filled with: dry vermiculite and perlite hold and conduct nearly nothing, wet they carry water (from memory: bulk
densities near 0.1 g/cm³, 0.05 to 0.07 W/mK dry).

Water: of loam pool and store as fitted at the station; of sand and clay in the proportions of readily and totally evaporable
water of [FAO56 table 19, from memory: sand 2-7 and 6-12 mm, loam 8-10 and 16-22, clay 8-12 and 22-29 in 10 cm]; compost holds
as much as clay; what ten centimetres of pores hold above field capacity; a sand drains within a day, a loam in two, a clay in
several (common practice, no source)."""


def heat_capacity_j_m3k(texture: Texture, saturation: float) -> float:
    """Return the volumetric heat capacity at a degree of saturation 0-1 [J/m³K] [deVries1963].

    Parameters
    ----------
    texture : Texture
        What the ground is made of.
    saturation : float
        Degree of saturation, 0-1.

    Returns
    -------
    float
        [J/m³K].
    """
    water = saturation * texture.pores
    return MINERAL_J_M3K * texture.mineral + ORGANIC_J_M3K * texture.organic + WATER_J_M3K * water


def conductivity_w_mk(texture: Texture, saturation: float, frozen: bool = False) -> float:
    """Return the thermal conductivity at a degree of saturation 0-1 [W/mK] [Johansen1975].

    Parameters
    ----------
    texture : Texture
        What the ground is made of.
    saturation : float
        Degree of saturation, 0-1.
    frozen : bool
        Whether its water is ice.

    Returns
    -------
    float
        [W/mK].

    References
    ----------
    Johansen1975: see :doc:`/sources`.
    """
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
    """Return the volumetric water content [m³/m³].

    Parameters
    ----------
    texture : Texture
        What the ground is made of.
    saturation : float
        Degree of saturation, 0-1.
    """
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
