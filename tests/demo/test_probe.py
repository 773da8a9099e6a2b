"""The simulated probe: the same seed the same soil, and nothing that was not answered is forgotten."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows import devices
from cloche.apps.loggers.models import LoggedReading
from cloche.demo.probe import FAULTS, SimulatedProbe, SimulatedThermostat, by_http
from tests.conftest import NOW
from tests.factories import make_place

HOUR = timedelta(hours=1)


def test_it_measures_at_its_pace_and_the_same_seed_gives_the_same() -> None:
    probe, two = SimulatedProbe(seed=3), SimulatedProbe(seed=3)
    assert probe.measure(NOW - 2 * HOUR, NOW) == two.measure(NOW - 2 * HOUR, NOW) == 12
    assert probe.waiting == two.waiting


def test_its_faults_are_the_codes_of_faults() -> None:
    probe = SimulatedProbe(faults=0.5)
    probe.measure(NOW - 24 * HOUR, NOW)
    odd = [v["temperature"] for v in probe.waiting if not -30 < v["temperature"] < 60]
    assert set(odd) == set(FAULTS)


def test_what_is_not_answered_waits_in_order() -> None:
    probe, heard = SimulatedProbe(), []

    def way(words: dict[str, Any]) -> bool:
        heard.append(words["readings"])
        return len(heard) != 2

    probe.measure(NOW - 4 * HOUR, NOW)
    everything = list(probe.waiting)
    assert not probe.send(way, NOW, batch=10)
    assert probe.waiting == everything[10:]
    assert probe.send(way, NOW, batch=10)
    assert [v for part in (heard[0], *heard[2:]) for v in part] == everything


@pytest.mark.django_db(transaction=True)
def test_over_http_it_is_heard_once_with_its_clock_set_right(live_server: Any, garden: Garden) -> None:
    device, token = devices.let_device_in(garden, "Logger", "C", None)
    devices.deploy(device, "1", make_place(garden), 0.05)
    probe = SimulatedProbe(ahead=timedelta(minutes=20), faults=0.1)
    count = probe.measure(NOW - 10 * HOUR, NOW)
    again = list(probe.waiting)
    assert not probe.send(by_http(live_server.url, "guessed"), NOW)
    assert probe.send(by_http(live_server.url, token), NOW)
    probe.waiting = again
    assert probe.send(by_http(live_server.url, token), NOW)
    assert LoggedReading.objects.count() == count
    assert set(LoggedReading.objects.values_list("shift_s", flat=True)) == {-1200}


def test_where_nobody_answers_it_keeps_what_it_has() -> None:
    probe = SimulatedProbe()
    count = probe.measure(NOW - HOUR, NOW)
    assert not probe.send(by_http("http://127.0.0.1:9", "token", timeout_s=2), NOW)
    assert len(probe.waiting) == count


def tray(fails: str) -> list[float]:
    """Two days of a tray whose controller fails after the first."""
    begun = datetime(2026, 2, 1, tzinfo=UTC)
    thermostat = SimulatedThermostat(fails=fails, fails_at=begun + timedelta(days=1))
    probe = SimulatedProbe(every=timedelta(minutes=10), thermostat=thermostat)
    probe.measure(begun, begun + timedelta(days=2))
    return [reading["temperature"] for reading in probe.waiting]


def test_it_plays_a_thermostat_that_works_and_three_that_fail() -> None:
    works, stuck, dead, flat = (tray(fails) for fails in ("", "stuck", "dead", "flat"))
    assert works[:144] == stuck[:144] == dead[:144]
    assert 19 < min(works[30:]) < max(works) < 24
    assert max(stuck[-20:]) > 24.5
    assert max(dead[-20:]) < 18.5
    assert max(flat[-100:]) - min(flat[-100:]) < 0.6
