"""What a person types and reads, in their own units; canonical is °C and metres. Rounding happens here and nowhere else."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from cloche.core import quantities
from cloche.core.errors import OutOfRange

TemperatureUnit = Literal["C", "F"]
LengthUnit = Literal["cm", "in"]

_NUMBER = re.compile(r"^[+-]?(\d+([.,]\d*)?|[.,]\d+)$", re.ASCII)


class NotANumber(ValueError):
    """What was typed cannot be read as a number."""


@dataclass(frozen=True)
class Units:
    """The scales a person thinks in."""

    temperature: TemperatureUnit = "C"
    length: LengthUnit = "cm"

    @property
    def degree(self) -> str:
        """The temperature unit as written."""
        return "°C" if self.temperature == "C" else "°F"

    def temperature_from_c(self, value_c: float) -> float:
        """A point on the person's scale."""
        return value_c if self.temperature == "C" else quantities.fahrenheit_from_celsius(value_c)

    def difference_from_k(self, value_k: float) -> float:
        """A difference in the person's degrees."""
        return value_k if self.temperature == "C" else value_k * 1.8

    def celsius(self, value: float) -> float:
        """From the person's scale to °C."""
        return value if self.temperature == "C" else quantities.celsius_from_fahrenheit(value)

    def length_from_m(self, value_m: float) -> float:
        """In the person's small unit of length."""
        return value_m * 100 if self.length == "cm" else quantities.inches_from_metres(value_m)

    def metres(self, value: float) -> float:
        """From the person's small unit of length."""
        return value / 100 if self.length == "cm" else quantities.metres_from_inches(value)

    def temperature_text(self, value_c: float, digits: int = 1) -> str:
        """12.3° on the person's scale; the unit is named once a page."""
        return f"{_no_minus_zero(self.temperature_from_c(value_c), digits)}°"

    def difference_text(self, value_k: float, digits: int = 1) -> str:
        """A difference, with its unit's degree sign."""
        return f"{_no_minus_zero(self.difference_from_k(value_k), digits)}°"

    def length_text(self, value_m: float) -> str:
        """5 cm or 2 in; a decimal only where it says something."""
        value = round(self.length_from_m(value_m), 1)
        return f"{value:g} {self.length}"


def parse_number(text: str) -> float:
    """Read a number as people type it: comma or point, any minus sign, a trailing degree sign or unit letter.

    Raises NotANumber with a sentence.
    """
    cleaned = text.strip().replace("\u2212", "-").replace("\u2013", "-").replace("\u00a0", " ")
    cleaned = re.sub(r"\s*°?\s*[CFcf]?$", "", cleaned).strip()
    if not _NUMBER.match(cleaned):
        raise NotANumber(f"“{text.strip()}” is not a number. Write it like 7.5 or 7,5.")
    return float(cleaned.replace(",", "."))


def parse_soil(text: str, units: Units) -> float:
    """A soil temperature as typed, to °C. Raises NotANumber or OutOfRange with a sentence that suggests the slip."""
    return _parse_temperature(text, units, quantities.SOIL_C, "A soil temperature")


def parse_air(text: str, units: Units) -> float:
    """An air temperature as typed, to °C. Raises NotANumber or OutOfRange."""
    return _parse_temperature(text, units, quantities.AIR_C, "An air temperature")


def parse_depth(text: str, units: Units) -> float:
    """A depth as typed, to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.DEPTH_M, "A depth")


def parse_rain(text: str) -> float:
    """A day's rain [mm]. Raises NotANumber or OutOfRange."""
    return _parse_plain(re.sub(r"\s*mm$", "", text.strip()), quantities.RAIN_MM, "A day’s rain", "mm")


def parse_wind(text: str) -> float:
    """Wind [m/s]. Raises NotANumber or OutOfRange."""
    return _parse_plain(re.sub(r"\s*m/s$", "", text.strip()), quantities.WIND_M_S, "A day’s wind", "m/s")


def parse_snow(text: str, units: Units) -> float:
    """Depth of snow as typed, to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.SNOW_M, "Snow")


def parse_plain_length(text: str, units: Units, what: str) -> float:
    """A distance in a bed as typed, to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.SPACING_M, what)


def _parse_length(text: str, units: Units, limits_m: tuple[float, float], what: str) -> float:
    low, high = (units.length_from_m(limit) for limit in limits_m)
    plain = re.sub(r"\s*(cm|in|\")$", "", text.strip())
    # Told in whole inches the limit is a little beyond its metres; what is kept is not.
    return min(units.metres(_parse_plain(plain, (low, round(high)), what, units.length)), limits_m[1])


def _parse_plain(text: str, limits: tuple[float, float], what: str, unit: str) -> float:
    value = parse_number(text)
    quantities.refuse_outside(value, limits, what, unit)
    return value


def _parse_temperature(text: str, units: Units, limits_c: tuple[float, float], what: str) -> float:
    value = parse_number(text)
    low, high = (units.temperature_from_c(limit) for limit in limits_c)
    quantities.refuse_outside(value, (low, high), what, units.degree, _slip(value, units, limits_c))
    return units.celsius(value)


def _slip(value: float, units: Units, limits_c: tuple[float, float]) -> str:
    """The likeliest slip: the other scale, or a lost decimal point."""
    if units.temperature == "C" and limits_c[1] < value <= quantities.fahrenheit_from_celsius(45.0):
        return "Was it °F?"
    tenth = value / 10
    if limits_c[0] <= units.celsius(tenth) <= limits_c[1]:
        return f"Did you mean {tenth:g}?"
    return "Please read it again."


def _no_minus_zero(value: float, digits: int) -> str:
    text = f"{value:.{digits}f}"
    return text.lstrip("-") if float(text) == 0 else text.replace("-", "\u2212")


__all__ = ["LengthUnit", "NotANumber", "OutOfRange", "TemperatureUnit", "Units", "parse_air", "parse_depth", "parse_number"]
__all__ += ["parse_plain_length", "parse_soil"]
