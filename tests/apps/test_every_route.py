"""No address of another's garden exists, none lets anyone do more than their role, and none can be forgotten here."""

from collections.abc import Iterator
from datetime import timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver, reverse

from cloche.apps.accounts import urls as accounts
from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden, Invitation, Membership
from cloche.apps.loggers.api import api
from cloche.apps.loggers.models import LoggedReading, Probe
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.readings.models import Visit
from cloche.apps.work import failures
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading

OUTSIDE = {
    "home",
    "erase_account",
    "new_garden",
    "towns",
    "zones",
    "help",
    "alive",
    "ready",
    "feed",
}
OUTSIDE |= {"service_worker", "manifest", "no_signal", "archive_in", "archive_coming"}
OUTSIDE |= {str(route.name) for route in accounts.urlpatterns}
"""Addresses of no garden; each has tests of its own."""


def patterns(root: Any = None) -> Iterator[URLPattern]:
    for pattern in (root or get_resolver()).url_patterns:
        if isinstance(pattern, URLResolver) and pattern.namespace == "loggers-api":
            continue  # opened by a device's token, not by a person: see below
        if isinstance(pattern, URLResolver):
            yield from patterns(pattern)
        else:
            yield pattern


NAMES = sorted(str(pattern.name) for pattern in patterns())
INSIDE = sorted((name for name in NAMES if name not in OUTSIDE), key=lambda name: name == "leave")  # who has left sees nothing
OWNED = {str(pattern.name) for pattern in patterns() if getattr(pattern.callback, "own", None)}
"""Where something that is there already is changed: helpers change what they entered themselves."""
WRITING = {str(pattern.name): getattr(pattern.callback, "writing", None) for pattern in patterns()}


@pytest.fixture
def other(db: None, now: object) -> Garden:
    garden = make_garden(make_person("hazel"), "Their plot")
    make_place(garden, "Their bed")
    return garden


def values_of(garden: Garden) -> dict[str, Any]:
    """Real ids of a garden, by the names that addresses give them."""
    place, owner = garden.places.get(), garden.memberships.get(role="owner").user
    period = CoverPeriod.objects.create(place=place, cover="fleece", first=NOW.date())
    sowing = place.sowings.create(crop_key="pea", sown_on=NOW.date(), depth_m=0.03)
    return {
        "garden_id": garden.pk,
        "place_id": place.pk,
        "reading_id": make_reading(place, NOW).pk,
        "cover_id": period.pk,
        "operation_id": place.operations.create(work="watered", at=NOW).pk,
        "sowing_id": sowing.pk,
        "packet_id": garden.packets.create(crop_key="pea").pk,
        "visit_key": Visit.objects.create(key=uuid4(), place=place, at=NOW).key,
        "own_id": (own := garden.covers.create(kind="fleece", name="Fleece")).pk,
        "damage_id": own.damage.create(on=NOW.date(), what="torn", cause="wind").pk,
        "trial_id": CoverTrial.objects.create(covered=place, bare=place, depth_m=0.05, begun_on=NOW.date()).pk,
        "answer_id": garden.answers.create(key="x", kind="open", choice="done", at=NOW).pk,
        "user_id": owner.pk,
        "device_id": (probe := stuck_probe(place)).device_id,
        "probe_id": probe.pk,
        "mapping_id": probe.device.mappings.create(value="/temperature").pk,
        "invitation_id": invitation_to(garden).pk,
        "failure_id": failures.note("place", ValueError("x"), task="x", garden_id=garden.pk, place_id=place.pk).pk,
        "history_id": place.history.earliest("history_id").history_id,
        "file_id": garden.incoming_files.create(user=owner, kind="weather", name="a", text="a").pk,
        "day": garden.weather.create(day=NOW.date(), low_c=1, high_c=9).day,
        **bench_of(garden, place),
        "tubers_id": place.tuber_trays.create(crop_key="potato_maincrop", set_out_on=NOW.date(), plant_on=NOW.date()).pk,
        "planting_id": (planting := place.plantings.create(crop_key="pea")).pk,
        "germination_id": (trial := garden.germination_trials.create(name="Warmth", begun_on=NOW.date())).pk,
        "batch_id": (batch := trial.batches.create(crop_key="pea", seeds=10, warmth_c=15)).pk,
        "count_id": batch.counts.create(on=NOW.date(), up=4).pk,
        "sign_id": garden.signs.create(name="Dandelion", on=NOW.date()).pk,
        "event_id": planting.events.create(kind="stood", on=NOW.date()).pk,
        "step_id": sowing.steps.create(kind="leaf", on=NOW.date()).pk,
        "item": "run",
        "crop_key": "pea",
        "key": "own_0a0b0c0d",
        "kind": "place",
    }


def bench_of(garden: Garden, place: Place) -> dict[str, Any]:
    room = garden.rooms.create(name="Shed")
    return {
        "room_id": room.pk,
        "air_id": room.air.create(at=NOW, temperature_c=15).pk,
        "heat_id": place.heat_periods.create(first=NOW.date()).pk,
        "test_id": place.heat_tests.create(on=NOW.date(), spots=[None] * 9).pk,
        "line_id": place.hotbed_notes.create(on=NOW.date(), core_c=50).pk,
        "stay_id": place.on_hotbeds.create(hotbed=place, first=NOW.date()).pk,
        "lamp_id": place.lamps.create(first=NOW.date(), spans=[[6, 20]]).pk,
    }


