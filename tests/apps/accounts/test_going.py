"""Handing over, leaving, erasing."""

import re
from datetime import datetime
from typing import Any

import pytest
from django.apps import apps
from django.test import Client
from django.urls import reverse
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.accounts import letters
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.readings.models import Reading
from cloche.apps.today import flows
from cloche.apps.today.models import DigestWish
from tests.apps.records.test_archive import full  # noqa: F401 (a fixture)
from tests.factories import make_garden, make_person, make_place, make_reading

PASSWORD = "spade-and-fork"


def body(response: Any) -> str:
    return response.content.decode()


@pytest.fixture
def hazel(garden: Garden) -> User:
    """Grows in the garden, too."""
    hazel = make_person("hazel")
    Membership.objects.create(garden=garden, user=hazel, role="grower")
    return hazel


def roles(garden: Garden) -> dict[str, str]:
    return dict(garden.memberships.values_list("user__username", "role"))


def test_an_owner_hands_over_and_stays_as_what_they_like(signed_in: Client, garden: Garden, hazel: User) -> None:
    there = reverse("hand_over", args=[garden.pk])
    assert "has a new owner" in body(signed_in.post(there, {"to": hazel.pk, "role": "viewer"}, follow=True))
    assert roles(garden) == {"rowan": "viewer", "hazel": "owner"}
    assert signed_in.post(there, {"to": hazel.pk, "role": "owner"}).status_code == 403, "only owners hand over"


def test_or_leaves(signed_in: Client, garden: Garden, hazel: User) -> None:
    signed_in.post(reverse("hand_over", args=[garden.pk]), {"to": hazel.pk, "role": ""})
    assert roles(garden) == {"hazel": "owner"}
    assert signed_in.get(reverse("today", args=[garden.pk])).status_code == 404


def test_it_goes_only_to_somebody_who_is_in_it(signed_in: Client, garden: Garden, person: User) -> None:
    stranger = make_person("willow")
    there = reverse("hand_over", args=[garden.pk])
    for to in (stranger.pk, person.pk, "", "x"):
        assert "choose someone who is in the garden" in body(signed_in.post(there, {"to": to}, follow=True))
    assert roles(garden) == {"rowan": "owner"}


def test_the_only_owner_cannot_just_leave_but_others_can(signed_in: Client, garden: Garden, hazel: User) -> None:
    there = reverse("leave", args=[garden.pk])
    assert "only owner" in body(signed_in.post(there, follow=True))
    other = Client()
    other.force_login(hazel, backend="allauth.account.auth_backends.AuthenticationBackend")
    other.post(there)
    assert roles(garden) == {"rowan": "owner"}


def rows() -> dict[str, int]:
    """Of every table of ours, how many rows it has."""
    ours = [model for model in apps.get_models(include_auto_created=True) if model.__module__.startswith("cloche.")]
    return {model._meta.db_table: model._base_manager.count() for model in ours}


def test_an_erased_garden_leaves_no_row_in_any_table_and_others_keep_theirs(
    signed_in: Client, person: User, now: datetime, request: pytest.FixtureRequest
) -> None:
    other = make_garden(person, "The other")
    kept = make_reading(make_place(other), now, 9.0)
    kept.note = "changed"
    kept.save()
    before = rows()
    garden = request.getfixturevalue("full")
    assert sum(count > before[table] for table, count in rows().items()) > 40, "it has something in nearly every table"
    page = body(signed_in.get(reverse("erase_garden", args=[garden.pk])))
    assert re.search(r"It contains \d+ readings", page)
    wrong = signed_in.post(reverse("erase_garden", args=[garden.pk]), {"name": "something"})
    assert wrong.status_code == 422
    assert "Enter its name" in body(wrong)
    assert Garden.objects.filter(pk=garden.pk).exists()
    done = signed_in.post(reverse("erase_garden", args=[garden.pk]), {"name": garden.name}, follow=True)
    assert "deleted" in body(done)
    assert rows() == before
    assert [row.note for row in Reading.history.filter(id=kept.pk)] == ["changed", ""]


def test_only_owners_erase(garden: Garden, hazel: User) -> None:
    client = Client()
    client.force_login(hazel, backend="allauth.account.auth_backends.AuthenticationBackend")
    assert client.get(reverse("erase_garden", args=[garden.pk])).status_code == 403
    assert client.post(reverse("erase_garden", args=[garden.pk]), {"name": garden.name}).status_code == 403
    assert Garden.objects.filter(pk=garden.pk).exists()


def test_an_account_goes_with_the_gardens_that_nobody_else_is_in(
    signed_in: Client, garden: Garden, person: User, hazel: User, now: datetime
) -> None:
    person.set_password(PASSWORD)
    person.save()
    signed_in.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    alone = make_garden(person, name="Only mine")
    read = make_reading(make_place(garden), now, 11.0, entered_by=person)
    there = reverse("erase_account")
    assert "hand it over" in body(signed_in.get(there))
    refused = signed_in.post(there, {"password": PASSWORD})
    assert refused.status_code == 422
    assert "Not yet: you are the only owner" in body(refused)
    signed_in.post(reverse("hand_over", args=[garden.pk]), {"to": hazel.pk, "role": "grower"})
    page = body(signed_in.get(there))
    assert "Only mine" in page
    assert "go on without you" in page
    assert "not your password" in body(signed_in.post(there, {"password": "x"}))
    assert signed_in.post(there, {"password": PASSWORD})["Location"] == reverse("sign_in")
    assert not User.objects.filter(username="rowan").exists()
    assert not Garden.objects.filter(pk=alone.pk).exists()
    read.refresh_from_db()
    assert read.entered_by is None
    assert roles(garden) == {"hazel": "owner"}


def test_the_day_goes_only_to_an_address_that_is_confirmed(
    signed_in: Client, garden: Garden, person: User, now: Any, settings: Any
) -> None:
    settings.CLOCHE_MAIL_URL = "smtp://mail.example.org"
    page = body(signed_in.post(reverse("digest", args=[garden.pk]), {"email": "rowan@example.org", "hour": 6}, follow=True))
    assert "We have emailed rowan@example.org" in page
    assert DigestWish.objects.count() == 1
    assert flows.send_due(now) == 0
    text = ProcrastinateJob.objects.get(task_name=letters.LETTER).args["text"]
    link = re.search(r"http://testserver(\S+)", text)
    assert link is not None
    signed_in.post(link.group(1))
    assert flows.send_due(now) == 1
    again = body(signed_in.post(reverse("digest", args=[garden.pk]), {"email": "Rowan@example.org", "hour": 7}, follow=True))
    assert "The day’s jobs are emailed to" in again
