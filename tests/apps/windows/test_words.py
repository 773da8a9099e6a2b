"""What is said of a window, in each of its states."""

from datetime import date

import pytest

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.windows.pages.place import window_words
from cloche.core.windows.limits import Limit
from tests.factories import make_window

TODAY = date(2026, 4, 22)


def outlook(*spans: tuple[str, str], best: tuple[str, str] | None = None, open_ended: bool = False) -> CropOutlook:
    windows = [make_window(*span, best=best, open_ended=open_ended) for span in spans]
    return CropOutlook(crop_key="carrot", windows=windows, main_limit="" if spans else Limit.COLD)


@pytest.mark.parametrize(
    ("found", "said"),
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
        (outlook(), ("no sure window", "soil too cold")),
    ],
)
def test_a_window_in_words(found: CropOutlook, said: tuple[str, str]) -> None:
    assert window_words(found, TODAY) == said
