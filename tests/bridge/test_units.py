import pytest

from cloche.bridge.values.units import NotANumber, Units, parse_air, parse_depth, parse_number, parse_soil
from cloche.core.errors import OutOfRange

C, F = Units("C", "cm"), Units("F", "in")


@pytest.mark.parametrize(
    ("typed", "value"),
    [("7.5", 7.5), ("7,5", 7.5), (" 7.5° ", 7.5), ("7.5 °C", 7.5), ("−3", -3), ("–3", -3), ("+4", 4), (".5", 0.5), ("12", 12)],
)
def test_numbers_as_people_type_them(typed: str, value: float) -> None:
    assert parse_number(typed) == value


@pytest.mark.parametrize("typed", ["warm", "", "7.5.1", "1 000", "7..5", "١٢", "nan", "inf", "1e3"])
def test_what_is_no_number_is_refused_in_words(typed: str) -> None:
    with pytest.raises(NotANumber, match="is not a number"):
        parse_number(typed)


def test_a_lost_decimal_point_is_guessed_at() -> None:
    with pytest.raises(OutOfRange, match=r"400 °C is outside -30 to 60\. Did you mean 40\?"):
        parse_soil("400", C)


def test_the_other_scale_is_asked_about() -> None:
    with pytest.raises(OutOfRange, match=r"Was it °F\?"):
        parse_soil("68", C)


def test_fahrenheit_is_stored_as_celsius() -> None:
    assert parse_soil("60", F) == pytest.approx(15.5556, abs=1e-3)
    assert parse_air("32", F) == pytest.approx(0)


@pytest.mark.parametrize(("typed", "units", "metres"), [("5", C, 0.05), ("2 in", F, 0.0508), ("7,5 cm", C, 0.075)])
def test_depths(typed: str, units: Units, metres: float) -> None:
    assert parse_depth(typed, units) == pytest.approx(metres)


def test_a_depth_below_everything_is_refused_in_its_unit() -> None:
    with pytest.raises(OutOfRange, match="500 cm is outside 0 to 200"):
        parse_depth("500", C)


def test_numbers_are_written_in_the_persons_scale() -> None:
    assert C.temperature_text(15.55) == "15.6°"
    assert F.temperature_text(15.55, 0) == "60°"
    assert C.temperature_text(-0.04) == "0.0°"
    assert C.temperature_text(-3.2) == "\u22123.2°"
    assert F.difference_text(1.0) == "1.8°"
    assert (C.length_text(0.05), F.length_text(0.0508), C.length_text(0.013)) == ("5 cm", "2 in", "1.3 cm")
