"""A bench as it is built: litres, bags, the cable's path, what fits."""

import numpy as np
import pytest

from cloche_engine.errors import OutOfRange
from cloche_engine.heat.build import LEAST_SPACING_M, MARGIN_M, Cable, bags, fits, lay, litres


def test_a_bench_of_four_by_two_feet_takes_seventy_litres_to_ninety_five_millimetres() -> None:
    """Common practice, no source: three bags of 25 litres."""
    wanted = litres(1.219, 0.61, 0.095)
    assert wanted == pytest.approx(70, abs=1)
    assert bags(wanted, 25.0) == 3
    assert bags(75.0, 25.0) == 3
    assert bags(75.1, 25.0) == 4


@pytest.mark.parametrize(("cable_m", "runs"), [(6.0, 4), (8.0, 6), (10.0, 8)])
def test_a_cable_lies_within_the_boards_and_uses_what_it_has(cable_m: float, runs: int) -> None:
    laid = lay(1.22, 0.61, Cable(cable_m, 10.0))
    x, y = np.array(laid.path).T
    assert laid.runs == runs
    assert x.min() == pytest.approx(MARGIN_M)
    assert x.max() == pytest.approx(1.22 - MARGIN_M)
    assert y.max() == pytest.approx(0.61 - MARGIN_M)
    length = float(np.hypot(np.diff(x), np.diff(y)).sum())
    assert length + laid.left_m == pytest.approx(cable_m)
    assert laid.left_m < 1.22
    assert laid.spacing_m >= LEAST_SPACING_M
    # No two runs on one line: it is nowhere crossed.
    assert len({round(value, 6) for value in y}) == runs


def test_runs_across_the_bench_are_those_of_a_bench_turned_round() -> None:
    across, turned = lay(1.22, 0.61, Cable(8.0, 10.0), across=True), lay(0.61, 1.22, Cable(8.0, 10.0))
    assert across.path == tuple((y, x) for x, y in turned.path)
    assert (across.runs, across.spacing_m, across.left_m) == (turned.runs, turned.spacing_m, turned.left_m)


def test_ten_watts_a_metre_ten_centimetres_apart_are_about_a_hundred_watts_a_square_metre() -> None:
    """Common practice, no source: 7.5, 10 and 15 cm give 133, 100 and 67 W/m²."""
    laid = lay(2.0, 1.1, Cable(20.0, 10.0))
    assert laid.spacing_m == pytest.approx(0.11, abs=0.02)
    assert laid.watts_m2 == pytest.approx(95, abs=12)


@pytest.mark.parametrize(
    ("cable_m", "size", "said"),
    [(2.0, (1.22, 0.61), "too short"), (40.0, (1.22, 0.61), "nearer than 5 cm"), (3.0, (0.08, 0.61), "margins")],
)
def test_a_cable_that_does_not_suit_the_bench_is_refused(cable_m: float, size: tuple[float, float], said: str) -> None:
    with pytest.raises(OutOfRange, match=said):
        lay(*size, Cable(cable_m, 10.0))


def test_trays_are_turned_the_way_that_takes_more() -> None:
    assert fits(1.2, 0.6, (0.38, 0.24)) == (6, True)
    assert fits(0.5, 0.4, (0.38, 0.24)) == (2, False)
    assert fits(0.2, 0.2, (0.38, 0.24)) == (0, True)
