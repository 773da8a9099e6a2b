"""The weather provider: heard, silent, talking nonsense, killed and back."""

from __future__ import annotations

import contextlib
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from typing import Any
from urllib.request import urlopen
from zoneinfo import ZoneInfo

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.weather import flows
from cloche.apps.weather import selectors as weather_selectors
from cloche.apps.weather.asking import provider
from cloche.apps.weather.models import WeatherReport
from cloche.apps.weather.provider import HttpProvider, NoAnswer, ProviderAnswer, answer_from
from cloche.demo.weather_service import report
from cloche.supervisor.ports import free_port
from tests.conftest import NOW
from tests.factories import make_place, write_air

VIENNA = ZoneInfo("Europe/Vienna")


def said(**values: Any) -> dict[str, Any]:
    return report(48.0, 15.0, 300.0, VIENNA, NOW) | values


class StubProvider:
    """A provider that says what it is given."""

    def __init__(self, answer: Any, silent: bool = False) -> None:
        self.answer, self.silent = answer, silent

    def ask(self, garden: Garden) -> ProviderAnswer:
        if self.silent:
            raise NoAnswer("The weather service does not answer (test).")
        return answer_from(self.answer)


def in_vain(garden: Garden, query: Any) -> None:
    with pytest.raises(NoAnswer):
        flows.ask(garden, query)


@pytest.fixture
def service() -> Iterator[Any]:
    """Starts the stand-in on a port of its own, as its own process."""
    running: list[subprocess.Popen[bytes]] = []

    def start(port: int) -> subprocess.Popen[bytes]:
        words = [sys.executable, "-m", "cloche.demo.weather_service", "--port", str(port)]
        running.append(subprocess.Popen(words, cwd="src"))  # noqa: S603 - our own words
        while running[-1].poll() is None:
            try:
                socket.create_connection(("127.0.0.1", port), timeout=0.2).close()
                return running[-1]
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the service did not start")

    yield start
    for service in running:
        service.kill()
        service.wait()


def test_what_it_says_fills_the_days_and_what_is_written_goes_before(garden: Garden) -> None:
    flows.ask(garden, StubProvider(said()))
    days = {day.day: day for day in weather_selectors.weather_days(garden)}
    assert len(days) > 29 * 365
    assert days[date(2026, 4, 29)].lead_d == 7
    assert days[date(2026, 4, 21)].lead_d == 0
    write_air(garden, date(2026, 4, 23), 1, low_c=-4.0, high_c=3.0)
    days = {day.day: day for day in weather_selectors.weather_days(garden)}
    assert (days[date(2026, 4, 23)].low_c, days[date(2026, 4, 23)].lead_d) == (-4.0, 0)


def test_news_makes_forecasts_new_and_no_news_does_not(garden: Garden) -> None:
    place = make_place(garden)
    flows.ask(garden, StubProvider(said()))
    place.refresh_from_db()
    first = place.input_revision
    flows.ask(garden, StubProvider(said()))
    place.refresh_from_db()
    assert place.input_revision == first > 0


def test_silence_is_said_and_what_was_heard_stays(signed_in: Client, garden: Garden) -> None:
    page = reverse("weather", args=[garden.pk])
    in_vain(garden, StubProvider(None, silent=True))
    assert "has not answered yet" in signed_in.get(page).content.decode()
    flows.ask(garden, StubProvider(said()))
    shown = signed_in.get(page).content.decode()
    assert "last answered at 08:00, today" in shown
    assert "Forecast" in shown
    in_vain(garden, StubProvider(None, silent=True))
    shown = signed_in.get(page).content.decode()
    assert "is not responding now" in shown
    assert len(WeatherReport.objects.get(garden=garden).ahead) == 8


