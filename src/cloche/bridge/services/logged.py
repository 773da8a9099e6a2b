"""What a logger sends, judged: units, faults, clocks."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

import numpy as np

from cloche.bridge.values.texts import say
from cloche.core import quantities
from cloche.core.records.faults import Fault, faults, silent_after

GRAIN = 4
"""Decimals kept: finer than any probe, and what single precision can hold."""


def fault_words(fault: int) -> str:
    """Why a value counts for nothing."""
    return {
        Fault.DISCONNECTED: say("−127°: the probe does not answer"),
        Fault.POWER_ON: say("85°: the probe had only just been switched on"),
        Fault.OUTSIDE: say("outside what soil can be"),
    }[Fault(fault)]


def celsius(values: Sequence[float], unit: str) -> list[float]:
    """To °C; a fault's own number (-127, 85) is a code in °C whatever the unit."""
    sent = np.asarray(values, dtype=np.float64)
    turned = {"C": sent, "F": quantities.celsius_from_fahrenheit(sent), "K": sent - 273.15}[unit]
    coded = np.isin(faults(sent), (Fault.DISCONNECTED, Fault.POWER_ON)) & ((unit != "F") | (sent < 0))
    return np.round(np.where(coded, sent, turned), GRAIN).tolist()  # type: ignore[no-any-return]


def faults_of(values_c: Sequence[float]) -> list[int]:
    """Codes, 0 where nothing is wrong."""
    return faults(values_c).tolist()  # type: ignore[no-any-return]


def silence(every_s: int | None) -> timedelta:
    """How long a device may be silent."""
    return silent_after(None if every_s is None else timedelta(seconds=every_s))
