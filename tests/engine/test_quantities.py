import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine import quantities
from cloche_engine.errors import OutOfRange


@pytest.mark.parametrize(("celsius", "fahrenheit"), [(0, 32), (100, 212), (-40, -40), (15.5, 59.9)])
def test_fixed_points_of_the_scales(celsius: float, fahrenheit: float) -> None:
    assert quantities.fahrenheit_from_celsius(float(celsius)) == pytest.approx(fahrenheit)
    assert quantities.celsius_from_fahrenheit(float(fahrenheit)) == pytest.approx(celsius)


@given(st.floats(-100, 100))
def test_there_and_back_is_the_same(value: float) -> None:
    assert quantities.celsius_from_fahrenheit(quantities.fahrenheit_from_celsius(value)) == pytest.approx(value, abs=1e-9)
    assert quantities.inches_from_metres(quantities.metres_from_inches(value)) == pytest.approx(value, abs=1e-9)


def test_arrays_convert_like_numbers() -> None:
    assert quantities.celsius_from_fahrenheit(np.array([32.0, 212.0])) == pytest.approx([0.0, 100.0])


def test_a_refusal_names_value_limits_and_hint() -> None:
    with pytest.raises(OutOfRange, match=r"A reading of 400 °C is outside -30 to 60\. Was it °F\?"):
        quantities.refuse_outside(400, quantities.SOIL_C, "A reading", "°C", "Was it °F?")


@pytest.mark.parametrize("value", [-30.0, 0.0, 60.0])
def test_limits_themselves_are_allowed(value: float) -> None:
    quantities.refuse_outside(value, quantities.SOIL_C, "A reading", "°C")


def test_a_missing_number_is_refused() -> None:
    with pytest.raises(OutOfRange):
        quantities.refuse_outside(float("nan"), quantities.SOIL_C, "A reading", "°C")
