"""When nothing can be written it is said and nothing is lost; private pages stay private; guessing locks no owner out."""

import os
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from types import SimpleNamespace
from typing import Any

import pytest
from django.contrib.sessions.models import Session
from django.core import signing
from django.core.management import call_command
from django.db import InterfaceError, OperationalError, connection, connections
from django.test import Client, RequestFactory, override_settings
from django.urls import reverse
from psycopg.errors import DiskFull

from cloche.apps.gardens import flows as invite
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.readings.models import Reading
from cloche.apps.shared import availability, clock, http, known_browser
from cloche.apps.work import guard
from tests.factories import make_garden, make_person, make_place


@pytest.mark.parametrize("what", ["disk", "clock"])
def test_while_nothing_can_be_written_all_can_be_read_and_every_page_says_so(
    signed_in: Client, garden: Garden, monkeypatch: pytest.MonkeyPatch, what: str
) -> None:
    place = make_place(garden)
    said = str(availability.FULL if what == "disk" else availability.CLOCK)
    with monkeypatch.context() as then:
        then.setattr(*((guard, "is_full", lambda: True) if what == "disk" else (clock, "is_believable", lambda: False)))
        for name in ("today", "garden", "ground", "weather"):
            page = signed_in.get(reverse(name, args=[garden.pk]))
            assert (page.status_code, said in page.content.decode()) == (200, True)
        form = {"temperature": "9", "day": "2026-04-22", "time": "07:30", "depth": "5"}
        refused = signed_in.post(reverse("add_reading", args=[garden.pk, place.pk]), form)
        assert (refused.status_code, refused["Retry-After"], said in refused.content.decode()) == (503, "30", True)
        stops = signed_in.post(reverse("send_round", args=[garden.pk]), "{}", content_type="application/json")
        assert (stops.status_code, stops.json()["message"]) == (503, said)
        assert not Reading.objects.exists()
    assert signed_in.post(reverse("add_reading", args=[garden.pk, place.pk]), form).status_code in (200, 302)
    assert Reading.objects.count() == 1


def test_the_disk_is_full_below_a_limit_and_no_longer_above_it(monkeypatch: pytest.MonkeyPatch, settings: Any) -> None:
    settings.CLOCHE_LEAST_FREE_BYTES = 50
    for free, full in ((49, True), (50, False), (10**9, False)):
        monkeypatch.setattr(guard, "free_bytes", lambda free=free: free)
        guard._LAST.clear()
        assert guard.is_full() is full
    guard._LAST.clear()


@pytest.mark.parametrize("error", [OperationalError("no"), InterfaceError("no")])
def test_a_database_that_is_away_is_no_fault_of_the_page(error: Exception) -> None:
    connection.close()
    try:
        raise error
    except type(error):
        page = availability.fault(RequestFactory().get("/"))
    assert (page.status_code, page["Retry-After"]) == (503, "30")
    assert "being restarted" in page.content.decode()


def test_a_write_that_finds_the_disk_full_says_so(db: None) -> None:
    connection.ensure_connection()
    try:
        raise OperationalError("could not extend file") from DiskFull("could not extend file")
    except OperationalError:
        page = availability.fault(RequestFactory().post("/"))
    assert (page.status_code, str(availability.FULL) in page.content.decode()) == (503, True)


def test_a_fault_of_our_own_is_said_as_one() -> None:
    try:
        raise KeyError("no")
    except KeyError:
        page, given = availability.fault(RequestFactory().get("/")), availability.fault(RequestFactory().get("/api/v1/device"))
    assert (page.status_code, given.status_code) == (500, 500)
    assert b"fault in Cloche" in given.content


def test_private_pages_are_stored_nowhere(signed_in: Client, garden: Garden) -> None:
    for url in (reverse("today", args=[garden.pk]), reverse("me"), "/sign-in/"):
        assert {"private", "no-store"} <= set(signed_in.get(url)["Cache-Control"].split(", "))


def test_looking_at_a_page_again_writes_no_session(signed_in: Client, garden: Garden) -> None:
    url = reverse("ground", args=[garden.pk])
    signed_in.get(url)
    before = Session.objects.get().session_data
    with connection.execute_wrapper(_refuse_writing):
        assert signed_in.get(url).status_code == 200
    assert Session.objects.get().session_data == before


