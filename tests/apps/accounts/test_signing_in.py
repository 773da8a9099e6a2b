"""Signing in by name or address, a second step, letters, devices."""

import re
from datetime import timedelta
from io import StringIO
from typing import Any

import pytest
from allauth.account.models import EmailAddress
from allauth.mfa.models import Authenticator
from allauth.mfa.totp.internal import auth as totp
from django.core import mail
from django.core.management import CommandError, call_command
from django.test import Client
from django.urls import reverse
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.accounts import entrance, flows, letters, tasks, urls
from cloche.apps.accounts.templatetags.devices import device
from cloche.apps.gardens.models import Garden, User
from tests.factories import make_person

PASSWORD = "spade-and-fork"
WRITES = {letters.LETTER: tasks.letter, flows.FORGOTTEN: tasks.forgotten_password}


def body(response: Any) -> str:
    return response.content.decode()


@pytest.fixture
def rowan(garden: Garden, person: User) -> User:
    person.set_password(PASSWORD)
    person.save()
    return person


@pytest.fixture
def known(rowan: User) -> User:
    """Their address is confirmed."""
    EmailAddress.objects.create(user=rowan, email="rowan@example.org", verified=True, primary=True)
    return rowan


@pytest.fixture
def goes_out(settings: Any) -> None:
    settings.CLOCHE_MAIL_URL = "smtp://mail.example.org"


def sign_in(client: Client, name: str, password: str = PASSWORD) -> Any:
    return client.post(reverse("sign_in"), {"username": name, "password": password})


def sure(client: Client) -> None:
    """The password once more."""
    client.post(reverse("account_reauthenticate"), {"password": PASSWORD})


def last_letter() -> tuple[str, str]:
    """To whom, and what it says; handed over as the worker does."""
    job = ProcrastinateJob.objects.filter(task_name__in=WRITES).order_by("-id")[0]
    WRITES[job.task_name](**job.args)
    return mail.outbox[-1].to[0], mail.outbox[-1].body


def link_in(text: str) -> str:
    link = re.search(r"http://testserver(\S+)", text)
    assert link is not None
    return link.group(1)


@pytest.mark.parametrize("name", ["rowan", "rowan@example.org", "Rowan@Example.org"])
def test_one_signs_in_by_name_or_confirmed_address(client: Client, known: User, garden: Garden, name: str) -> None:
    assert sign_in(client, name)["Location"] == reverse("home")
    assert client.get(reverse("today", args=[garden.pk])).status_code == 200


def test_what_does_not_go_together_is_said_without_saying_which(client: Client, known: User) -> None:
    answers = [sign_in(client, name, "wrong") for name in ("rowan", "rowan@example.org", "nobody", "nobody@example.org")]
    assert {answer.status_code for answer in answers} == {422}
    assert all("do not match" in body(answer) for answer in answers)


def test_tries_by_name_and_by_address_are_counted_together(known: User) -> None:
    assert entrance.tried(None, {"username": "ROWAN@example.org"}) == "rowan"
    assert entrance.tried(None, {"username": "rowan"}) == "rowan"
    assert entrance.tried(None, {"username": "x@example.org"}) == "x@example.org"


def test_an_address_that_is_not_confirmed_is_nobodys_name(known: User) -> None:
    EmailAddress.objects.create(user=make_person("hazel"), email="else@example.org", verified=False)
    assert entrance.name_of("else@example.org") == "else@example.org"


def test_a_name_may_have_blanks_but_no_at(client: Client, db: None) -> None:
    answer = client.post(reverse("welcome"), {"username": "rowan@home", "password": PASSWORD})
    assert answer.status_code == 422
    assert "A name cannot contain @" in body(answer)
    answer = client.post(reverse("welcome"), {"username": "Rowan Ash", "password": PASSWORD, "email": "ash@example.org"})
    assert answer["Location"] == reverse("new_garden")
    to, text = last_letter()
    assert to == "ash@example.org"
    assert "Does ash@example.org belong to Rowan Ash?" in body(client.get(link_in(text)))
    client.post(link_in(text))
    assert letters.confirmed_address(User.objects.get()) == "ash@example.org"


def test_who_forgot_a_password_chooses_a_new_one_by_a_letter(client: Client, known: User, goes_out: None) -> None:
    answer = client.post(reverse("account_reset_password"), {"email": "rowan@example.org"}, follow=True)
    assert "we have sent it an email" in body(answer)
    to, text = last_letter()
    assert to == "rowan@example.org"
    page = client.get(link_in(text), follow=True)
    there = page.redirect_chain[-1][0]
    assert "too short" in body(client.post(there, {"password1": "x"}))
    assert "Your new password has been saved" in body(client.post(there, {"password1": "rake-and-hoe"}, follow=True))
    assert sign_in(Client(), "rowan").status_code == 422, "the old one no longer fits"
    assert sign_in(Client(), "rowan", "rake-and-hoe")["Location"] == reverse("home")
    assert "no longer works" in body(Client().get(link_in(text), follow=True)), "it opens once"


