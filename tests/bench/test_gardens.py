"""Random engine inputs within what the forms accept, and the faults that they once met."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from bench import gardens
from cloche_engine.api import forecast
from cloche_engine.forecast import outlooks, steps
from cloche_engine.forecast.heating import power_for_lift
from cloche_engine.forecast.snapshots import Unsound, check
from cloche_engine.heat.source import MOST_W_M2, Heating
from cloche_engine.inputs import HeatSpan, RoomAir, Under
from cloche_engine.places.kinds import place_kinds
from cloche_engine.places.rooms import ROOMS
from cloche_engine.soil.bed import Bed, SmallVolume
from tests.engine.forecast.test_forecasting import inputs

NOW = datetime(2026, 4, 22, 6, tzinfo=UTC)


@pytest.fixture(autouse=True)
def weeks_ahead(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(outlooks, "CANDIDATES", outlooks.CANDIDATES[:32])
    monkeypatch.setattr(steps, "SOIL_D", 67)


def test_all_kinds_of_place_are_drawn_and_the_same_again() -> None:
    drawn = [gardens.inputs_of(number) for number in range(30)]
    assert {garden.kind for garden in drawn} == set(place_kinds())
    assert any(garden.latitude_deg < 0 for garden in drawn)
    assert drawn == [gardens.inputs_of(number) for number in range(30)]


@pytest.mark.parametrize("number", [3, 11, 14])
def test_a_random_garden_has_a_usable_forecast(number: int) -> None:
    assert gardens.fault_of((number, gardens.SEED)) == ""


def test_a_trial_in_inches_does_not_stop_its_bed() -> None:
    """2 in are 0.0508 m: no whole number of millimetres."""
    gain = Under("gain", NOW - timedelta(days=1), NOW - timedelta(days=1), 3.0, 0.0508)
    result = forecast(inputs(kind="tunnel", crops=("pea",), under=(gain,)))
    assert result.ground.readings_used == 16


@pytest.mark.parametrize(("kind", "what"), [("tray", "room"), ("frame", "air"), ("bell", "lowest")])
def test_a_place_where_only_air_was_read_has_a_forecast(kind: str, what: str) -> None:
    seen = Under(what, NOW - timedelta(days=1), NOW - timedelta(days=2), 14.0)
    result = forecast(inputs(days_read=0, kind=kind, crops=("pea",), under=(seen,), room=RoomAir("shed")))
    assert result.ground.readings_used == 0


def test_a_lift_measured_over_a_deep_layer_takes_no_more_than_a_source_gives() -> None:
    deep = Bed(texture="potting", volume=SmallVolume(0.7, 10.0), indoors=True)
    power = power_for_lift(deep, Heating(0.0, 0.46, probe_m=0.03), ROOMS["shed"], 30.0)
    assert 0 < power <= MOST_W_M2


def test_more_watts_than_any_source_gives_do_not_cook_the_engine() -> None:
    """As an archive of an earlier release may have them: 5 kW on 25 cm²."""
    heat = (HeatSpan("mat", watts=5000.0, area_m2=0.0025),)
    result = forecast(inputs(days_read=0, kind="mat", crops=("pea",), heat=heat, room=RoomAir("shed")))
    assert max(result.ground.far_high_c) < 60.0


def test_what_cannot_be_true_is_refused() -> None:
    result = forecast(inputs(crops=("pea",)))
    check(result.ground, result.frosts, result.crops)
    for wrong in (
        replace(result.ground, near_mid_c=[float("nan"), *result.ground.near_mid_c[1:]]),
        replace(result.ground, outside_c=[1214.0, *result.ground.outside_c[1:]]),
        replace(result.ground, far_low_c=[value + 50 for value in result.ground.far_low_c]),
        replace(result.ground, band_k={1: float("inf")}),
    ):
        with pytest.raises(Unsound):
            check(wrong, result.frosts, result.crops)
