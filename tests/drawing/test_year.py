"""A usual year, and the earth in the colours of its warmth."""

import base64
import io
from datetime import date

import numpy as np
import pytest
from PIL import Image

from cloche.drawing import earth, scale
from cloche.drawing.earth import BOTTOM, LEFT, RAIN_BOTTOM, RAIN_TOP, RIGHT, TOP, Year, year

MONTHS = "JFMAMJJASOND"
LOW = [-4, -3, 0, 4, 8, 11, 13, 13, 9, 5, 1, -3]
HIGH = [2, 4, 9, 15, 19, 22, 25, 25, 20, 14, 7, 3]
RAIN = [35, 30, 40, 45, 70, 80, 90, 85, 60, 45, 45, 40]
MEAN = [(low + high) / 2 for low, high in zip(LOW, HIGH, strict=True)]


def drawn(frosts: tuple[date, date] | None = (date(2026, 5, 2), date(2026, 10, 12)), shift: float = 0.0) -> Year:
    low, high, mean = ([value + shift for value in row] for row in (LOW, HIGH, MEAN))
    return year(low, high, mean, RAIN, MONTHS, 0.0, frosts)


def test_twelve_months_stand_side_by_side_and_the_band_within_its_frame() -> None:
    picture = drawn()
    assert [tick.label for tick in picture.months] == list(MONTHS)
    apart = np.diff([tick.at for tick in picture.months])
    assert apart == pytest.approx(np.full(11, (RIGHT - LEFT) / 12), abs=0.11)
    y = [float(pair.split(" ")[1]) for pair in picture.band.replace("Z", "").replace("M", "L").split("L") if pair]
    assert len(y) == 24
    assert min(y) >= TOP
    assert max(y) <= BOTTOM
    assert [stop.colour for stop in picture.stops] == [scale.colour(value) for value in MEAN]


def test_rain_stands_on_its_line_and_the_wettest_month_fills_the_room_when_it_is_wet() -> None:
    picture = drawn()
    assert all(bar.y + bar.height == pytest.approx(RAIN_BOTTOM, abs=0.11) for bar in picture.rain)
    assert min(bar.y for bar in picture.rain) > RAIN_TOP  # a dry country's rain does not look like a monsoon
    heights = [bar.height for bar in picture.rain]
    assert np.argsort(heights).tolist()[-1] == RAIN.index(max(RAIN))
    wet = year(LOW, HIGH, MEAN, [mm * 4 for mm in RAIN], MONTHS, 0.0, None)
    assert min(bar.y for bar in wet.rain) == pytest.approx(RAIN_TOP, abs=0.11)


def test_the_line_of_freezing_is_drawn_where_it_freezes() -> None:
    cold, mild = drawn(), drawn(None, shift=6.0)
    assert cold.freezing_y is not None
    assert TOP < cold.freezing_y < BOTTOM
    assert mild.freezing_y is None
    assert mild.free == []


def test_the_months_without_frost_run_through_new_year_in_the_south() -> None:
    ((begin, end),) = drawn().free
    assert LEFT < begin < end < RIGHT
    assert (end - begin) / (RIGHT - LEFT) == pytest.approx(163 / 365, abs=0.01)
    south = drawn((date(2026, 9, 20), date(2026, 5, 1))).free
    assert len(south) == 2
    assert (south[0][0], south[1][1]) == (LEFT, RIGHT)
    assert sum(b - a for a, b in south) / (RIGHT - LEFT) == pytest.approx((365 - 142) / 365, abs=0.01)


def test_a_scale_in_fahrenheit_has_its_own_round_numbers() -> None:
    low, high = ([value * 1.8 + 32 for value in row] for row in (LOW, HIGH))
    picture = year(low, high, MEAN, RAIN, MONTHS, 32.0, None)
    assert all(float(tick.label.replace("−", "-")) % 10 == 0 for tick in picture.values)
    assert picture.freezing_y == pytest.approx(drawn().freezing_y, abs=3)


def test_land_has_its_colour_and_the_sea_another() -> None:
    image = earth.land([[20.0, np.nan], [-5.0, np.nan]])
    assert image.getpixel((1, 0)) == image.getpixel((1, 1)) == earth.SEA
    assert image.getpixel((0, 0)) != image.getpixel((0, 1))
    assert f"#{bytes(image.getpixel((0, 0))).hex()}" == scale.colour(20.0)  # type: ignore[arg-type]


def test_a_small_map_comes_as_a_picture_in_its_address() -> None:
    address = earth.as_address([[10.0, np.nan, 4.0]], larger=4)
    kind, _, packed = address.partition(",")
    assert kind == "data:image/png;base64"
    picture = Image.open(io.BytesIO(base64.b64decode(packed)))
    assert picture.size == (12, 4)


def test_the_shipped_map_is_what_the_shipped_climate_draws() -> None:
    """Facts of geography: the Sahara is warm land, Greenland cold, the middle of the Pacific is sea."""
    values = earth.whole()

    def at(latitude: float, longitude: float) -> float:
        return float(values[round((earth.NORTH_DEG - latitude) * 4), round((longitude + 180) * 4)])

    assert at(23, 5) > 22
    assert at(72, -40) < -15
    assert np.isnan(at(0, -140))
    assert Image.open(earth.FILE).size == (values.shape[1], values.shape[0])
