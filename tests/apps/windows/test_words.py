"""What is said of a window, in each of its states."""

from dataclasses import replace
from datetime import date

import pytest

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.windows.pages.crop import by_the_frost, edges
from cloche.apps.windows.pages.place import window_words
from cloche_engine.results import FrostDates
from cloche_engine.windows.limits import Limit
from tests.factories import make_window

TODAY = date(2026, 4, 22)


def outlook(*spans: tuple[str, str], best: tuple[str, str] | None = None, open_ended: bool = False) -> CropOutlook:
    windows = [make_window(*span, best=best, open_ended=open_ended) for span in spans]
    return CropOutlook(crop_key="carrot", windows=windows, main_limit="" if spans else Limit.COLD)


@pytest.mark.parametrize(
    ("row", "said"),
    [
        (outlook(("2026-05-09", "2026-07-03")), ("9 May to 3 July", "")),
        (outlook(("2026-04-22", "2026-07-03")), ("today to 3 July", "")),
        (outlook(("2026-05-09", "2026-05-30")), ("9–30 May", "")),
        (
            outlook(("2026-05-09", "2026-07-03"), best=("2026-05-20", "2026-06-10")),
            ("9 May to 3 July", "best 20 May to 10 June"),
        ),
        (outlook(("2026-05-09", "2027-01-18"), open_ended=True), ("from 9 May on", "")),
        (outlook(("2026-04-22", "2027-01-18"), open_ended=True), ("from today on", "")),
        (
            outlook(("2026-04-22", "2026-05-14"), ("2026-08-21", "2026-09-04")),
            ("today to 14 May", "again 21 August to 4 September"),
        ),
        (outlook(("2027-03-12", "2027-04-04")), ("12 March 2027 to 4 April 2027", "")),
        (outlook(), ("no reliable window", "soil too cold")),
    ],
)
def test_a_window_in_words(row: CropOutlook, said: tuple[str, str]) -> None:
    assert window_words(row, TODAY) == said


FROSTS = FrostDates(
    spring=(date(2026, 4, 20), date(2026, 5, 6), date(2026, 5, 20)),
    autumn=(date(2026, 9, 20), date(2026, 10, 8), date(2026, 10, 25)),
    lowest_c=-14.0,
    years=0,
)


@pytest.mark.parametrize(
    ("on", "said"),
    [
        (TODAY, ["Today is 2 weeks before the usual last frost of spring, 6 May."]),
        (date(2026, 4, 29), ["29 April is 1 week before the usual last frost of spring, 6 May."]),
        (date(2026, 5, 4), ["4 May is in the week of the usual last frost of spring, 6 May."]),
        (date(2026, 5, 27), ["27 May is 3 weeks after the usual last frost of spring, 6 May."]),
        (date(2026, 8, 27), ["27 August is 6 weeks before the usual first frost of autumn, 8 October."]),
        (date(2026, 7, 20), []),
    ],
)
def test_a_day_is_counted_from_the_frost_it_is_near(on: date, said: list[str]) -> None:
    assert by_the_frost(on, FROSTS, TODAY) == said


def test_without_a_frost_no_day_is_counted_from_one() -> None:
    assert by_the_frost(TODAY, replace(FROSTS, spring=None, autumn=None), TODAY) == []


def test_each_reason_is_said_once_with_all_its_days() -> None:
    windows = [
        make_window("2026-04-10", "2026-06-20", opens_after=Limit.COLD, closes_before=Limit.HOT),
        make_window("2026-08-20", "2026-09-10", opens_after=Limit.HOT, closes_before=Limit.WINTER),
    ]
    reasons = edges(CropOutlook(crop_key="carrot", windows=windows, method="direct"), TODAY)
    assert list(reasons.values()) == [["before 10 April"], ["after 20 June", "before 20 August"], ["after 10 September"]]
    assert list(reasons)[1] == "the soil is too hot for it"