def _refuse_writing(execute: Callable[..., Any], sql: str, *more: Any) -> Any:
    assert not sql.lstrip().upper().startswith(("UPDATE", "INSERT", "DELETE")), sql
    return execute(sql, *more)


WRONG = "not-their-password"


def guess(client: Client, name: str, password: str = WRONG, **more: Any) -> int:
    return client.post("/sign-in/", {"username": name, "password": password}, **more).status_code


@override_settings(AXES_ENABLED=True)
def test_wrong_tries_from_behind_the_same_proxy_do_not_lock_an_owner_out(person: User) -> None:
    own = Client()
    assert guess(own, "rowan", "a-long-password") == 302
    own.post("/sign-out/")
    assert known_browser.COOKIE in own.cookies
    stranger = Client()
    assert [guess(stranger, "rowan") for _ in range(12)].count(429) >= 2
    assert guess(Client(), "rowan", "a-long-password") == 429  # from there nobody gets in who was not there before
    assert guess(own, "rowan", "a-long-password") == 302
    assert guess(Client(REMOTE_ADDR="192.0.2.9"), "rowan", "a-long-password") == 302


@override_settings(AXES_ENABLED=True)
def test_sixty_names_from_one_address_are_stopped(person: User) -> None:
    statuses = [guess(Client(), f"name{n}") for n in range(60)]
    assert statuses.count(429) >= 48
    assert guess(Client(REMOTE_ADDR="192.0.2.9"), "rowan", "a-long-password") == 302


@override_settings(AXES_ENABLED=True)
def test_a_known_browser_is_slowed_down_too(person: User) -> None:
    own = Client()
    guess(own, "rowan", "a-long-password")
    own.post("/sign-out/")
    assert [guess(own, "rowan") for _ in range(12)].count(429) >= 2


def test_a_browser_is_known_by_what_we_wrote_and_nothing_else(signed_in: Client, garden: Garden) -> None:
    signed_in.get(reverse("today", args=[garden.pk]))
    given = signed_in.cookies[known_browser.COOKIE]
    assert given["httponly"]
    assert known_browser.name_in(given.value) == "rowan"
    assert known_browser.is_known(f"a=b; {known_browser.COOKIE}={given.value}")
    for forged in ("", "rowan", given.value[:-2], given.value[::-1], "a:b:c"):
        assert not known_browser.is_known(f"{known_browser.COOKIE}={forged}")


def lets_large_files_in(client: Client) -> bool:
    return known_browser.is_known(f"{known_browser.COOKIE}={client.cookies[known_browser.COOKIE].value}")


def test_large_files_are_taken_only_while_somebody_is_signed_in(person: User, monkeypatch: pytest.MonkeyPatch) -> None:
    own = Client()
    assert guess(own, "rowan", "a-long-password") == 302
    assert lets_large_files_in(own)
    own.post("/sign-out/")
    assert not lets_large_files_in(own)
    assert known_browser.name_in(own.cookies[known_browser.COOKIE].value) == "rowan", "wrong tries are still counted by browser"
    guess(own, "rowan", "a-long-password")
    assert lets_large_files_in(own)
    later = time.time() + 13 * 3600
    monkeypatch.setattr(signing, "time", SimpleNamespace(time=lambda: later))
    assert not lets_large_files_in(own)
    own.get("/")
    assert lets_large_files_in(own), "who stays signed in is vouched for anew"


@pytest.mark.parametrize("end", ["password", "erased"])
def test_a_browser_is_no_longer_vouched_for_once_its_session_is_ended(person: User, end: str) -> None:
    own = Client()
    guess(own, "rowan", "a-long-password")
    if end == "erased":
        person.delete()
    else:
        person.set_password("another-long-password")
        person.save()
    own.get("/")
    assert not lets_large_files_in(own)


@pytest.mark.parametrize(
    ("path", "stranger", "known_one"),
    [
        ("/sign-in/", 100_000, 100_000),
        ("/api/v1/readings", 4_100_000, 4_100_000),
        ("/g/7/round/send/", 1_000_000, 12_200_000),
        ("/g/7/files/", 1_000_000, 20_200_000),
        ("/gardens/bring/", 1_000_000, 500_200_000),
        ("/anything/else", 1_000_000, 1_000_000),
    ],
)
def test_each_address_has_its_own_limit(path: str, stranger: int, known_one: int) -> None:
    assert (http.most_bytes(path, False), http.most_bytes(path, True)) == (stranger, known_one)


