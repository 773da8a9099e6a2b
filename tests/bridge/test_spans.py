"""Spans of a timer, as people type them."""

import pytest

from cloche.bridge.values.clocks import check_spans, parse_spans, spans_text
from cloche_engine.errors import OutOfRange


@pytest.mark.parametrize(
    ("text", "spans"),
    [
        ("6-22", [(6, 22)]),
        ("5:30–9, 16–21", [(5.5, 9), (16, 21)]),
        ("6am-9am and 4 pm to 9.15 pm", [(6, 9), (16, 21.25)]),
        ("22–6", [(22, 6)]),
        ("0–24", [(0, 24)]),
        ("12am-12pm", [(0, 12)]),
    ],
)
def test_spans_are_read_as_they_are_typed(text: str, spans: list[tuple[float, float]]) -> None:
    assert parse_spans(text) == spans
    assert parse_spans(spans_text(spans)) == spans
    check_spans([list(span) for span in spans])


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "Enter when"),
        ("all day", "not a period"),
        ("6-6", "starts when it ends"),
        ("6-25", "not an hour of the day"),
        ("6-24:30", "not an hour of the day"),
        ("13pm-14", "not an hour with"),
        ("1-2,3-4,5-6,7-8,9-10", "Enter when"),
    ],
)
def test_what_is_no_span_is_said_so(text: str, said: str) -> None:
    with pytest.raises(OutOfRange, match=said):
        parse_spans(text)


@pytest.mark.parametrize("spans", ["6-22", [[6]], [[6, 25]], [[6, 6]], [["6", "22"]], [[0, 1]] * 5, [[float("nan"), 3]]])
def test_what_is_stored_is_pairs_of_different_hours(spans: object) -> None:
    with pytest.raises(OutOfRange):
        check_spans(spans)
