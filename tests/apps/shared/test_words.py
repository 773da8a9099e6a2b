from datetime import date, datetime

import pytest

from cloche.apps.shared import words

TODAY = date(2026, 4, 22)


@pytest.mark.parametrize(
    ("on", "said"),
    [
        (date(2026, 4, 22), "today"),
        (date(2026, 5, 9), "9 May"),
        (date(2026, 12, 31), "31 December"),
        (date(2027, 1, 3), "3 January"),
        (date(2027, 4, 20), "20 April 2027"),
        (date(2025, 4, 22), "22 April 2025"),
    ],
)
def test_a_day_names_its_year_only_when_it_could_be_mistaken(on: date, said: str) -> None:
    assert words.day(on, TODAY) == said


@pytest.mark.parametrize(
    ("start", "end", "said"),
    [
        (date(2026, 5, 9), date(2026, 5, 9), "9 May"),
        (date(2026, 5, 9), date(2026, 5, 12), "9–12 May"),
        (date(2026, 5, 9), date(2026, 7, 3), "9 May to 3 July"),
        (date(2026, 4, 22), date(2026, 4, 30), "today to 30 April"),
        (date(2026, 12, 28), date(2027, 1, 3), "28 December to 3 January"),
    ],
)
def test_spans(start: date, end: date, said: str) -> None:
    assert words.span(start, end, TODAY) == said


@pytest.mark.parametrize(
    ("names", "said"),
    [
        ([], ""),
        (["peas"], "peas"),
        (["peas", "beets"], "peas and beets"),
        (["peas", "beets", "kale"], "peas, beets and kale"),
        (["a", "b", "c", "d", "e", "f"], "a, b, c, d and 2 more"),
    ],
)
def test_lists_read_like_speech(names: list[str], said: str) -> None:
    assert words.listed(names) == said


@pytest.mark.parametrize(
    ("probability", "said"),
    [
        (0.0, "hardly ever"),
        (0.14, "one time in ten"),
        (0.5, "half the time"),
        (0.8, "eight times in ten"),
        (0.97, "nearly always"),
    ],
)
def test_probabilities_are_words(probability: float, said: str) -> None:
    assert words.likely(probability) == said


def test_small_words() -> None:
    assert words.sentence("peas and beets") == "Peas and beets"
    assert words.sentence("") == ""
    assert (
        words.count(1, "reading", "readings"),
        words.count(0, "reading", "readings"),
        words.count(2, "person", "people"),
        words.count(999, "reading", "readings"),
        words.count(10_689, "reading", "readings"),
    ) == (
        "1 reading",
        "0 readings",
        "2 people",
        "999 readings",
        "10,689 readings",
    )
    assert words.weekday(date(2028, 2, 29)) == "Tuesday 29 February 2028"
    assert words.clock(datetime(2026, 4, 22, 7, 5)) == "07:05"  # noqa: DTZ001
