"""Beds from above and the section under a cover."""

import re

import pytest

from cloche.drawing.bed_plan import bed_plan, patch_of
from cloche.drawing.under_roof import GROUND_Y, STEPS, under_roof


def numbers(path: str) -> list[float]:
    return [float(number) for number in re.findall(r"-?\d+\.?\d*", path)]


def test_squares_are_drawn_to_scale() -> None:
    plan = bed_plan(1.5, 0.9, 0.3, 90.0)
    assert (plan.bed.width, plan.bed.height) == (150.0, 90.0)
    assert plan.grid.count("M") == 4 + 2
    uneven = bed_plan(1.0, 0.5, 0.3, 90.0)
    assert uneven.grid.count("M") == 3 + 1


@pytest.mark.parametrize(("runs_deg", "tip"), [(90.0, (0, -10)), (0.0, (10, 0)), (45.0, (7.1, -7.1)), (135.0, (-7.1, -7.1))])
def test_north_points_where_north_is(runs_deg: float, tip: tuple[float, float]) -> None:
    assert numbers(bed_plan(2, 1, 0.3, runs_deg).north)[:2] == pytest.approx(tip, abs=0.05)


def test_plants_stand_at_their_stations_and_grow() -> None:
    small = patch_of((0.3, 0.6, 0.6, 0.3), [(0.15, 0.15), (0.45, 0.15)], 0.3, "brassicas", 0.1)
    large = patch_of((0.3, 0.6, 0.6, 0.3), [(0.15, 0.15), (0.45, 0.15)], 0.3, "brassicas", 0.9)
    assert small.dots == "M45.0 75.0h0M75.0 75.0h0"
    assert small.size < large.size <= 30
    assert small.mark == "ring"


def test_families_differ_by_shape_and_not_by_colour() -> None:
    marks = {family: patch_of((0, 0, 1, 1), [(0.5, 0.5)], 0.3, family, 0.5).mark for family in ("alliums", "legumes", "mints")}
    assert marks == {"alliums": "tuft", "legumes": "staked", "mints": "dot"}


def test_broadcast_seed_lies_within_its_patch() -> None:
    drawn = patch_of((1.0, 0.5, 0.4, 0.4), [], 0.1, "brassicas", 0.5)
    points = [tuple(map(float, point)) for point in re.findall(r"M([\d.]+) ([\d.]+)h0", drawn.dots)]
    assert len(points) >= 12
    assert all(100 <= x <= 140 and 50 <= y <= 90 for x, y in points)


def test_a_name_fits_its_box() -> None:
    wide, narrow = (patch_of((0, 0, width, 0.3), [(0.1, 0.1)], 0.3, "", 0.5) for width in (1.2, 0.2))
    assert wide.letters > narrow.letters >= 2
    assert narrow.font <= 30 / 2.2


def test_shade_reaches_from_the_patch_to_where_its_top_throws_it() -> None:
    drawn = patch_of((1.0, 0.5, 0.5, 0.2), [(0.25, 0.1)], 0.5, "grasses", 1.0, (0.0, 1.5))
    shade = numbers(drawn.shade)
    xs, ys = shade[::2], shade[1::2]
    assert (min(xs), max(xs)) == (100, 150)
    assert (min(ys), max(ys)) == (pytest.approx(50 - 150), 70)


def test_bars_stand_under_their_roof_and_say_when_they_touch() -> None:
    drawn = under_roof(0.4, 0.3, "lean", [("Chard", 0.5, [0.1, 0.2, 0.3, 0.4, 0.5]), ("Radish", 0.6, [0.02] * STEPS)])
    chard, radish = drawn.stands
    assert [touches for _, _, touches in chard.bars] == [False, False, False, True, True]
    assert not any(touches for _, _, touches in radish.bars)
    assert all(y <= GROUND_Y for _, y, _ in chard.bars)
    assert radish.x > chard.x


def test_an_arch_is_highest_in_its_middle_and_a_flat_roof_everywhere() -> None:
    arch, flat = (
        numbers(under_roof(0.5, side, shape, [("A", 0.5, [0.1] * 5)]).roof)[1::2]
        for side, shape in ((0.0, "arch"), (0.5, "flat"))
    )
    assert min(arch) == arch[len(arch) // 2]
    assert len(set(flat[1:-1])) == 1


def test_it_prints_to_scale() -> None:
    """A bed of 1.5 m goes onto a sheet at one to ten, one of 3.6 m at one to twenty-five."""
    small, long = bed_plan(1.5, 0.9, 0.3, 90.0), bed_plan(3.6, 1.2, 0.3, 90.0)
    assert (small.scale, small.paper) == (10, ("16.20cm", "10.20cm"))
    assert long.scale == 25
    assert float(long.paper[0][:-2]) <= 18.5
