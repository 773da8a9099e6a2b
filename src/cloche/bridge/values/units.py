"""What a person types and reads, in their own units; canonical is °C, metres, mm of rain, m/s and kg. Rounding happens here and
nowhere else."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from cloche.bridge.values.texts import number_text, say
from cloche_engine import quantities
from cloche_engine.errors import OutOfRange

TemperatureUnit = Literal["C", "F"]
LengthUnit = Literal["cm", "in"]

MM_PER_INCH, M_S_PER_MPH, KG_PER_LB, M_PER_FOOT = 25.4, 0.44704, 0.45359237, 0.3048
_TYPED = re.compile(r"^([+-]?[\d.,\u00a0\u202f ]*\d[\d.,]*)\s*([^\d\s].*)?$", re.ASCII)
_PLAIN = re.compile(r"^[+-]?(\d+(\.\d*)?|\.\d+)$", re.ASCII)
_GROUPED = re.compile(r"^[+-]?\d{1,3}([,.]\d{3})+([,.]\d+)?$", re.ASCII)
_INCHES = ("in", "in.", "inch", "inches", '"', "″")
_LENGTHS = {"cm": 0.01, "mm": 0.001, "m": 1.0} | dict.fromkeys(_INCHES, 0.0254)
_LENGTHS |= dict.fromkeys(("ft", "ft.", "foot", "feet", "'", "′"), M_PER_FOOT)
_HEIGHTS = {name: factor for name, factor in _LENGTHS.items() if factor in (1.0, M_PER_FOOT)}
_RAIN = {"mm": 1.0, "l/m²": 1.0, "l/m2": 1.0, "cm": 10.0} | dict.fromkeys(_INCHES, MM_PER_INCH)
_WIND = {"m/s": 1.0, "mph": M_S_PER_MPH, "km/h": 1 / 3.6, "kmh": 1 / 3.6, "kph": 1 / 3.6, "kn": 0.514444, "kt": 0.514444}
_WEIGHT = {"kg": 1.0, "g": 0.001, "lb": KG_PER_LB, "lbs": KG_PER_LB, "oz": KG_PER_LB / 16}
_DEGREES = {"c": "C", "°c": "C", "celsius": "C", "f": "F", "°f": "F", "fahrenheit": "F", "": "", "°": "", "degrees": ""}


class NotANumber(ValueError):
    """Raised for text that is not a number, or could be read as two different numbers."""


@dataclass(frozen=True)
class Units:
    """Units a person works in.

    With inches come rain in inches, wind in miles an hour and weight in pounds.
    """

    temperature: TemperatureUnit = "C"
    length: LengthUnit = "cm"

    @property
    def degree(self) -> str:
        """Return the symbol of the temperature unit."""
        return "°C" if self.temperature == "C" else "°F"

    @property
    def rain(self) -> str:
        """Return the symbol of the unit of rain."""
        return "mm" if self.length == "cm" else "in"

    @property
    def wind(self) -> str:
        """Return the symbol of the unit of wind speed."""
        return "m/s" if self.length == "cm" else "mph"

    @property
    def height(self) -> str:
        """Return the symbol of the unit of elevation."""
        return "m" if self.length == "cm" else "ft"

    @property
    def weight(self) -> str:
        """Return the symbol of the unit of weight."""
        return "kg" if self.length == "cm" else "lb"

    def temperature_from_c(self, value_c: float) -> float:
        """Convert a temperature from °C."""
        return value_c if self.temperature == "C" else quantities.fahrenheit_from_celsius(value_c)

    def temperatures_from_c(self, values_c: Sequence[float]) -> list[float]:
        """Convert temperatures from °C, rounded to a tenth."""
        values = np.asarray(values_c, dtype=np.float64)
        on_scale = values if self.temperature == "C" else quantities.fahrenheit_from_celsius(values)
        return list(np.round(on_scale, 1).tolist())

    def difference_from_k(self, value_k: float) -> float:
        """Convert a temperature difference from kelvin."""
        return value_k if self.temperature == "C" else value_k * 1.8

    def celsius(self, value: float) -> float:
        """Convert a temperature to °C."""
        return value if self.temperature == "C" else quantities.celsius_from_fahrenheit(value)

    def length_from_m(self, value_m: float) -> float:
        """Convert a length from metres to centimetres or inches."""
        return value_m * 100 if self.length == "cm" else quantities.inches_from_metres(value_m)

    def metres(self, value: float) -> float:
        """Convert a length in centimetres or inches to metres."""
        return value / 100 if self.length == "cm" else quantities.metres_from_inches(value)

    def rain_from_mm(self, value_mm: float) -> float:
        """Convert rain from millimetres."""
        return value_mm if self.length == "cm" else value_mm / MM_PER_INCH

    def wind_from_m_s(self, value_m_s: float) -> float:
        """Convert a wind speed from m/s."""
        return value_m_s if self.length == "cm" else value_m_s / M_S_PER_MPH

    def weight_from_kg(self, value_kg: float) -> float:
        """Convert a weight from kilograms."""
        return value_kg if self.length == "cm" else value_kg / KG_PER_LB

    def temperature_text(self, value_c: float, digits: int = 1) -> str:
        """Format a temperature as 12.3°; the page names the scale once."""
        return f"{_no_minus_zero(self.temperature_from_c(value_c), digits)}°"

    def difference_text(self, value_k: float, digits: int = 1) -> str:
        """Format a temperature difference with a degree sign."""
        return f"{_no_minus_zero(self.difference_from_k(value_k), digits)}°"

    def degree_days_text(self, value_k_d: float) -> str:
        """Format a heat sum, such as "164 degree-days"."""
        number = round(self.difference_from_k(value_k_d))
        return say("{number} degree-days").format(number=number)

    def length_text(self, value_m: float) -> str:
        """Format a length as 5 cm or 2 in, with a decimal only where it matters."""
        value = round(self.length_from_m(value_m), 1)
        return number_text(f"{value:g} {self.length}")

    def height_from_m(self, value_m: float) -> float:
        """Convert an elevation from metres."""
        return value_m if self.length == "cm" else value_m / M_PER_FOOT

    def rain_text(self, value_mm: float, rough: bool = False) -> str:
        """Format rain as 12 mm or 0.5 in.

        `rough` rounds to the precision of a forecast: a millimetre or a tenth of an inch.
        """
        if self.length == "cm":
            return number_text(f"{round(value_mm) if rough else value_mm:g} mm")
        return number_text(f"{round(self.rain_from_mm(value_mm), 1 if rough else 2):g} in")

    def wind_text(self, value_m_s: float, digits: int = 1) -> str:
        """Format a wind speed as 8 m/s or 18 mph."""
        return number_text(f"{round(self.wind_from_m_s(value_m_s), digits if self.length == 'cm' else 0):g} {self.wind}")

    def weight_text(self, value_kg: float) -> str:
        """Format a weight as 3.5 kg or 7.7 lb."""
        return number_text(f"{round(self.weight_from_kg(value_kg), 1):g} {self.weight}")


def parse_number(text: str) -> float:
    """Parse a number as people type it: comma or point, any minus sign, grouped thousands.

    Raises NotANumber for no number or an ambiguous one.
    """
    numbers, unit = _split(text)
    if unit and unit.lower() not in _DEGREES:
        raise _no_number(text)
    return _only(text, numbers)


def parse_soil(text: str, units: Units) -> float:
    """Parse a soil temperature to °C.

    Raises NotANumber, or OutOfRange with the likely slip.
    """
    return _parse_temperature(text, units, quantities.SOIL_C, say("The soil temperature"))


def parse_air(text: str, units: Units) -> float:
    """Parse an air temperature to °C. Raises NotANumber or OutOfRange."""
    return _parse_temperature(text, units, quantities.AIR_C, say("The air temperature"))


def parse_depth(text: str, units: Units) -> float:
    """Parse a depth to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.DEPTH_M, say("The depth"))


