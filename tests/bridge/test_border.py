"""What may come in: the same answer for forms, devices, files, archives and services."""

import json
from datetime import UTC, date, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche.bridge.values import border


@given(st.text())
def test_text_that_is_let_in_is_one_line_of_whole_characters(text: str) -> None:
    try:
        kept = border.plain_text(text)
    except border.NotAllowed:
        return
    assert kept == text
    assert len(kept.splitlines()) < 2
    assert kept.encode("utf-8").decode("utf-8") == kept
    assert "\x00" not in kept


@pytest.mark.parametrize("text", ["a\nb", "Bcc: x\r\n", "\x00", "\ud800", "\x1b[2J", "a\u202eb", "\u2028"])
def test_signs_that_cannot_be_seen_are_refused(text: str) -> None:
    with pytest.raises(border.NotAllowed):
        border.plain_text(text)


@pytest.mark.parametrize("text", ["", "Höhe, “oben”", "苗床", "حديقة", "नर्सरी", "👩‍🌾 bed", "O'Brien; DROP"])
def test_names_of_all_tongues_are_let_in(text: str) -> None:
    assert border.plain_text(text) == text


@given(st.text(alphabet=st.characters(exclude_categories=("Cs",))))
def test_stored_text_can_always_be_made_to_come_in_again(text: str) -> None:
    assert border.plain_text(border.printable(text)) == border.printable(text)
    assert border.printable(border.printable(text)) == border.printable(text)


@pytest.mark.parametrize("name", ["UTC", "Europe/London", "America/Argentina/Ushuaia", "Australia/Lord_Howe"])
def test_zones_that_are(name: str) -> None:
    assert border.zone(name) == name


@pytest.mark.parametrize(
    "name", ["Mars/Olympus", "Europe", "", "../etc/passwd", "posix/Europe/Paris", "Etc/GMT+5", "utc", "\x00"]
)
def test_zones_that_are_not(name: str) -> None:
    with pytest.raises(border.NotAllowed):
        border.zone(name)


@pytest.mark.parametrize(
    ("year", "good"), [(1899, False), (1900, True), (2100, True), (2101, False), (1, False), (9999, False)]
)
def test_days_are_of_two_centuries(year: int, good: bool) -> None:
    if good:
        assert border.day(date(year, 6, 1)).year == year
    else:
        with pytest.raises(border.NotAllowed, match="a year from 1900 to 2100"):
            border.day(date(year, 6, 1))


def test_an_instant_needs_its_offset() -> None:
    assert border.instant(datetime(2026, 4, 1, tzinfo=UTC))
    with pytest.raises(border.NotAllowed, match="offset"):
        border.instant(datetime(2026, 4, 1))  # noqa: DTZ001 - that is the point


@pytest.mark.parametrize("value", [True, False, "1", None, float("nan"), float("inf"), 10**400, 101, -1, [], {}])
def test_what_is_no_number_within_limits(value: object) -> None:
    with pytest.raises(border.NotAllowed):
        border.number(value, 0, 100)


@given(st.floats(0, 100))
def test_numbers_within_limits(value: float) -> None:
    assert border.number(value, 0, 100) == value


json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False, allow_infinity=False) | st.text(),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(), inner, max_size=4),
)


@given(json_values)
def test_honest_json_is_read_as_it_is(value: object) -> None:
    text = json.dumps(value)
    try:
        assert border.read_json(text.encode(), 1_000_000) == value
    except border.NotAllowed:
        assert "\\ud" in text


@given(st.binary(max_size=300))
def test_any_bytes_are_read_or_refused_in_a_sentence(data: bytes) -> None:
    try:
        value = border.read_json(data, 200)
    except border.NotAllowed:
        return
    assert json.loads(json.dumps(value)) == value


@pytest.mark.parametrize(
    "data",
    [
        b"[" * 100_000,
        b'{"a":' * 5_000 + b"1" + b"}" * 5_000,
        b"[NaN]",
        b"[Infinity]",
        b"[-Infinity]",
        b'"\\ud800"',
        b"\xff\xfe",
        b"",
        b"{",
        b'{"a": 1e}',
        b"1" * 2_000_001,
        b"[" + b"9" * 5_000 + b"]",
    ],
)
def test_json_that_is_none_of_ours(data: bytes) -> None:
    with pytest.raises(border.NotAllowed):
        border.read_json(data, 2_000_000)


def test_brackets_within_text_do_not_count() -> None:
    params = {"note": "[" * 500 + '"\\' + "{" * 500}
    assert border.read_json(json.dumps(params), 10_000) == params


@pytest.mark.parametrize(
    ("text", "number"), [("0", 0), ("17", 17), ("²", None), ("-1", None), ("1" * 10, None), ("٣", None), ("", None)]
)
def test_whole_numbers_in_addresses(text: str, number: int | None) -> None:
    assert border.whole(text) == number
