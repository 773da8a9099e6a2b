"""How many plants go where, against what the trade knows."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.crops.catalogue import crop
from cloche_engine.errors import OutOfRange
from cloche_engine.plants.spacing import (
    FOOT_M,
    Layout,
    Spacing,
    Thinning,
    on_trellis,
    seeds,
    stand,
    stations,
    usual,
)

FT = FOOT_M
SIDES = st.floats(0.1, 12.0)


@pytest.mark.parametrize(
    ("key", "plants"),
    [("radish", 16), ("carrot", 16), ("pak_choi", 9), ("spinach", 9), ("beet", 9), ("kale", 1), ("tomato", 1)],
)
def test_a_square_foot_holds_what_growers_put_there(key: str, plants: int) -> None:
    """Common practice, no source: sixteen of the small, nine at four inches, one of what fills it."""
    spacing = usual(crop(key), Layout.SQUARES)
    assert len(stations(FT, FT, Layout.SQUARES, spacing)) == plants


def test_peas_at_four_inches_on_fifty_feet_of_trellis() -> None:
    """Common practice, no source."""
    assert on_trellis(50 * FT, [4 * 0.0254]) == [150]
    assert stand(50 * FT, 0.2, Layout.ROWS, Spacing(4 * 0.0254, 0.6)) == 150


def test_a_mixed_trellis_gives_each_crop_its_turn() -> None:
    # One squash or tomato, or two climbing beans, a foot (common practice, no source).
    assert on_trellis(10 * FT, [FT, FT / 2]) == [7, 6]
    assert on_trellis(3 * FT, [FT]) == [3]


def test_by_the_pair_and_thinned_to_one() -> None:
    """Pak choi at four inches, two seeds a station (common practice, no source)."""
    spacing = Spacing(0.1016, 0.1016, per_station=2)
    assert seeds(FT, FT, Layout.SQUARES, spacing) == 18
    assert stand(FT, FT, Layout.SQUARES, spacing, Thinning.PAIRS) == 9


def test_every_other_is_pulled_first() -> None:
    row = Spacing(0.05, 0.15)
    assert stand(1.0, 0.15, Layout.ROWS, row) == 20
    assert stand(1.0, 0.15, Layout.ROWS, row, Thinning.EVERY_OTHER) == 10


def test_broadcast_seed_goes_by_the_area() -> None:
    spacing = Spacing(0.1, 0.1)
    assert stations(1.0, 1.0, Layout.BROADCAST, spacing) == []
    assert (stand(1.0, 1.0, Layout.BROADCAST, spacing), seeds(1.0, 1.0, Layout.BROADCAST, spacing)) == (100, 200)


@given(SIDES, SIDES, st.sampled_from([Layout.SQUARES, Layout.ROWS]), st.floats(0.07, 1.5), st.floats(0.07, 1.5))
def test_stations_lie_within_their_patch_and_apart(
    length: float, width: float, layout: Layout, plant: float, row: float
) -> None:
    try:
        places = stations(length, width, layout, Spacing(plant, row))
    except OutOfRange:
        return
    assert places
    assert all(0 < x < length and 0 < y < width for x, y in places)
    assert len(places) == len(set(places)) == stand(length, width, layout, Spacing(plant, row))


def test_what_nobody_plants_is_refused() -> None:
    with pytest.raises(OutOfRange, match="at most 4000"):
        stations(20, 20, Layout.ROWS, Spacing(0.02, 0.05))
    for wrong in ((0, [0.1]), (1, []), (1, [0.0])):
        with pytest.raises(OutOfRange):
            on_trellis(*wrong)
    with pytest.raises(OutOfRange):
        stand(1, 0, Layout.ROWS, Spacing(0.1, 0.1))
