"""How alive a lot is."""

import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.crops.seeds import FRESH_RATE, by_age, viability


def test_seed_keeps_for_its_years_and_then_dies_off() -> None:
    onion, lettuce = crop("onion"), crop("lettuce")
    assert by_age(onion, 1) == by_age(onion, onion.keeps_y) == FRESH_RATE
    assert by_age(onion, 4) < 0.3
    assert by_age(lettuce, 4) == FRESH_RATE
    assert by_age(onion, 40) > 0


def test_a_test_of_many_seeds_outweighs_the_age() -> None:
    aged = viability(0.2, [])
    tested = viability(0.2, [(100, 80, 1.0)])
    assert tested.rate == pytest.approx((0.2 * 12 + 80) / 112, abs=0.02)
    assert tested.high - tested.low < aged.high - aged.low


def test_what_came_up_is_read_against_what_could_have() -> None:
    """Forty of a hundred, where the soil would have let half of live seed up, is seed four fifths alive."""
    assert viability(0.9, [(400, 160, 0.5)]).rate == pytest.approx(0.8, abs=0.05)
    assert viability(0.9, [(400, 160, 0.99)]).rate == pytest.approx(0.42, abs=0.05)


def test_the_band_holds_the_middle() -> None:
    band = viability(0.9, [(20, 18, 1.0)])
    assert band.low < band.rate < band.high
