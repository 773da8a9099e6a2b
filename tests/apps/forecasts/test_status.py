"""A forecast that is being calculated, or that failed, is said on every page that rests on it."""

from __future__ import annotations

from typing import Any

import pytest
from django.test import Client

from cloche.apps.forecasts import tasks
from cloche.apps.forecasts.status import status_in
from cloche.apps.gardens.models import Garden, Membership
from cloche.apps.places.flows import WORK_OUT, key_of, note_change_at
from cloche.apps.places.models import Place
from cloche.apps.work import failures
from cloche.apps.work.models import Failure
from tests.factories import make_person

PAGES = ("", "ground/", "bench/", "covers/opening/", "windows/", "plan/", "places/{pk}/", "bench/{pk}/")


@pytest.fixture
def bed(garden: Garden) -> Place:
    return Place.objects.create(garden=garden, name="North bed")


def failed(bed: Place) -> None:
    failures.note(key_of(bed.pk), ValueError("zero-size array"), task=WORK_OUT, garden_id=bed.garden_id, place_id=bed.pk)


def test_a_first_forecast_that_is_awaited_is_said_and_nothing_is_called_none(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    today = signed_in.get(f"/g/{garden.pk}/").content.decode()
    assert "North bed is still being calculated" in today.replace("The forecast for ", "")
    assert "No window opens" not in today
    assert "No window is in sight" not in today


@pytest.mark.parametrize("role", [Membership.Role.OWNER, Membership.Role.HELPER, Membership.Role.VIEWER])
def test_a_failed_forecast_is_said_to_everybody_who_sees_the_place(
    garden: Garden, bed: Place, role: str, client: Client
) -> None:
    failed(bed)
    person = make_person("linden")
    Membership.objects.create(garden=garden, user=person, role=role)
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    for page in PAGES:
        answer = client.get(f"/g/{garden.pk}/{page}".format(pk=bed.pk), follow=True)
        assert answer.status_code == 200, page
        assert "The forecast for North bed could not be calculated." in answer.content.decode(), page


def test_a_change_of_its_inputs_makes_a_failed_forecast_due_at_once(garden: Garden, bed: Place) -> None:
    for _ in range(8):
        failed(bed)
    assert key_of(bed.pk) in failures.waiting()
    note_change_at(bed)
    assert key_of(bed.pk) not in failures.waiting()
    assert not status_in(garden).failed
    assert status_in(garden).calculating == (bed,)


def test_a_forecast_that_cannot_be_true_is_not_stored(garden: Garden, bed: Place, monkeypatch: Any) -> None:
    from cloche.apps.forecasts import flows
    from cloche_engine.forecast.snapshots import Unsound

    def unsound(_inputs: object) -> None:
        raise Unsound("near_mid_c is nan")

    monkeypatch.setattr(flows.api, "forecast", unsound)
    with pytest.raises(Unsound):
        tasks.work_out(bed.pk)
    assert not hasattr(Place.objects.get(pk=bed.pk), "forecast")
    assert not Failure.objects.exists()  # the worker's guard notes it, not the flow
