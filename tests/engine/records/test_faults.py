"""What probes say when they do not measure."""

from datetime import timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.records.quality import Fault, faults, silent_after


@pytest.mark.parametrize(
    ("value", "fault"),
    [
        (-127.0, Fault.DISCONNECTED),  # the thermometer's data sheet and its common libraries: no answer
        (85.0, Fault.POWER_ON),  # [DS18B20], the register's content after power-up
        (84.0, Fault.OUTSIDE),
        (61.0, Fault.OUTSIDE),
        (-40.0, Fault.OUTSIDE),
        (float("nan"), Fault.OUTSIDE),
        (60.0, Fault.NONE),
        (-30.0, Fault.NONE),
        (9.4, Fault.NONE),
    ],
)
def test_codes_are_no_temperatures(value: float, fault: Fault) -> None:
    assert faults(value) == fault


@given(st.lists(st.floats(-30, 60), min_size=1))
def test_what_soil_can_be_is_no_fault(values: list[float]) -> None:
    assert not faults(values).any()
    assert faults(np.array(values)).shape == (len(values),)


def test_three_missed_values_are_silence_but_never_within_two_hours() -> None:
    assert silent_after(None) == silent_after(timedelta(minutes=10)) == timedelta(hours=2)
    assert silent_after(timedelta(hours=6)) == timedelta(hours=18)
