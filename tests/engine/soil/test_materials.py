"""What soils hold and conduct, against published values."""

from dataclasses import replace

import pytest

from cloche_engine.soil.materials import TEXTURES, Texture, conductivity_w_mk, heat_capacity_j_m3k

SAND, CLAY = (replace(TEXTURES[name], mineral=0.60, organic=0.0) for name in ("sand", "clay"))
"""Of 40 % pores, as in the table."""


@pytest.mark.parametrize(
    ("texture", "wet", "capacity", "conductivity"),
    [(SAND, 0.0, 1.28e6, 0.30), (SAND, 1.0, 2.96e6, 2.20), (CLAY, 0.0, 1.42e6, 0.25), (CLAY, 1.0, 3.10e6, 1.58)],
)
def test_sand_and_clay_dry_and_saturated(texture: Texture, wet: float, capacity: float, conductivity: float) -> None:
    """Oke 1987, table 2.1 (from memory): capacity within 16 %, conductivity within a third."""
    assert heat_capacity_j_m3k(texture, wet) == pytest.approx(capacity, rel=0.16)
    assert conductivity_w_mk(texture, wet) == pytest.approx(conductivity, rel=0.34)


def test_wetter_conducts_and_holds_more() -> None:
    for texture in (SAND, CLAY):
        steps = [0.1, 0.3, 0.5, 0.7, 0.9]
        conducts, holds = [conductivity_w_mk(texture, s) for s in steps], [heat_capacity_j_m3k(texture, s) for s in steps]
        assert conducts == sorted(conducts)
        assert holds == sorted(holds)


def test_frozen_saturated_ground_conducts_better() -> None:
    assert conductivity_w_mk(CLAY, 1.0, frozen=True) > 1.3 * conductivity_w_mk(CLAY, 1.0)
