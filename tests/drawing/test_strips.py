"""Covers along the time axis: where they begin and end, and which stands over which."""

from datetime import UTC, datetime, timedelta

from cloche.drawing.chart import LEFT, RIGHT, Span
from cloche.drawing.strips import GROUND, LOWER, TOP, strips

START = datetime(2026, 4, 1, tzinfo=UTC)
SPAN = Span(START, START + timedelta(days=20), START + timedelta(days=10))


def test_what_is_there_all_along_is_cut_off_straight_and_what_is_over_is_left_out() -> None:
    (drawn,) = strips([(None, None, "Tunnel", "Tunnel, always on", 0)], SPAN)
    assert drawn.outline.startswith(f"M{LEFT:.1f} {GROUND}V{TOP}")
    assert drawn.outline.endswith(f"H{RIGHT:.1f}V{GROUND}")
    assert drawn.label == "Tunnel"
    assert strips([(None, START - timedelta(days=1), "Gone", "Gone", 0)], SPAN) == []


def test_a_lower_layer_is_drawn_beneath_and_named_where_the_upper_one_is_not() -> None:
    fleece = (START + timedelta(days=9), None, "Fleece", "Fleece, since 10 April", 1)
    above, below = strips([fleece, (None, None, "Tunnel", "Tunnel, always on", 0)], SPAN)
    assert (above.label, above.under) == ("Tunnel", 0)
    assert (below.label, below.under) == ("Fleece", 1)
    assert f"V{TOP}" in above.outline
    assert f"{TOP + LOWER - GROUND}" in below.outline
    both = strips([(None, None, "Tunnel", "", 0), (None, None, "Fleece", "", 1)], SPAN)
    assert [strip.label for strip in both] == ["Tunnel", ""]
