"""A real browser on a real server: Debian's Chromium, no network, no console errors."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Any

import pytest
from playwright.sync_api import Page, Request, expect

from bench.running import CHROMIUM
from cloche.apps.shared import clock
from cloche.apps.work.patience import PATIENCE
from cloche.apps.work.postgres import base

# On a busy machine a page may take its time; nothing here is about how long.
expect.set_options(timeout=30_000)
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--font-render-hinting=none",
    "--force-color-profile=srgb",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
]


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    return browser_type_launch_args | {"executable_path": CHROMIUM, "args": FLAGS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    desk = {"width": 1280, "height": 800}
    return browser_context_args | {"viewport": desk, "locale": "en-GB", "timezone_id": "UTC", "reduced_motion": "reduce"}


@pytest.fixture(autouse=True)
def patient_with_the_database(monkeypatch: pytest.MonkeyPatch) -> None:
    """Beside all other tests the database may take its time, and is not given up on."""
    monkeypatch.setattr(PATIENCE, "waits_s", 120.0)
    monkeypatch.setattr(base, "CONNECTS_S", 120.0)


@pytest.fixture(autouse=True)
def nothing_goes_wrong(page: Page, live_server: Any, request: pytest.FixtureRequest) -> Iterator[None]:
    """No console error, no script error, no request that fails or leaves the machine."""
    wrong: list[str] = []
    meant = ["422"] + ["400"] * bool(request.node.get_closest_marker("refused_requests"))
    noted = ("error", "warning")
    page.on("console", lambda m: None if m.type not in noted or any(s in m.text for s in meant) else wrong.append(m.text))
    page.on("pageerror", lambda error: wrong.append(str(error)))
    page.on("requestfailed", lambda request: None if _given_up(request) else wrong.append(f"failed: {request.url}"))
    page.on("request", lambda r: None if r.url.startswith((live_server.url, "data:")) else wrong.append(f"outside: {r.url}"))
    yield
    assert _without_given_up(wrong) == []


def _without_given_up(said: list[str]) -> list[str]:
    # A piece that had not come when the page was left: htmx says so twice, of the same element.
    left = list(said)
    for line in [line for line in said if line.startswith("htmx:sendAbort")]:
        pair = [line, line.replace("sendAbort", "afterRequest")]
        if all(word in left for word in pair):
            for word in pair:
                left.remove(word)
    return left


def _given_up(request: Request) -> bool:
    # A download or a page left before a piece arrived is the browser's own doing.
    return "ERR_ABORTED" in (request.failure or "")


@pytest.fixture
def on(monkeypatch: pytest.MonkeyPatch) -> Any:
    """Set the clock: on(2026, 4, 22)."""

    def set_day(year: int, month: int, day: int, hour: int = 6) -> None:
        monkeypatch.setattr(clock, "now", lambda: datetime(year, month, day, hour, tzinfo=UTC))

    return set_day