def at_once(*doings: Callable[[], object]) -> list[object]:
    """All at the same moment, each with a connection of its own."""
    gate, answers = threading.Barrier(len(doings)), []

    def run(do: Callable[[], object]) -> None:
        gate.wait(20)
        try:
            answers.append(do())
        finally:
            connections.close_all()

    threads = [threading.Thread(target=run, args=(do,)) for do in doings]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(30)
    return answers


@pytest.mark.django_db(transaction=True)
def test_two_owners_who_demote_each_other_at_once_leave_one() -> None:
    for n in range(6):
        garden = make_garden(make_person(f"rowan{n}"))
        other = make_person(f"hazel{n}")
        garden.memberships.create(user=other, role="owner")
        both = [member.user_id for member in garden.memberships.all()]
        done = at_once(*(lambda pk=pk, g=garden: invite.give_role(g, pk, "viewer") for pk in both))
        assert sorted(map(bool, done)) == [False, True]
        assert garden.memberships.filter(role=Membership.Role.OWNER).count() == 1


@pytest.mark.django_db(transaction=True)
def test_six_who_race_for_one_invitation_make_one_account() -> None:
    garden = make_garden(make_person("rowan"))
    token = invite.invite(garden, "helper", garden.memberships.get().user)

    def come(n: int) -> int:
        form = {"username": f"racer{n}", "password": "spade-and-fork"}
        return Client().post(f"/join/{token}/", form).status_code

    statuses = at_once(*(lambda n=n: come(n) for n in range(6)))
    assert sorted(statuses) == [302, 404, 404, 404, 404, 404]  # type: ignore[type-var]
    assert User.objects.filter(username__startswith="racer").count() == 1
    assert garden.memberships.count() == 2


def test_an_old_calendar_secret_does_not_work_again_after_coming_back(garden: Garden) -> None:
    from cloche.apps.windows.feed import link_of

    helper = make_person("willow")
    token = link_of(garden.memberships.create(user=helper, role="viewer")).token
    assert Client().get(f"/calendar/{token}.ics").status_code == 200
    garden.memberships.get(user=helper).delete()
    assert Client().get(f"/calendar/{token}.ics").status_code == 404
    garden.memberships.create(user=helper, role="viewer")
    assert Client().get(f"/calendar/{token}.ics").status_code == 404


def test_a_password_like_the_name_is_refused(db: None) -> None:
    form = {"username": "t_owner", "password": "t_owner11"}
    answer = Client().post("/welcome/", form)
    assert (answer.status_code, User.objects.count()) == (422, 0)
    assert "too similar" in answer.content.decode()


def _plain(answer: Any) -> dict[str, str]:
    return {name: value for name, value in answer.items() if name != "DJANGO_ALLOW_ASYNC_UNSAFE"}


def test_behind_a_proxy_the_deployment_check_has_nothing_to_say(monkeypatch: pytest.MonkeyPatch) -> None:
    own = {"CLOCHE_HOSTS": "garden.example", "DJANGO_SETTINGS_MODULE": "cloche.config.settings.production", "PYTHONPATH": "src"}
    own |= {"CLOCHE_SECRET_KEY": "0123456789" * 6}
    words = [sys.executable, "-W", "ignore", "-m", "cloche.manage", "check", "--deploy", "--fail-level", "WARNING"]
    done = subprocess.run(words, env=_plain(os.environ) | own, capture_output=True, text=True)  # noqa: S603 - our own words
    assert done.returncode == 0, done.stderr
    short = subprocess.run(words, env=_plain(os.environ) | own | {"CLOCHE_SECRET_KEY": "short"}, capture_output=True, text=True)  # noqa: S603
    assert short.returncode == 1
    assert "no secret to sign with" in short.stderr


def test_the_role_of_the_application_owns_its_database_and_no_more(db: None) -> None:
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT rolsuper, rolcreaterole, rolreplication, rolbypassrls FROM pg_roles WHERE rolname = current_user"
        )
        assert cursor.fetchone() == (False, False, False, False)
    call_command("check")
