"""A few days in one line: doubtful ones marked, silence left open, all of it inside the frame."""

from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from cloche.drawing.spark import HEIGHT, WIDTH, spark

START = datetime(2026, 4, 20, tzinfo=UTC)
END = START + timedelta(days=4)


def at(hours: float) -> datetime:
    return START + timedelta(hours=hours)


def test_what_is_in_question_is_marked_and_the_rest_are_dots() -> None:
    drawn = spark(START, END, [(at(10), 8.0, False), (at(20), 24.0, True), (at(30), 9.0, False)])
    assert (len(drawn.dots), len(drawn.odd), drawn.lines) == (2, 1, [])
    assert drawn.odd[0][1] < min(y for _, y in drawn.dots)  # warm is up
    assert (drawn.low, drawn.high) == (8.0, 24.0)


def test_a_logger_is_a_line_that_breaks_where_it_fell_silent() -> None:
    points = [(at(h), 9.0, False) for h in (*range(10), *range(40, 50))]
    drawn = spark(START, END, points, joined=True)
    assert len(drawn.lines) == 2
    assert drawn.dots == []


def test_the_band_is_one_closed_shape_and_nothing_without_one() -> None:
    drawn = spark(START, END, [], [(at(h), 7.0, 11.0) for h in range(24)])
    assert drawn.band.endswith("Z")
    assert spark(START, END, []).band == ""


def test_what_lies_outside_the_days_is_not_drawn() -> None:
    assert spark(START, END, [(at(-1), 8.0, False), (at(97), 8.0, True)]).dots == []


@given(st.lists(st.tuples(st.floats(0, 96), st.floats(-30, 60), st.booleans()), min_size=1, max_size=40))
def test_everything_stays_in_the_frame(params: list[tuple[float, float, bool]]) -> None:
    drawn = spark(START, END, [(at(h), v, odd) for h, v, odd in sorted(params)])
    assert len(drawn.dots) + len(drawn.odd) == len(params)
    for x, y in [*drawn.dots, *drawn.odd]:
        assert 0 <= x <= WIDTH
        assert 0 <= y <= HEIGHT