def test_a_letter_that_lay_too_long_no_longer_opens(
    client: Client, known: User, goes_out: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    client.post(reverse("account_reset_password"), {"email": "rowan@example.org"})
    _to, text = last_letter()
    generator = "django.contrib.auth.tokens.PasswordResetTokenGenerator._now"
    from django.contrib.auth.tokens import default_token_generator as tokens

    later = tokens._now() + timedelta(minutes=61)
    monkeypatch.setattr(generator, lambda self: later)
    assert "no longer works" in body(client.get(link_in(text), follow=True))


def test_nobody_learns_which_addresses_are_known(client: Client, known: User, goes_out: None) -> None:
    answers = [
        client.post(reverse("account_reset_password"), {"email": address}, follow=True)
        for address in ("rowan@example.org", "nobody@example.org")
    ]
    assert len({re.sub(r"\b\w{32,}\b", "", body(answer)) for answer in answers}) == 1
    jobs = ProcrastinateJob.objects.filter(task_name=flows.FORGOTTEN).order_by("id")
    assert [flows.write(**job.args) for job in jobs] == [1, 0], "and strangers get no letter"
    assert "/sign-in/forgotten/" not in str([job.args for job in jobs]), "the secret lies in no queue"


def test_an_address_that_was_only_typed_gets_no_letter(client: Client, rowan: User, goes_out: None) -> None:
    """A slip of the keyboard would hand the account to a stranger."""
    EmailAddress.objects.create(user=rowan, email="rown@example.org", verified=False, primary=True)
    User.objects.filter(pk=rowan.pk).update(email="rown@example.org")
    client.post(reverse("account_reset_password"), {"email": "rown@example.org"})
    job = ProcrastinateJob.objects.get(task_name=flows.FORGOTTEN)
    assert flows.write(**job.args) == 0
    assert mail.outbox == []


def test_without_a_mail_server_the_page_says_who_helps(client: Client, known: User) -> None:
    assert "./run password" in body(client.get(reverse("account_reset_password")))


def test_a_changed_password_signs_other_devices_out_and_is_written_about(client: Client, known: User) -> None:
    other = Client()
    sign_in(client, "rowan")
    sign_in(other, "rowan")
    wrong = client.post(reverse("account_change_password"), {"oldpassword": "x", "password1": "rake-and-hoe"})
    assert "not your current password" in body(wrong)
    done = client.post(reverse("account_change_password"), {"oldpassword": PASSWORD, "password1": "rake-and-hoe"}, follow=True)
    assert "Password changed" in body(done)
    assert client.get(reverse("me")).status_code == 200
    assert other.get(reverse("me")).status_code == 302
    to, text = last_letter()
    assert to == "rowan@example.org"
    assert "Your password was changed." in text


def test_devices_are_listed_and_the_others_signed_out(client: Client, rowan: User) -> None:
    phone = Client(HTTP_USER_AGENT="Mozilla/5.0 (Linux; Android 14) AppleWebKit Chrome/120 Mobile Safari")
    sign_in(client, "rowan")
    sign_in(phone, "rowan")
    page = body(client.get(reverse("usersessions_list")))
    assert "signed in on 2 devices" in page
    assert "Chrome on Android" in page
    assert "Other devices signed out" in body(client.post(reverse("usersessions_list"), follow=True))
    assert phone.get(reverse("me")).status_code == 302
    assert client.get(reverse("me")).status_code == 200


@pytest.mark.parametrize(
    ("agent", "named"),
    [
        ("Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) Version/17.0 Mobile Safari/604", "Safari on iPhone"),
        ("Mozilla/5.0 (Windows NT 10.0; Win64) Chrome/120.0 Safari/537.36 Edg/120.0", "Edge on Windows"),
        ("Mozilla/5.0 (X11; Linux x86_64; rv:120.0) Gecko/20100101 Firefox/120.0", "Firefox on Linux"),
        ("weather-station/1.0", "weather-station/1.0"),
        ("", "an unknown browser"),
    ],
)
def test_a_device_is_named_as_people_know_it(agent: str, named: str) -> None:
    assert device(agent) == named


def activate(client: Client) -> str:
    """Codes from the phone are asked for from now on; returns the secret."""
    sure(client)
    page = body(client.get(reverse("mfa_activate_totp")))
    secret = re.search(r'id="secret">(\w+)<', page)
    assert secret is not None
    assert "not correct" in body(client.post(reverse("mfa_activate_totp"), {"code": "000000"}))
    code = totp.format_hotp_value(totp.hotp_value(secret.group(1), next(totp.yield_hotp_counters_from_time())))
    client.post(reverse("mfa_activate_totp"), {"code": code})
    return secret.group(1)


def test_with_codes_from_the_phone_the_password_alone_lets_nobody_in(
    client: Client, known: User, django_capture_on_commit_callbacks: Any
) -> None:
    sign_in(client, "rowan")
    with django_capture_on_commit_callbacks(execute=True):
        secret = activate(client)
    assert "password and a second step" in body(client.get(reverse("mfa_index")))
    assert "now also needs a code" in last_letter()[1]
    spare = Authenticator.objects.get(user=known, type="recovery_codes").wrap().get_unused_codes()
    assert len(spare) == 10
    assert spare[0] in body(client.get(reverse("mfa_view_recovery_codes")))

    other = Client()
    assert sign_in(other, "rowan")["Location"].startswith(reverse("mfa_authenticate"))
    assert other.get(reverse("me")).status_code == 302, "not in yet"
    assert "not correct" in body(other.post(reverse("mfa_authenticate"), {"code": "000000"}))
    assert other.post(reverse("mfa_authenticate"), {"code": spare[0]})["Location"] == reverse("home")
    assert other.get(reverse("me")).status_code == 200

    third = Client()
    sign_in(third, "rowan")
    assert "not correct" in body(third.post(reverse("mfa_authenticate"), {"code": spare[0]})), "a spare code works once"
    assert secret not in body(client.get(reverse("mfa_index")))


def test_codes_can_be_done_without_again(client: Client, known: User) -> None:
    sign_in(client, "rowan")
    activate(client)
    client.post(reverse("mfa_deactivate_totp"))
    assert sign_in(Client(), "rowan")["Location"] == reverse("home")


def test_guessing_codes_is_slowed_down(client: Client, known: User) -> None:
    sign_in(client, "rowan")
    activate(client)
    other = Client()
    sign_in(other, "rowan")
    pages = [body(other.post(reverse("mfa_authenticate"), {"code": f"{i:06}"})) for i in range(8)]
    assert "Too many attempts" in pages[-1]


def test_what_concerns_the_account_wants_the_password_once_more(
    client: Client, known: User, settings: Any, garden: Garden
) -> None:
    client.force_login(known, backend="allauth.account.auth_backends.AuthenticationBackend")
    answer = client.get(reverse("mfa_activate_totp"))
    assert answer["Location"].startswith(reverse("account_reauthenticate"))
    assert "Confirm that it is you" in body(client.get(answer["Location"]))
    assert "not your password" in body(client.post(answer["Location"], {"password": "x"}))
    assert client.post(answer["Location"], {"password": PASSWORD})["Location"] == reverse("mfa_activate_totp")
    assert client.get(reverse("mfa_activate_totp")).status_code == 200


def test_a_new_address_is_used_once_it_is_confirmed(client: Client, known: User, goes_out: None) -> None:
    sign_in(client, "rowan")
    sure(client)
    assert "Emails go to rowan@example.org" in body(client.get(reverse("account_email")))
    client.post(reverse("account_email"), {"action_add": "", "email": "ash@example.org"})
    assert letters.confirmed_address(known) == "rowan@example.org"
    to, text = last_letter()
    assert to == "ash@example.org"
    client.post(link_in(text))
    assert letters.confirmed_address(known) == "ash@example.org"
    assert list(EmailAddress.objects.filter(user=known).values_list("email", flat=True)) == ["ash@example.org"]


def test_no_account_can_be_made_but_by_invitation(client: Client, known: User) -> None:
    assert client.get("/account/signup/").status_code == 404
    assert client.get(reverse("welcome"))["Location"] == reverse("sign_in")


OF_ONES_OWN = [route.name for route in urls.urlpatterns if str(route.pattern).lstrip("^").startswith("me/")]


@pytest.mark.parametrize("name", [name for name in OF_ONES_OWN if name != "account_email_verification_sent"])
def test_ones_own_pages_ask_who_one_is(client: Client, rowan: User, name: str) -> None:
    (pattern,) = [route for route in urls.urlpatterns if route.name == name]
    values = {"pk": 1} if "pk" in pattern.pattern.converters else {"key": "x"} if name == "account_confirm_email" else {}
    answer = client.get(reverse(name, kwargs=values))
    if name == "account_confirm_email":
        assert "no longer works" in body(answer)
    else:
        assert answer["Location"].startswith(reverse("sign_in"))


def test_whoever_keeps_the_computer_takes_a_lost_second_step_away(client: Client, known: User) -> None:
    sign_in(client, "rowan")
    activate(client)
    out = StringIO()
    call_command("without_second_step", "rowan", stdout=out)
    assert "No second step is asked for now." in out.getvalue()
    assert sign_in(Client(), "rowan")["Location"] == reverse("home")
    call_command("without_second_step", "rowan", stdout=out)
    assert "There was no second step." in out.getvalue()
    with pytest.raises(CommandError, match="Nobody here is called willow"):
        call_command("without_second_step", "willow")
