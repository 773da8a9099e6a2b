"""Shared ground: a fixed now, people, gardens and a signed-in client."""

from __future__ import annotations

import gc
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from django.conf import settings as project
from django.core.cache import cache
from django.db import connection
from django.test import Client, TransactionTestCase
from django.utils import translation
from hypothesis import settings
from xdist.scheduler import LoadScopeScheduling

from cloche.apps.gardens.models import Garden, User
from cloche.apps.shared import clock
from cloche.bridge.services import crops
from cloche_engine import api
from cloche_engine.forecast import outlooks, steps
from cloche_engine.inputs import ForecastInputs
from cloche_engine.layout import NEAR_PAST_D
from cloche_engine.soil import calibrate
from tests.factories import make_garden, make_person
from tests.template import emptied, own_database

# A slow minute of the machine is no finding.
settings.register_profile("house", deadline=None)
settings.load_profile("house")

NOW = datetime(2026, 4, 22, 6, 0, tzinfo=UTC)


WHOLE = ("house/test_services.py", "house/test_kept_running.py", "house/test_backup.py")
"""Files that start the whole application, with workers of its own: one after another, or none gets to anything."""


LONGEST = (
    *WHOLE,
    "apps/test_one_voice.py",
    "bench/test_calendars.py",
    "bench/test_reliability.py",
    "apps/forecasts/test_work.py",
    "apps/windows/test_ways.py",
    "engine/forecast/test_forecasting.py",
    "apps/records/test_same_border.py",
    "journeys/test_accessibility.py",
    "journeys/test_demo.py",
    "journeys/test_round.py",
)
"""Files that take longest. What waits rather than works comes first, so that others work meanwhile."""


APART = ("test_no_screen_has_a_serious_finding",)
"""Tests that take long and share nothing: each goes where there is room."""


class _ByFile(LoadScopeScheduling):
    """A file goes to one worker, so that what it shares is set up once; those that start the whole application to the same."""

    def _split_scope(self, nodeid: str) -> str:
        file, _, test = nodeid.partition("::")
        if file.endswith(WHOLE):
            return "whole"
        return nodeid if test.startswith(APART) else file


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config: pytest.Config, log: Any) -> _ByFile:
    """Marks of groups are not heard by every pytest: the plugin writes them into names that it no longer reads."""
    return _ByFile(config, log)


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """The longest begin first: none is left alone at the end. Last of all, or Django's own order, by what each asks of the
    database, would undo it."""
    root = Path(__file__).parent
    places = {item: item.path.relative_to(root).as_posix() for item in items}
    items.sort(key=lambda item: LONGEST.index(places[item]) if places[item] in LONGEST else len(LONGEST))


def pytest_collection_finish() -> None:
    """What has been loaded by now stays: it is not looked through again and again for what could be thrown away."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 50)


@pytest.fixture(scope="session")
def django_db_setup(
    request: pytest.FixtureRequest,
    django_test_environment: None,
    django_db_blocker: Any,
    django_db_modify_db_settings: None,
) -> Iterator[None]:
    """A copy of one migrated database, instead of migrations in every worker; emptied of what has come into it."""
    with pytest.MonkeyPatch.context() as patch, django_db_blocker.unblock():
        patch.setattr(TransactionTestCase, "_fixture_teardown", emptied)
        with own_database(request.config.option.verbose), django_db_blocker.block():
            yield


@pytest.fixture
def now(monkeypatch: pytest.MonkeyPatch) -> datetime:
    """22 April 2026, eight in the morning in central Europe."""
    monkeypatch.setattr(clock, "now", lambda: NOW)
    return NOW


@pytest.fixture
def person(db: None) -> User:
    """A grower who thinks in °C and cm."""
    return make_person("rowan")


GARDEN = 1_000_000


@pytest.fixture
def garden(person: User, now: datetime) -> Garden:
    """A garden of theirs. Its number seeds what is drawn for it, so that it is the same whatever ran before."""
    return make_garden(person, pk=GARDEN)


@pytest.fixture
def signed_in(client: Client, person: User) -> Client:
    """A client that is them."""
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    return client


@pytest.fixture(autouse=True)
def nobody_has_spoken() -> None:
    """Crops are the catalogue's, under its own names, until a garden speaks; the language is the source's."""
    crops.set_spoken_names("")
    crops.set_custom_crops({})
    translation.activate(project.LANGUAGE_CODE)


@pytest.fixture(autouse=True)
def nothing_left_over(request: pytest.FixtureRequest) -> Iterator[None]:
    """What the next test must not find: counted tries, and the queue, whose tables are not Django's to empty."""
    cache.clear()
    yield
    marker = request.node.get_closest_marker("django_db")
    if "live_server" in request.fixturenames or (marker and marker.kwargs.get("transaction")):
        with connection.cursor() as cursor:
            cursor.execute("TRUNCATE procrastinate_jobs, procrastinate_workers CASCADE")


@pytest.fixture(autouse=True)
def short_season(monkeypatch: pytest.MonkeyPatch, request: pytest.FixtureRequest) -> None:
    """Forecasts of the rooms' tests look weeks ahead and learn in few rounds, to be quick, unless a test wants the whole year;
    the engine's own go all the way."""
    if not {"apps", "journeys"} & set(request.path.parts):
        return
    whole = "whole_season" in request.keywords
    monkeypatch.setattr(api, "forecast", partial(_remembered, whole))
    if not whole:
        monkeypatch.setattr(outlooks, "CANDIDATES", np.arange(0, 32))
        monkeypatch.setattr(steps, "SOIL_D", 67)
        monkeypatch.setattr(steps, "RUN_UP_D", NEAR_PAST_D)
        monkeypatch.setattr(calibrate, "MOST_CALLS", (2, 2))
        monkeypatch.setattr(calibrate, "SCAN", 2)
        monkeypatch.setattr(calibrate, "LONGEST_MEMORY_D", 8)


_FORECAST, _MEMORY = api.forecast, {}


def _remembered(whole: bool, inputs: ForecastInputs) -> Any:
    """The same inputs give the same forecast, whatever its rows' numbers: it is worked out once for all tests."""
    nameless = replace(inputs, seed=1, readings=[(i, *row[1:]) for i, row in enumerate(inputs.readings)])
    key = whole, repr(nameless)
    if key not in _MEMORY:
        _MEMORY[key] = _FORECAST(nameless)
    remembered = _MEMORY[key]
    named = {
        part: {inputs.readings[i][0]: value for i, value in getattr(remembered.ground, part).items()}
        for part in ("strange", "weights")
    }
    return replace(remembered, ground=replace(remembered.ground, **named))
