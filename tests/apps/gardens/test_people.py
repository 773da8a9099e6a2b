"""People: invited by a link that is used once, given a part, shown out; a garden keeps an owner."""

import re
from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, Invitation, Membership, User
from cloche.apps.shared import clock
from tests.conftest import NOW
from tests.factories import make_person


def link(client: Client, garden: Garden, role: str = "helper") -> str:
    page = client.post(reverse("people", args=[garden.pk]), {"role": role}).content.decode()
    link = re.search(r"http://testserver(/join/[^<]+/)", page)
    assert link is not None
    return link.group(1)


NEW = {"username": "hazel", "password": "spade-and-fork"}
NEW |= {"temperature_unit": "C", "length_unit": "cm"}


def test_somebody_new_joins_by_a_link_that_opens_once(signed_in: Client, garden: Garden) -> None:
    url = link(signed_in, garden)
    assert url.split("/")[2] not in signed_in.get(reverse("people", args=[garden.pk])).content.decode()
    stranger = Client()
    assert "has invited you to Test plot as helper" in stranger.get(url).content.decode()
    page = stranger.post(url, NEW, follow=True).content.decode()
    assert "You have joined Test plot" in page
    assert garden.memberships.get(user__username="hazel").role == "helper"
    assert Client().get(url).status_code == 404
    assert Client().post(url, NEW | {"username": "late"}).status_code == 404
    assert not User.objects.filter(username="late").exists()


def test_a_weak_password_is_said_at_its_field_and_the_link_stays_good(signed_in: Client, garden: Garden) -> None:
    url = link(signed_in, garden)
    assert Client().post(url, NEW | {"password": "x"}).status_code == 422
    assert Client().get(url).status_code == 200


def test_one_who_is_here_already_joins_as_who_they_are(signed_in: Client, client: Client, garden: Garden) -> None:
    url = link(signed_in, garden, "viewer")
    other = Client()
    other.force_login(make_person("willow"), backend="allauth.account.auth_backends.AuthenticationBackend")
    other.post(url)
    assert garden.memberships.get(user__username="willow").role == "viewer"


def test_who_belongs_already_keeps_their_part(signed_in: Client, garden: Garden, person: User) -> None:
    signed_in.post(link(signed_in, garden, "viewer"))
    assert garden.memberships.get(user=person).role == "owner"


def test_a_link_ends_after_a_fortnight_and_can_be_withdrawn(
    signed_in: Client, garden: Garden, monkeypatch: pytest.MonkeyPatch
) -> None:
    first, second = link(signed_in, garden), link(signed_in, garden)
    newest = Invitation.objects.order_by("-pk")[0]
    signed_in.post(reverse("withdraw", args=[garden.pk, newest.pk]))
    assert Client().get(second).status_code == 404
    monkeypatch.setattr(clock, "now", lambda: NOW + timedelta(days=15))
    assert Client().get(first).status_code == 404


def test_only_owners_see_and_make_links(signed_in: Client, garden: Garden) -> None:
    garden.memberships.update(role=Membership.Role.GROWER)
    assert signed_in.post(reverse("people", args=[garden.pk]), {"role": "owner"}).status_code == 403
    assert "Create link" not in signed_in.get(reverse("people", args=[garden.pk])).content.decode()
    assert not Invitation.objects.exists()


def test_a_garden_keeps_an_owner(signed_in: Client, garden: Garden, person: User) -> None:
    part, out = reverse("give_role", args=[garden.pk, person.pk]), reverse("show_out", args=[garden.pk, person.pk])
    assert "needs at least one owner" in signed_in.post(part, {"role": "viewer"}, follow=True).content.decode()
    assert "cannot be removed" in signed_in.post(out, follow=True).content.decode()
    other = make_person("hazel")
    Membership.objects.create(garden=garden, user=other, role="viewer")
    signed_in.post(reverse("give_role", args=[garden.pk, other.pk]), {"role": "owner"})
    signed_in.post(part, {"role": "grower"})
    assert set(garden.memberships.values_list("user__username", "role")) == {("rowan", "grower"), ("hazel", "owner")}
