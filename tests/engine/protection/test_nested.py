"""A frame in a house: the house's air first."""

from datetime import date

import numpy as np

from cloche_engine.protection.nested import inside
from tests.engine.weathers import MIXED_D, spell, trajectories, under


def test_a_frame_in_a_tunnel_is_warmer_at_dawn_and_darker_by_day() -> None:
    """Common practice, no source."""
    outside = spell(date(2026, 3, 1), -6, 6, 0.9)
    house = under("polytunnel")
    within = inside(house, trajectories(outside, [house])[0], outside)
    alone, nested = (trajectories(w, [under("glass_frame")])[0] for w in (outside, within))
    dawn = slice((MIXED_D + 2) * 24 + 3, (MIXED_D + 2) * 24 + 7)
    assert nested.air_c[dawn].min() > alone.air_c[dawn].min() + 0.5
    assert within.sun_w_m2.sum() < 0.85 * outside.sun_w_m2.sum()
    assert within.rain_mm.sum() == 0


def test_a_house_that_is_not_there_yet_changes_nothing() -> None:
    from dataclasses import replace

    outside = spell(date(2026, 3, 1), -6, 6, 0.9)
    house = replace(under("polytunnel"), start_h=1e5)
    within = inside(house, trajectories(outside, [house])[0], outside)
    assert np.array_equal(within.air_c, outside.air_c)
    assert np.array_equal(within.rain_mm, outside.rain_mm)
