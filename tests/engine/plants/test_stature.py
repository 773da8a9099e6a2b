"""Height by growth, against the room under a cover."""

from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.covers.bend import bend
from cloche_engine.crops.catalogue import crop
from cloche_engine.plants.stature import UP_M, Room, grown_at, grown_shares, height_share, heights_m, touches

INCH = 0.0254


def course(key: str, start_m: float, mean_c: np.ndarray, first: date, latitude_deg: float) -> np.ndarray:
    grown = grown_shares(crop(key), mean_c, first, latitude_deg, crop(key).maturity_d)
    return heights_m(crop(key), start_m, grown)


def test_it_begins_at_nothing_and_ends_at_its_full_height() -> None:
    assert height_share([0.0, 1.0, 1.7]) == pytest.approx([0, 1, 1])
    assert np.all(np.diff(height_share(np.linspace(0, 1, 50))) > 0)
    assert height_share(grown_at(0.25, 0.5)) == pytest.approx(0.5, abs=0.001)


def test_tall_greens_touch_a_low_bent_sheet_after_four_to_six_weeks() -> None:
    """A 26 inch sheet bent over about 18 inches; common practice, no source: tall greens have four to six weeks under it, here
    counted from seedlings that are just up, in early April air of 10 °C beneath it."""
    roof = bend(26 * INCH, 18 * INCH)
    assert 7 * INCH < roof.height_m < 9 * INCH
    set_out = date(2026, 4, 10)
    for key in ("chard", "kale", "collards"):
        heights = course(key, UP_M, np.full(90, 10.0), set_out, 51.0)
        on = touches(heights, set_out, roof.height_m)
        assert on is not None
        assert timedelta(weeks=4) <= on - set_out <= timedelta(weeks=6), key


def test_a_crop_never_shrinks_and_stands_still_in_the_cold() -> None:
    cold = course("lettuce", 0.06, np.full(30, 0.0), date(2026, 1, 1), 52.0)
    assert cold == pytest.approx(0.06)
    warm = course("lettuce", 0.06, np.full(60, 15.0), date(2026, 5, 1), 52.0)
    assert np.all(np.diff(warm) >= 0)
    assert touches(warm, date(2026, 5, 1), 2.0) is None


def test_a_year_that_ends_goes_on_with_the_next() -> None:
    across = course("lettuce", 0.06, np.full(40, 12.0), date(2027, 12, 15), 45.0)
    assert np.all(np.isfinite(across))


def test_room_by_its_shape() -> None:
    arch, lean = Room(0.5, 0.0, 1.2), Room(0.45, 0.3, 1.2, "lean")
    assert (arch.height_m(0.6), arch.height_m(0.0), arch.height_m(1.2)) == (0.5, 0.0, 0.0)
    assert lean.height_m(0.6) == pytest.approx(0.375)
    assert Room(0.4, 0.4, 1.0, "flat").height_m(0.1) == 0.4
    assert arch.height_m(5) == arch.height_m(1.2)