def parse_rain(text: str, units: Units = Units()) -> float:
    """Parse a day's rain to millimetres. Raises NotANumber or OutOfRange."""
    return _parse(text, _RAIN, units.rain, quantities.RAIN_MM, say("Rainfall"))


def parse_wind(text: str, units: Units = Units()) -> float:
    """Parse a wind speed to m/s. Raises NotANumber or OutOfRange."""
    return _parse(text, _WIND, units.wind, quantities.WIND_M_S, say("Wind speed"))


def parse_weight(text: str, units: Units, limits_kg: tuple[float, float]) -> float:
    """Parse a weight to kilograms. Raises NotANumber or OutOfRange."""
    return _parse(text, _WEIGHT, units.weight, limits_kg, say("The weight"))


def parse_snow(text: str, units: Units) -> float:
    """Parse a snow depth to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.SNOW_M, say("Snow"))


def parse_height(text: str, units: Units) -> float:
    """Parse an elevation above sea level to metres. Raises NotANumber or OutOfRange."""
    return _parse(text, _HEIGHTS, units.height, quantities.ELEVATION_M, say("The height above sea level"))


def parse_plain_length(text: str, units: Units, what: str) -> float:
    """Parse a distance within a bed to metres. Raises NotANumber or OutOfRange."""
    return _parse_length(text, units, quantities.SPACING_M, what)


def parse_any_length(text: str, units: Units) -> float:
    """Parse a length of any size to metres; the caller checks its limits. Raises NotANumber."""
    values, factor, _ = _measured(text, _LENGTHS, units.length)
    return _only(text, values) * factor


def _parse_length(text: str, units: Units, limits_m: tuple[float, float], what: str) -> float:
    low, high = (units.length_from_m(limit) for limit in limits_m)
    # Told in whole inches the limit is a little beyond its metres; what is kept is not.
    beyond = (limits_m[0], units.metres(round(high)))
    return min(_parse(text, _LENGTHS, units.length, beyond, what, (low, round(high))), limits_m[1])


def _parse(
    text: str,
    known: Mapping[str, float],
    usual: str,
    limits: tuple[float, float],
    what: str,
    in_unit: tuple[float, float] | None = None,
) -> float:
    """Parse a value with a unit and check it against limits.

    `limits` is in the canonical unit, `in_unit` the same in the usual unit for the error message.
    """
    values, factor, unit = _measured(text, known, usual)
    fitting = [value * factor for value in values if limits[0] <= value * factor <= limits[1]]
    if len(fitting) == 1:
        return fitting[0]
    if len(fitting) > 1:
        raise _ambiguous(text)
    low, high = in_unit if in_unit and unit == usual else (limits[0] / factor, limits[1] / factor)
    raise OutOfRange(_outside(what, values[0], unit, low, high))


def _parse_temperature(text: str, units: Units, limits_c: tuple[float, float], what: str) -> float:
    values, unit = _split(text)
    scale = _DEGREES.get(unit.lower().replace(" ", ""))
    if scale is None:
        raise NotANumber(say("“{text}” is not a temperature. Enter it like 7.5, 12 °C or 54 °F.", text=text.strip()))
    typed = Units(scale or units.temperature, units.length)  # type: ignore[arg-type]
    low, high = (typed.temperature_from_c(limit) for limit in limits_c)
    fitting = [value for value in values if low <= value <= high]
    if len(fitting) == 1:
        return typed.celsius(fitting[0])
    if len(fitting) > 1:
        raise _ambiguous(text)
    hint = _slip(values[0], typed, limits_c)
    raise OutOfRange(f"{_outside(what, values[0], typed.degree, low, high)} {hint}")


def _slip(value: float, units: Units, limits_c: tuple[float, float]) -> str:
    """Return a hint at the likely slip: the wrong scale or a lost decimal point."""
    if units.temperature == "C" and limits_c[1] < value <= quantities.fahrenheit_from_celsius(45.0):
        return say("Did you mean °F?")
    tenth = value / 10
    if limits_c[0] <= units.celsius(tenth) <= limits_c[1]:
        return say("Did you mean {number}?", number=number_text(f"{tenth:g}"))
    return say("Please check the reading.")


def _outside(what: str, value: float, unit: str, low: float, high: float) -> str:
    values = {
        "value": number_text(f"{value:g}"),
        "unit": unit,
        "low": number_text(f"{low:g}"),
        "high": number_text(f"{high:g}"),
    }
    return say("{what} of {value} {unit} is outside the range {low} to {high}.", what=what, **values)


def _split(text: str) -> tuple[list[float], str]:
    """Return the numbers a text can mean and the unit behind it."""
    cleaned = text.strip().replace("\u2212", "-").replace("\u2013", "-")
    match = _TYPED.match(cleaned)
    values = _readings(re.sub(r"(?<=\d)[\u00a0\u202f ](?=\d{3}(\D|$))", "", match[1])) if match else []
    if match is None or not values:
        raise _no_number(text)
    return values, (match[2] or "").strip()


def _readings(number: str) -> list[float]:
    """Return every interpretation of a number: one for 7,5 and 1,234.5, two for 10,000."""
    both = "," in number and "." in number
    if both and _GROUPED.match(number):
        decimal = max(number.rfind(","), number.rfind("."))
        return [float(number[:decimal].replace(",", "").replace(".", "") + "." + number[decimal + 1 :])]
    as_decimal = number.replace(",", ".")
    numbers = [float(as_decimal)] if not both and _PLAIN.match(as_decimal) else []
    if "," in number and "." not in number and _GROUPED.match(number):
        numbers.append(float(number.replace(",", "")))
    return numbers


def _measured(text: str, known: Mapping[str, float], usual: str) -> tuple[list[float], float, str]:
    """Return the possible numbers, the factor to the canonical unit, and the unit."""
    values, unit = _split(text)
    unit = unit.lower() or usual
    if unit not in known:
        names = ", ".join(name for name in known if len(name) < 5 and name[0].isalpha() and not name.endswith("."))
        raise NotANumber(
            say("“{text}” has a unit that does not fit here. Use one of these: {names}.", text=text.strip(), names=names)
        )
    return values, known[unit], unit


def _only(text: str, values: list[float]) -> float:
    if len(values) > 1:
        raise _ambiguous(text)
    return values[0]


def _no_number(text: str) -> NotANumber:
    return NotANumber(say("“{text}” is not a number. Enter it like 7.5 or 7,5.", text=text.strip()))


def _ambiguous(text: str) -> NotANumber:
    return NotANumber(
        say("“{text}” can be read in two ways. Enter it without a comma, or with a decimal point.", text=text.strip())
    )


def _no_minus_zero(value: float, digits: int) -> str:
    text = f"{value:.{digits}f}"
    return number_text(text.lstrip("-") if float(text) == 0 else text.replace("-", "\u2212"))
