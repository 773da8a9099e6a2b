from typing import Any

import pytest

from cloche.bridge.values.units import (
    NotANumber,
    Units,
    parse_air,
    parse_depth,
    parse_number,
    parse_rain,
    parse_soil,
    parse_weight,
    parse_wind,
)
from cloche_engine.errors import OutOfRange

C, F = Units("C", "cm"), Units("F", "in")


@pytest.mark.parametrize(
    ("typed", "value"),
    [("7.5", 7.5), ("7,5", 7.5), (" 7.5° ", 7.5), ("7.5 °C", 7.5), ("−3", -3), ("–3", -3), ("+4", 4), (".5", 0.5), ("12", 12)],
)
def test_numbers_as_people_type_them(typed: str, value: float) -> None:
    assert parse_number(typed) == value


@pytest.mark.parametrize("typed", ["warm", "", "7.5.1", "7..5", "١٢", "nan", "inf", "1e3", "12 apples", "1 2"])
def test_what_is_no_number_is_refused_in_words(typed: str) -> None:
    with pytest.raises(NotANumber, match="is not a number"):
        parse_number(typed)


@pytest.mark.parametrize(
    ("typed", "value"), [("1 000", 1000), ("1,234.5", 1234.5), ("1.234,5", 1234.5), ("12,345,678", 12345678), ("12,34", 12.34)]
)
def test_thousands_may_be_set_apart(typed: str, value: float) -> None:
    assert parse_number(typed) == value


def test_what_can_be_read_in_two_ways_is_asked_about() -> None:
    with pytest.raises(NotANumber, match="can be read in two ways"):
        parse_number("10,000")
    with pytest.raises(NotANumber, match="can be read in two ways"):
        parse_rain("1,500", C)


def test_where_only_one_of_the_two_can_be_it_is_that_one() -> None:
    assert parse_soil("12,345", C) == 12.345


@pytest.mark.parametrize(
    ("typed", "units", "celsius"),
    [("54F", C, 12.2222), ("54 °F", C, 12.2222), ("12 °C", F, 12), ("12C", F, 12), ("54", F, 12.2222)],
)
def test_a_unit_that_is_typed_counts(typed: str, units: Units, celsius: float) -> None:
    assert parse_soil(typed, units) == pytest.approx(celsius, abs=1e-3)


def test_a_unit_that_does_not_belong_there_is_refused() -> None:
    with pytest.raises(NotANumber, match="is not a temperature"):
        parse_soil("12 cm", C)
    with pytest.raises(NotANumber, match="has a unit that does not fit here"):
        parse_depth("12 °C", C)


@pytest.mark.parametrize(
    ("parse", "typed", "units", "value"),
    [
        (parse_depth, "2 in", C, 0.0508),
        (parse_depth, "2″", C, 0.0508),
        (parse_depth, "50 mm", F, 0.05),
        (parse_depth, "0.5 ft", C, 0.1524),
        (parse_rain, "0.5 in", C, 12.7),
        (parse_rain, "0.5", F, 12.7),
        (parse_rain, "12 mm", F, 12),
        (parse_wind, "10 mph", C, 4.4704),
        (parse_wind, "36 km/h", F, 10),
        (parse_wind, "10", F, 4.4704),
    ],
)
def test_every_quantity_takes_its_units(parse: Any, typed: str, units: Units, value: float) -> None:
    """Exact definitions: the inch of 25.4 mm, the mile of 1609.344 m."""
    assert parse(typed, units) == pytest.approx(value, abs=1e-6)


def test_a_weight_takes_its_units() -> None:
    """The pound of 0.45359237 kg."""
    assert parse_weight("10 lb", C, (0.0, 500.0)) == pytest.approx(4.5359237)
    assert parse_weight("10", F, (0.0, 500.0)) == pytest.approx(4.5359237)


def test_rain_wind_and_weight_are_written_in_the_persons_units() -> None:
    assert (C.rain_text(12.7), F.rain_text(12.7)) == ("12.7 mm", "0.5 in")
    assert (C.wind_text(8.94), F.wind_text(8.94)) == ("8.9 m/s", "20 mph")
    assert (C.weight_text(4.5359), F.weight_text(4.5359)) == ("4.5 kg", "10 lb")


def test_a_lost_decimal_point_is_guessed_at() -> None:
    with pytest.raises(OutOfRange, match=r"400 °C is outside the range -30 to 60\. Did you mean 40\?"):
        parse_soil("400", C)


def test_the_other_scale_is_asked_about() -> None:
    with pytest.raises(OutOfRange, match=r"Did you mean °F\?"):
        parse_soil("68", C)


def test_fahrenheit_is_stored_as_celsius() -> None:
    assert parse_soil("60", F) == pytest.approx(15.5556, abs=1e-3)
    assert parse_air("32", F) == pytest.approx(0)


@pytest.mark.parametrize(("typed", "units", "metres"), [("5", C, 0.05), ("2 in", F, 0.0508), ("7,5 cm", C, 0.075)])
def test_depths(typed: str, units: Units, metres: float) -> None:
    assert parse_depth(typed, units) == pytest.approx(metres)


def test_a_depth_below_everything_is_refused_in_its_unit() -> None:
    with pytest.raises(OutOfRange, match="500 cm is outside the range 0 to 200"):
        parse_depth("500", C)


def test_numbers_are_written_in_the_persons_scale() -> None:
    assert C.temperature_text(15.55) == "15.6°"
    assert F.temperature_text(15.55, 0) == "60°"
    assert C.temperature_text(-0.04) == "0.0°"
    assert C.temperature_text(-3.2) == "\u22123.2°"
    assert F.difference_text(1.0) == "1.8°"
    assert (C.length_text(0.05), F.length_text(0.0508), C.length_text(0.013)) == ("5 cm", "2 in", "1.3 cm")


@pytest.mark.parametrize("units", [C, F])
def test_many_points_are_the_single_ones_to_a_tenth(units: Units) -> None:
    values_c = [-3.26, 0.0, 9.94, 21.37]
    assert units.temperatures_from_c(values_c) == [pytest.approx(units.temperature_from_c(v), abs=0.0501) for v in values_c]
    assert all(round(value, 1) == value for value in units.temperatures_from_c(values_c))
