"""The bench's drawings: what stands tall, leans and lies; dots on the right side of the line; a builder to scale."""

import re
from itertools import pairwise

import pytest

from cloche.drawing.bench import (
    DAY_PLOT,
    LEFT,
    MARGIN,
    OPEN_SKY,
    PLOT,
    RIGHT,
    TRAY_TOP,
    WIDTH,
    Stand,
    bench_plan,
    heater_day,
    light_warmth,
    tray,
)
from cloche.drawing.geometry import spread


def tips(paths: list[str]) -> list[tuple[float, float]]:
    """Where each stem ends."""
    matches = (re.match(r"M\S+ \S+Q\S+ \S+ (\S+) (\S+?)q", path) for path in paths)
    return [(float(match[1]), float(match[2])) for match in matches if match]


def test_seedlings_stand_as_tall_as_they_are_and_lean_where_they_stretch() -> None:
    short, tall = (tray(18.0, [Stand(1.0, 1.0, height, 0.0)]) for height in (0.1, 0.9))
    assert tips(tall.plants)[0][1] < tips(short.plants)[0][1] < TRAY_TOP
    upright, leaning = (tray(18.0, [Stand(1.0, 1.0, 0.5, lean)]) for lean in (0.0, 1.0))
    assert tips(leaning.plants)[0][0] > tips(upright.plants)[0][0] + 5


def test_what_is_not_up_lies_in_the_mix_and_sowings_are_parted_by_a_wall() -> None:
    half = tray(18.0, [Stand(1.0, 0.5, 0.2, 0.0), Stand(1.0, 0.0, 0.0, 0.0)])
    assert len(half.plants) in (2, 3)
    assert all(y > half.top for _x, y in half.seeds)
    assert len(half.walls) == 1
    assert LEFT < half.walls[0] < RIGHT
    assert tray(18.0, []).walls == []


@pytest.mark.parametrize("heat", ["mat", "base", "cable", "wire", "hotbed", ""])
def test_each_source_is_drawn_and_a_box_is_deeper_than_a_tray(heat: str) -> None:
    drawn = tray(18.0, [], heat)
    assert bool(drawn.heat) is bool(heat)
    assert (drawn.top < TRAY_TOP) is (heat in ("cable", "wire", "hotbed"))
    assert drawn.tall == drawn.foot - drawn.top


def test_a_near_lamp_hangs_lower_and_its_hours_go_over_midnight() -> None:
    far, near = (tray(18.0, [], lamp_near=at, lit=[(22.0, 6.0)]) for at in (0.0, 1.0))
    height = [float(drawn.lamp.split(" ")[1].split("H")[0]) for drawn in (far, near)]
    assert height[0] < height[1] < TRAY_TOP
    assert sum(wide for _x, wide in far.lit) == pytest.approx(8 / 24 * (RIGHT - LEFT), abs=0.2)
    assert len(far.lit) == 2
    assert (tray(18.0, []).sky, far.sky, tray(18.0, [], window=True).sky) == (OPEN_SKY, 0.0, 0.0)


def test_dots_lie_where_their_light_and_warmth_are_and_their_names_apart() -> None:
    dots = [
        (10.0, 12.0, "leeks", False),
        (22.0, 3.0, "lettuces", True),
        (22.0, 3.0, "tomatoes", True),
        (40.0, 40.0, "far", False),
    ]
    drawn = light_warmth(dots, [(4.0, 2.0), (30.0, 15.0)], [(10.0, "10°")], [(5.0, "5")])
    by_name = {dot.label: dot for dot in drawn.dots}
    assert by_name["leeks"].x < by_name["lettuces"].x
    assert by_name["leeks"].y < by_name["lettuces"].y
    assert abs(by_name["lettuces"].label_y - by_name["tomatoes"].label_y) >= 14
    assert by_name["far"].x == PLOT[2]
    assert by_name["far"].left
    assert by_name["lettuces"].leggy
    assert not by_name["leeks"].leggy


def test_labels_are_spread_and_kept_within_their_limits() -> None:
    assert spread([10.0, 11.0, 12.0], 15.0, 0.0, 100.0) == [10.0, 25.0, 40.0]
    crowded = spread([95.0, 96.0, 97.0], 15.0, 0.0, 100.0)
    assert crowded[-1] == 100.0
    assert [round(b - a) for a, b in pairwise(crowded)] == [15, 15]
    assert spread([], 15.0, 0.0, 100.0) == []


def test_a_heaters_day_lies_between_its_set_points() -> None:
    drawn = heater_day(
        ([20.0] * 30, [21.0] * 30, [22.0] * 30), [(19.0, "on"), (23.0, "off")], [(0, "a")], [(21.0, "21°")], 12.0
    )
    low, high = drawn.rules[0].at, drawn.rules[1].at
    line = float(drawn.line.split(" ")[1].split("L")[0])
    assert high < line < low
    assert DAY_PLOT[0] < drawn.now_x < DAY_PLOT[2]


def test_a_bench_is_drawn_to_scale_with_trays_in_rows() -> None:
    plan = bench_plan((2.0, 1.0), [(0.05, 0.05), (1.95, 0.05)], 5, (0.8, 0.4))
    assert plan.box[2] / plan.box[3] == pytest.approx(2.0, rel=0.01)
    assert plan.width == WIDTH
    assert [(x > MARGIN, y > MARGIN) for x, y, _w, _h in plan.trays[:3]] == [(False, False), (True, False), (False, True)]
    assert plan.cable.startswith("M")
