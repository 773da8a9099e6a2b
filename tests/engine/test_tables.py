"""Tables of facts are checked when they are loaded."""

import pytest

from cloche_engine import tables
from cloche_engine.covers.kinds import COLUMNS, kinds
from cloche_engine.crops import table
from cloche_engine.crops.catalogue import catalogue
from cloche_engine.places.kinds import place_kinds

SPEC: dict[str, tables.Check] = {"key": tables.text, "share": tables.number(0, 1), "opens": tables.yes_or_no}


def test_a_row_becomes_its_values() -> None:
    assert tables.checked("key,share,opens\nbell,0.5,no\n", "t.csv", SPEC) == {
        "bell": {"key": "bell", "share": 0.5, "opens": False}
    }


@pytest.mark.parametrize(
    ("written", "said"),
    [
        ("key,share,opens\nbell,1.5,no\n", "t.csv, row bell, column share: 1.5 is outside 0 to 1."),
        ("key,share,opens\nbell,half,no\n", "t.csv, row bell, column share: could not convert string to float: 'half'."),
        ("key,share,opens\nbell,0.5,perhaps\n", "t.csv, row bell, column opens: “perhaps” is none of yes, no."),
        ("key,share,opens\nbell,0.5\n", "t.csv, row bell, column opens: “” is none of yes, no."),
        ("key,share,opens\nbell,0.5,no\nbell,0.5,no\n", "t.csv, row bell: it is there twice."),
        ("key,opens,share\nbell,no,0.5\n", "t.csv: the columns are to be key, share, opens."),
    ],
)
def test_what_cannot_be_is_refused_by_row_and_column(written: str, said: str) -> None:
    with pytest.raises(tables.BadTable) as refusal:
        tables.checked(written, "t.csv", SPEC)
    assert str(refusal.value) == said


def test_every_kind_of_cover_and_place_is_one_row() -> None:
    assert all(set(COLUMNS) | {"parts"} == set(vars(kind)) for kind in kinds().values())
    covers = {kind.usual_cover for kind in place_kinds().values()} - {""}
    assert covers <= set(kinds())


@pytest.mark.parametrize(
    ("key", "column", "value", "text"),
    [
        ("pea", "hardiness", "", "crops.csv, row pea, column hardiness: it is empty."),
        ("pea", "minimum_f", 40.0, "crops.csv, row pea, column minimum_f: the five in °F are given together or not at all."),
        ("pea_autumn", "of", "peas", "crops.csv, row pea_autumn, column of: there is no crop “peas”."),
        ("pea_autumn", "rooted", None, "crops.csv, row pea_autumn, column rooted: it is empty."),
    ],
)
def test_a_crops_row_says_all_that_is_needed(key: str, column: str, value: object, text: str) -> None:
    rows = table.crops()
    with pytest.raises(tables.BadTable) as refusal:
        table.checked(rows | {key: rows[key] | {column: value}})
    assert str(refusal.value) == text


def test_every_crop_is_one_row() -> None:
    assert list(table.crops()) == list(catalogue())
