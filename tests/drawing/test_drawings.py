import re
from datetime import UTC, date, datetime, timedelta

import pytest

from cloche.drawing import chart, emergence, ribbon, wakes
from cloche.drawing.geometry import Linear, Tick, band, nice_step, path, value_ticks
from cloche.drawing.slice import GROUND_Y, HEIGHT, depth_y, slice_of

KINDS = [
    "open",
    "raised",
    "mulched",
    "fleece",
    "tunnel",
    "arch",
    "frame",
    "bell",
    "tub",
    "cells",
    "tray",
    "mat",
    "cable",
    "hotbed",
]
DEPTHS = [0.0, 0.05, 0.1, 0.2, 0.45]


def numbers(drawn: str) -> list[float]:
    return [float(n) for n in re.findall(r"-?\d+\.?\d*", drawn)]


def test_a_linear_scale_meets_its_ends() -> None:
    scale = Linear(0, 10, 100, 200)
    assert (scale(0), scale(5), scale(10)) == (100, 150, 200)


def test_paths_and_bands() -> None:
    assert path([(0, 1), (2, 3)]) == "M0.0 1.0L2.0 3.0"
    assert path([]) == ""
    assert band([0, 1], [5, 5], [2, 2]) == "M0.0 2.0L1.0 2.0L1.0 5.0L0.0 5.0Z"


@pytest.mark.parametrize(("span", "most", "step"), [(9, 10, 1), (12, 6, 2), (24, 6, 5), (55, 6, 10), (300, 6, 50)])
def test_steps_are_round(span: float, most: int, step: float) -> None:
    assert nice_step(span, most) == step


def test_ticks_lie_within_their_limits() -> None:
    assert value_ticks(-3.2, 17.8) == [0, 5, 10, 15]


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_place_is_drawn(kind: str) -> None:
    cut = slice_of(kind, 0.05, DEPTHS, [12.0, 11, 10, 9, 8])
    assert [stop.offset for stop in cut.stops] == sorted(stop.offset for stop in cut.stops)
    assert GROUND_Y < cut.probe_y < HEIGHT
    assert bool(cut.shapes or cut.heat) == (kind != "open")


def test_the_upper_decimetre_takes_most_of_the_room() -> None:
    assert depth_y(0.0) == GROUND_Y
    assert depth_y(0.45) == HEIGHT == depth_y(2.0)
    assert depth_y(0.10) - GROUND_Y > 0.35 * (HEIGHT - GROUND_Y)


START = datetime(2026, 4, 1, tzinfo=UTC)
SPAN = chart.Span(START, START + timedelta(days=35), START + timedelta(days=21))
HOURS = chart.Hours([8.0] * 840, [10.0] * 840, [12.0] * 840)


def test_past_and_coming_meet_at_now() -> None:
    drawn = chart.chart(HOURS, [], SPAN)
    assert numbers(drawn.past)[-2] == pytest.approx(numbers(drawn.coming)[0], abs=0.2)
    assert chart.LEFT < drawn.now_x < chart.RIGHT


def test_a_strange_reading_is_drawn_at_the_edge_and_does_not_flatten_the_rest() -> None:
    at = START + timedelta(days=3)
    calm = chart.chart(HOURS, [(at, 10.0, "ten", True, False)], SPAN)
    wild = chart.chart(HOURS, [(at, 10.0, "ten", True, False), (at, 41.0, "odd", True, True)], SPAN)
    assert wild.marks[0] == calm.marks[0]
    assert wild.marks[1].strange
    assert wild.marks[1].y == chart.CHART_TOP


def test_the_cut_is_hatched_from_now_to_its_end() -> None:
    field = chart.field([[5.0] * 10] * 5, DEPTHS, [Tick(0.05, "5 cm"), Tick(0.9, "90 cm")], SPAN)
    assert field.now_x + field.coming_width == pytest.approx(chart.RIGHT)
    assert [tick.label for tick in field.depths] == ["5 cm"]


def test_a_ribbon_is_thick_where_sowing_succeeds() -> None:
    drawn = ribbon.ribbon([0, 50, 100], [0.0, 1.0, 0.0], [5.0, 15.0, 25.0], 100)
    ys = numbers(drawn.outline)[1::2]
    assert max(ys) - min(ys) == pytest.approx(ribbon.HEIGHT - 2, abs=0.1)
    assert drawn.stops[0].offset == 0


def test_the_calendar_names_months_across_new_year() -> None:
    assert [tick.label for tick in ribbon.calendar(date(2026, 11, 14), 120).months] == ["Dec", "Jan", "Feb", "Mar"]


def test_the_calendar_leaves_out_a_month_whose_name_would_not_fit() -> None:
    """1 December would touch the word “today”, and the name of 1 March would end beyond the drawing."""
    assert [tick.label for tick in ribbon.calendar(date(2026, 11, 24), 100).months] == ["Jan", "Feb"]


def test_a_crop_s_shape_ends_where_it_sleeps() -> None:
    shape = wakes.CropShape("x", "X", [0, 10, 20, 30, 40], [0, 0, 1, 0, 0], (15, 25), "5 d", "comfortable")
    drawn = wakes.wakes([shape], [wakes.BedLine(12.0, 14.0, "North bed 12°", True)], [Tick(0, "0°")])
    xs = numbers(drawn.rows[0].outline)[0::2]
    assert min(xs) > wakes.LEFT
    assert max(xs) < wakes.RIGHT


def test_a_long_crop_name_gets_its_room() -> None:
    """The drawing grows to the left, and its right end stays where it is."""
    named = [wakes.CropShape("x", name, [0, 10, 20], [0, 1, 0], (8, 12), "5 d", "cold") for name in ("Beet", "A" * 30)]
    short, long = (wakes.wakes([each], [], []) for each in named)
    assert short.left == 0
    assert long.left < -50
    assert long.left + long.width == short.width


def test_bed_labels_side_by_side_take_different_steps() -> None:
    beds = [wakes.BedLine(10 + i * 0.1, 12, f"Bed number {i} 10°", False) for i in range(4)]
    shape = wakes.CropShape("x", "X", [0, 20, 40], [0, 1, 0], (15, 25), "", "asleep")
    lines = wakes.wakes([shape], beds, []).lines
    assert len({line.label_y for line in lines}) == 4


FRACTIONS = (0.1, 0.5, 0.9)


def test_an_emergence_curve_ends_at_its_share() -> None:
    drawn = emergence.emergence(date(2026, 4, 22), FRACTIONS, [[8, 9, 11], [10, 12, 15], [13, 16, 21]], (0.7, 0.8, 0.9))
    assert drawn is not None
    assert numbers(drawn.curve)[-1] == pytest.approx(emergence.BOTTOM - 0.8 * (emergence.BOTTOM - emergence.TOP), abs=0.1)


def test_what_never_comes_up_has_no_curve() -> None:
    assert emergence.emergence(date(2026, 4, 22), FRACTIONS, [[None, None, None]] * 3, (0, 0, 0)) is None


def test_a_slow_side_that_never_comes_still_draws_the_middle() -> None:
    drawn = emergence.emergence(date(2026, 4, 22), FRACTIONS, [[8, 9, None], [10, 12, None], [13, 16, None]], (0.1, 0.8, 0.9))
    assert drawn is not None
    assert drawn.half_x is not None
