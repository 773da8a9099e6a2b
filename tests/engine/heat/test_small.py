"""Water on a tray, evenness over a row of wires, fills upon fills, potatoes: by hand, by SciPy, by what growers know."""

from datetime import date, timedelta
from itertools import pairwise

import numpy as np
import pytest
from scipy.sparse import diags, identity, kron
from scipy.sparse.linalg import spsolve

from cloche_engine.crops.potatoes import WEEKS, chitting, lifting, tubers_in
from cloche_engine.heat.faults import EVEN_K, evened, layer_for, spread_k
from cloche_engine.heat.hotbed import USUAL, heating_of
from cloche_engine.soil.heat_control import filled_again, hotbed_share
from cloche_engine.soil.watering import back_h, dipped_c

TRAY = (0.091, 0.05)


def test_cold_water_sets_a_tray_back_and_tempered_water_hardly() -> None:
    """Common practice, no source: water near freezing sets seedlings back; some warm it to about 20 °C."""
    cold, mild = (dipped_c(22.0, water, 1.0, *TRAY) for water in (4.0, 20.0))
    assert 15 < cold < 19
    assert 21 < mild < 22
    # Heat balanced by hand: a litre holds 4,180 J/K, the mix some 10,000.
    mix = 0.091 * 0.05 * (2.0e6 * 0.04 + 2.5e6 * 0.14 + 4.18e6 * 0.5 * 0.82)
    assert cold == pytest.approx((mix * 22 + 4180 * 4) / (mix + 4180))
    assert dipped_c(15.0, 15.0, 3.0, *TRAY) == pytest.approx(15.0)
    assert 1 < back_h(22.0 - cold, 0.05) < 10
    assert back_h(0.8, 0.05) == 0.0


def test_warm_stripes_fade_over_a_row_of_wires_as_a_plain_solution_has_it() -> None:
    """A layer of 10 cm over wires 10 cm apart, in two dimensions, by finite differences and SciPy's sparse solver."""
    cells, spacing, step = 40, 0.10, 0.0025
    second = diags([1.0, -2.0, 1.0], [-1, 0, 1], shape=(cells, cells)).tolil()
    across = second.copy()
    across[0, -1] = across[-1, 0] = 1.0  # the row of wires goes on for ever
    down = second.copy()
    down[0, 0] = -3.0  # its top is held, its bottom lets nothing out
    down[-1, -1] = -1.0
    operator = kron(down, identity(cells)) + kron(identity(cells), across)
    heat = np.zeros((cells, cells))
    heat[-1, 0] = 1.0
    soil = -spsolve(operator.tocsr(), heat.ravel()).reshape(cells, cells)
    swing = np.ptp(soil, axis=1)
    for above in (26, 22):
        share = swing[above - 8] / swing[above]
        assert share == pytest.approx(evened(8 * step, spacing), rel=0.06)


def test_a_spreading_layer_is_advised_where_a_bench_is_uneven() -> None:
    """Common practice, no source: about 10 mm of vermiculite spreads the heat of a propagator."""
    assert spread_k([20.0, None, 25.5, 19.0, *[None] * 5]) == 6.5
    assert spread_k([20.0, *[None] * 8]) is None
    assert layer_for(EVEN_K) == 0.0
    assert 0.008 < layer_for(4.0) < 0.03
    assert layer_for(8.0) > layer_for(4.0)
    assert 8.0 * evened(layer_for(8.0)) == pytest.approx(EVEN_K)


def test_a_further_fill_goes_on_with_what_the_heap_still_gives() -> None:
    first, second = heating_of(USUAL, 0.0), heating_of(USUAL, 30 * 24.0)
    single, both = filled_again([first, second])
    assert single == first
    rise, fade = first.fading_d or (1.0, 1.0)
    left = first.power_w_m2 * hotbed_share(30.0, rise, fade, first.flush)
    assert both.power_w_m2 == pytest.approx(second.power_w_m2 + left)
    assert both.during[0] == 30 * 24.0
    assert filled_again([]) == ()


def test_potatoes_chit_in_about_five_weeks_at_ten_degrees_and_come_in_from_frost() -> None:
    """Common practice, no source: five to six weeks, cool and bright; warm they are long within a month."""
    begun = date(2026, 2, 10)
    cool = chitting(begun, [10.0] * 120, [6.0] * 120)
    assert cool.ready == begun + timedelta(days=34)
    assert cool.long is not None
    assert (cool.long - begun).days == 69
    assert cool.frost is None
    warm = chitting(begun, [18.0] * 60, [15.0] * 60)
    assert warm.long is not None
    assert (warm.long - begun).days < 31
    cold = chitting(begun, [3.0] * 60, [2.0] * 10 + [-1.0] * 50)
    assert (cold.ready, cold.frost) == (None, begun + timedelta(days=10))


def test_groups_are_lifted_one_after_another_and_a_tub_takes_three_or_four() -> None:
    """Common practice, no source: 10 to 12, 12 to 16, 16 to 20 weeks; three to four to a tub of 30 litres."""
    spans = [lifting(group, date(2026, 4, 1)) for group in WEEKS]
    assert [(last - first).days // 7 for first, last in spans] == [2, 4, 4]
    assert all(before[0] < after[0] for before, after in pairwise(spans))
    assert tubers_in(30.0) in (3, 4)
    assert tubers_in(5.0) == 1