def invitation_to(garden: Garden) -> Invitation:
    until = NOW + timedelta(days=1)
    owner = garden.memberships.get(role="owner").user
    return garden.invitations.create(fingerprint=str(garden.pk), made_by=owner, made_at=NOW, ends_at=until)


def stuck_probe(place: Place) -> Probe:
    device = place.garden.devices.create(name="Logger", fingerprint=str(place.pk), made_at=NOW)
    return device.probes.create(channel="1", place=place, depth_m=0.05)


def address(name: str, values: dict[str, Any]) -> str:
    wanted = {"garden_id", *converters(name)}
    return reverse(name, kwargs={key: values[key] for key in wanted})


def statuses(client: Client, method: str, values: dict[str, Any]) -> dict[str, int]:
    return {name: getattr(client, method)(address(name, values)).status_code for name in INSIDE}


SHARED = {"garden_id", "crop_key", "day", "item", "kind"}
"""What an address may name that is nobody's own."""


@pytest.mark.parametrize("method", ["get", "post"])
def test_another_gardens_addresses_do_not_exist(signed_in: Client, garden: Garden, other: Garden, method: str) -> None:
    answers = statuses(signed_in, method, values_of(other))
    assert {name: status for name, status in answers.items() if status not in (404, 405)} == {}


def test_every_address_of_another_garden_answers_one_of_the_two(signed_in: Client, garden: Garden, other: Garden) -> None:
    values = values_of(other)
    got, posted = statuses(signed_in, "get", values), statuses(signed_in, "post", values)
    assert {name for name in INSIDE if 404 not in (got[name], posted[name])} == set()


NOBODYS: dict[str, Any] = {"visit_key": uuid4(), "key": "own_ffffffff"}
"""Numbers that nothing bears; all others are the number below."""
NO_NUMBER = 2_000_000_000


@pytest.mark.parametrize("method", ["get", "post"])
def test_anothers_things_cannot_be_told_from_things_that_do_not_exist(
    signed_in: Client, garden: Garden, other: Garden, method: str
) -> None:
    """Whatever kind of number an address bears: through one's own garden another's thing is nothing, and stays as it was."""
    strange = values_of(other)
    nothing = {key: value if key in SHARED else NOBODYS.get(key, NO_NUMBER) for key, value in strange.items()}
    before = [list(rows.values()) for rows in everything_of(other)]
    for name in (name for name in INSIDE if set(converters(name)) - SHARED):
        theirs, none = (
            getattr(signed_in, method)(address(name, values | {"garden_id": garden.pk})) for values in (strange, nothing)
        )
        assert theirs.status_code == none.status_code, name
        assert theirs.status_code in (302, 404, 405), name
    assert [list(rows.values()) for rows in everything_of(other)] == before


def test_the_walk_knows_every_kind_of_number_that_an_address_bears(other: Garden) -> None:
    assert {key for name in INSIDE for key in converters(name)} <= set(values_of(other))


def everything_of(garden: Garden) -> list[Any]:
    place = garden.places.get()
    own = [place.readings, place.cover_periods, place.operations, place.sowings, place.visits]
    own += [place.heat_periods, place.lamps, garden.rooms]
    return [
        garden.places.all(),
        garden.packets.all(),
        garden.memberships.all(),
        garden.incoming_files.all(),
        *(r.all() for r in own),
    ]


def converters(name: str) -> list[str]:
    (match,) = [match for match in patterns() if match.name == name]
    return list(match.pattern.converters)


def join(garden: Garden, client: Client, role: str) -> None:
    person = make_person("willow")
    Membership.objects.create(garden=garden, user=person, role=role)
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")


def test_a_viewer_changes_nothing(client: Client, other: Garden) -> None:
    join(other, client, "viewer")
    answers = statuses(client, "post", values_of(other))
    assert {name: s for name, s in answers.items() if s not in (403, 405) and WRITING[name] != "viewer"} == {}


def test_a_helper_changes_the_log_and_no_more(client: Client, other: Garden) -> None:
    join(other, client, "helper")
    answers = statuses(client, "post", values_of(other))
    assert {name: s for name, s in answers.items() if s not in (403, 405) and WRITING[name] in ("owner", "grower")} == {}
    allowed = {name: s for name, s in answers.items() if WRITING[name] in ("helper", "viewer")}
    assert {name: s for name, s in allowed.items() if s == 403 and name not in OWNED} == {}
    # Nothing there was entered by them; a day of weather that is not there yet they may add.
    others = {name: s for name, s in allowed.items() if name in OWNED - {"weather"}}
    assert {name: s for name, s in others.items() if s not in (403, 404, 405)} == {}
    assert list(others.values()).count(403) > 15


def test_without_signing_in_one_is_asked_to(client: Client, other: Garden) -> None:
    values = values_of(other)
    for name in INSIDE:
        response = client.get(address(name, values))
        assert response.status_code in (302, 405), name
        assert response.status_code == 405 or response["Location"].startswith(reverse("sign_in"))


def test_what_a_device_calls_is_closed_without_a_token_of_its_own(client: Client, other: Garden) -> None:
    stuck_probe(other.places.get())
    paths = {path: list(methods) for path, methods in api.get_openapi_schema(path_prefix="/api/v1/")["paths"].items()}
    assert len(paths) == 6
    for path, methods in paths.items():
        for method in methods:
            for headers in ({}, {"Authorization": "Bearer guessed"}):
                scheme = getattr(client, method)(path, {}, content_type="application/json", headers=headers)
                assert scheme.status_code == 401, path
    assert not LoggedReading.objects.exists()
