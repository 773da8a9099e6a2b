"""The simulated probe plays a thermostat, also a failing one, and the forecast's watch hears it."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest

from cloche.demo.probe import SimulatedProbe, SimulatedThermostat
from cloche_engine.forecast import steps as step
from cloche_engine.forecast.heat_watch import alarm_of, without_failed_heat
from cloche_engine.heat.faults import Fault
from cloche_engine.inputs import ForecastInputs, HeatSpan, RoomAir
from cloche_engine.results import HeatAlarm
from tests.engine.forecast.test_forecasting import inputs

DAYS, TODAY = 5, datetime(2026, 4, 22, tzinfo=UTC)
RULED = HeatSpan("mat", watts=20.0, area_m2=0.14, control="thermostat", start_c=20.0, stop_c=23.0)


def heard(fails: str, every: timedelta = timedelta(hours=8)) -> HeatAlarm | None:
    """What the watch says of a tray whose controller fails a day before; its probe is read so often."""
    tray = SimulatedThermostat(room_c=16.0, lift_k=11.0, fails=fails, fails_at=TODAY - timedelta(days=1))
    probe = SimulatedProbe(every=timedelta(minutes=10), thermostat=tray)
    probe.measure(TODAY - timedelta(days=DAYS), TODAY)
    sent = probe.waiting[:: int(every / timedelta(minutes=10))]
    rows = [(n, datetime.fromisoformat(reading["at"]), 0.02, reading["temperature"]) for n, reading in enumerate(sent)]
    given: ForecastInputs = inputs(kind="mat", crops=("pepper",), room=RoomAir("shed", 15.0, 18.0), seed_depth_m=0.02)
    fields = {**given.__dict__, "readings": rows, "heat": (RULED,)}
    return heard_in(ForecastInputs(**fields))


def heard_in(given: ForecastInputs) -> HeatAlarm | None:
    """By the forecast's own steps, without running the year."""
    weather = step.know_weather(given)
    members = step.draw_members(given, weather)
    described = step.describe_place(given, weather)
    observed = step.gather_observations(given, described)
    return alarm_of(given, described, observed, step.behind(given, members))


@pytest.mark.parametrize(("fails", "fault"), [("", None), ("dead", Fault.COLD), ("stuck", Fault.HOT)])
def test_a_failing_controller_is_told_from_one_that_works(fails: str, fault: Fault | None) -> None:
    """Three readings a day: the second and the third after the failure are cold or hot, and that is enough."""
    told_of = heard(fails)
    assert (told_of and told_of.fault) == fault


def test_a_logger_that_has_slipped_out_is_heard_within_the_day() -> None:
    told_of = heard("flat", timedelta(hours=1))
    assert told_of is not None
    assert told_of.fault in (Fault.COLD, Fault.FLAT)


def test_readings_beside_a_dead_heater_do_not_teach_that_it_is_weak() -> None:
    """A mat that works for three days and is dead for one: its strength is learned from the three."""
    given = inputs(kind="mat", crops=("pepper",), room=RoomAir("shed", 15.0, 18.0), seed_depth_m=0.02)
    start = TODAY - timedelta(days=4)
    warm, cold = 24.5, 16.4
    rows = [(n, start + timedelta(hours=6 * n), 0.02, warm if n < 12 else cold) for n in range(16)]
    mat = HeatSpan("mat", watts=20.0, area_m2=0.14)
    always = ForecastInputs(**{**given.__dict__, "readings": rows, "heat": (mat,)})
    observed, kept = taught_in(always)
    assert len(observed.readings) == 16
    assert set(kept.readings.temperature_c) == {warm}
    assert len(kept.numbers) == 12


def test_a_mat_that_never_warmed_may_be_weak_and_teaches_so() -> None:
    given = inputs(kind="mat", crops=("pepper",), room=RoomAir("shed", 15.0, 18.0), seed_depth_m=0.02)
    rows = [(n, TODAY - timedelta(days=4) + timedelta(hours=6 * n), 0.02, 16.4) for n in range(16)]
    mat = HeatSpan("mat", watts=20.0, area_m2=0.14)
    observed, kept = taught_in(ForecastInputs(**{**given.__dict__, "readings": rows, "heat": (mat,)}))
    assert kept is observed


def taught_in(given: ForecastInputs) -> tuple[step.Observed, step.Observed]:
    """All observations, and those that are learned from."""
    weather = step.know_weather(given)
    members = step.draw_members(given, weather)
    described = step.describe_place(given, weather)
    observed = step.gather_observations(given, described)
    return observed, without_failed_heat(given, described, observed, step.behind(given, members))