@pytest.mark.parametrize(
    "answer",
    [
        {},
        said(forecast=[{"day": "2026-04-23", "low_c": 9, "high_c": 3}]),
        said(forecast=[{"day": "soon", "low_c": 1, "high_c": 3}]),
        said(daily={"first": "2026-01-01", "low_c": [1.0], "high_c": [], "rain_mm": [0]}),
        said(daily={"first": "2026-01-01", "low_c": [1.0], "high_c": [400.0], "rain_mm": [0]}),
        said(forecast=[{"day": "2026-04-23", "low_c": 1, "high_c": 3, "wind_m_s": -4}]),
        said(issued="yesterday"),
        "rain later",
        said(forecast=[{"day": "9999-12-31", "low_c": 1, "high_c": 3}]),
        said(forecast=[{"day": "2026-04-23", "low_c": 1, "high_c": 3}] * 30),
        said(forecast=[{"day": "2026-04-23", "low_c": True, "high_c": 3}]),
        said(daily={"first": "2026-01-01", "low_c": [1.0], "high_c": [2.0], "rain_mm": [float("nan")]}),
        said(daily={"first": "2026-01-01", "low_c": [1.0], "high_c": [2.0], "rain_mm": ["x"]}),
        said(daily={"first": "2100-12-31", "low_c": [1.0] * 9, "high_c": [2.0] * 9, "rain_mm": [0.0] * 9}),
        said(daily={"first": "2026-01-01", "low_c": "11", "high_c": "22", "rain_mm": "00"}),
        said(issued="2026-04-22T06:00:00"),
        said(issued="9999-12-31T23:59:59-12:00"),
        [],
        None,
    ],
)
def test_nonsense_is_not_believed(garden: Garden, answer: Any) -> None:
    flows.ask(garden, StubProvider(said()))
    before = WeatherReport.objects.get(garden=garden).past
    in_vain(garden, StubProvider(answer))
    kept = WeatherReport.objects.get(garden=garden)
    assert kept.past == before
    assert "unreadable" in kept.failure


def test_rain_and_wind_ahead_are_heard_where_they_are_told(garden: Garden) -> None:
    given = [{"day": "2026-04-23", "low_c": 1, "high_c": 3, "rain_mm": 22.5}, {"day": "2026-04-24", "low_c": 1, "high_c": 3}]
    flows.ask(garden, StubProvider(said(forecast=given)))
    ahead = {day.day.day: day for day in weather_selectors.forecast_days(garden, NOW.date())}
    assert (ahead[23].rain_mm, ahead[23].wind_m_s) == (22.5, None)
    assert (ahead[24].rain_mm, ahead[24].wind_m_s) == (None, None)
    flows.ask(garden, StubProvider(said()))
    assert all(day.wind_m_s is not None for day in weather_selectors.forecast_days(garden, NOW.date()))


def test_its_error_grows_with_lead_time_and_its_past_never_changes() -> None:
    issued = [NOW + timedelta(days=back) for back in range(40)]
    reports = [report(48.0, 15.0, 300.0, VIENNA, at) for at in issued]
    last = reports[-1]["daily"]
    first = date.fromisoformat(last["first"])
    misses: dict[int, list[float]] = {1: [], 6: []}
    for at, later in zip(issued[:-8], reports, strict=False):
        for lead, values in misses.items():
            row = later["forecast"][lead]
            index = (date.fromisoformat(row["day"]) - first).days
            values.append((row["low_c"] + row["high_c"] - last["low_c"][index] - last["high_c"][index]) / 2)
            assert row["day"] == (at.astimezone(VIENNA).date() + timedelta(days=lead)).isoformat()
    spread = {lead: (sum(m * m for m in values) / len(values)) ** 0.5 for lead, values in misses.items()}
    assert 0.4 < spread[1] < spread[6] < 4.5
    early = reports[0]["daily"]
    assert last["low_c"][: len(early["low_c"])] == early["low_c"]


def answered(garden: Garden, query: Any) -> None:
    """Asked until it answers: of a machine that is busy, one question may run into its deadline."""
    for _ in range(20):
        with contextlib.suppress(NoAnswer):
            flows.ask(garden, query)
            return
    pytest.fail("it never answered")


def test_over_the_wire_killed_and_back_again(garden: Garden, service: Any) -> None:
    port = free_port()
    process = service(port)
    query = HttpProvider(f"http://127.0.0.1:{port}/")
    answered(garden, query)
    process.send_signal(signal.SIGKILL)
    process.wait()
    in_vain(garden, query)
    kept = WeatherReport.objects.get(garden=garden)
    assert kept.ahead
    assert kept.failed_at is not None
    service(port)
    answered(garden, query)
    assert WeatherReport.objects.get(garden=garden).failed_at is None


def test_a_question_without_a_place_is_told_so(service: Any) -> None:
    port = free_port()
    service(port)
    for path, status in (("/v1/site?latitude=x", 400), ("/", 404)):
        with pytest.raises(Exception, match=str(status)):
            urlopen(f"http://127.0.0.1:{port}{path}", timeout=5)


def test_without_an_address_there_is_no_provider(settings: Any) -> None:
    settings.CLOCHE_WEATHER_URL = ""
    assert provider() is None
    settings.CLOCHE_WEATHER_URL = "http://127.0.0.1:1"
    chosen = provider()
    assert [provider.address for provider in chosen.providers] == ["http://127.0.0.1:1"]
    assert datetime.now(UTC)
