"""An account's life in a browser, on a phone and at a desk: invited, confirmed, forgotten, made safer, handed over, erased."""

import re
from typing import Any

import pytest
from allauth.mfa.models import Authenticator
from allauth.mfa.totp.internal import auth as totp
from django.core import mail
from playwright.sync_api import Page, expect
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.accounts import flows, letters, tasks
from cloche.apps.gardens.models import Garden, Membership, User
from tests.factories import make_garden, make_person
from tests.journeys.test_accessibility import _looked_at

NAME, FIRST, SECOND = "Hazel Wood", "spade-and-fork", "rake-and-hoe"
HEADLINE = "How warm is the soil"


@pytest.fixture
def garden(db: None, now: object) -> Garden:
    return make_garden(make_person("rowan"), "Test plot")


def letter() -> str:
    """The address in the latest letter, handed over as the worker does."""
    writes = {letters.LETTER: tasks.letter, flows.FORGOTTEN: tasks.forgotten_password}
    job = ProcrastinateJob.objects.filter(task_name__in=writes).order_by("-id")[0]
    writes[job.task_name](**job.args)
    link = re.search(r"http://\S+", mail.outbox[-1].body)
    assert link is not None
    return link.group()


def code(secret: str, ahead: int = 0) -> str:
    counter = next(totp.yield_hotp_counters_from_time())
    return str(totp.format_hotp_value(totp.hotp_value(secret, counter + ahead)))


def sign_in(page: Page, url: str, name: str, password: str) -> None:
    page.goto(f"{url}/sign-in/")
    page.get_by_label("Name or email address").fill(name)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in", exact=True).click()


def sign_out(page: Page) -> None:
    page.goto("about:blank")  # what the page still asks for must not set them again
    page.context.clear_cookies()


def press(page: Page, name: str) -> None:
    page.get_by_role("button", name=name, exact=True).click()


def sure(page: Page, password: str) -> None:
    """The password once more."""
    expect(page.get_by_role("heading", level=1)).to_contain_text("Confirm that it is you")
    page.get_by_label("Your password").fill(password)
    press(page, "Continue")


@pytest.fixture
def size(page: Page) -> dict[str, int]:
    size = {"width": 390, "height": 844}
    page.set_viewport_size(size)  # type: ignore[arg-type]
    return size


def test_an_account_from_the_invitation_to_its_end(
    page: Page, live_server: Any, garden: Garden, size: object, settings: Any
) -> None:
    settings.CLOCHE_MAIL_URL = "smtp://mail.example.org"
    url, seen = live_server.url, []

    def look() -> None:
        seen.extend(_looked_at(page))
        page.evaluate("document.documentElement.style.fontSize = ''")
        page.emulate_media(color_scheme="light")

    # Invited.
    sign_in(page, url, "rowan", "a-long-password")
    page.goto(f"{url}/g/{garden.pk}/garden/people/")
    press(page, "Create link")
    link = page.locator("#link").inner_text()
    sign_out(page)
    page.goto(link)
    page.get_by_label("Your name").fill(NAME)
    page.get_by_label("Password", exact=True).fill(FIRST)
    page.get_by_label("Email address (optional)").fill("hazel@example.org")
    look()
    press(page, "Join")
    expect(page.get_by_text("You have joined Test plot")).to_be_visible()

    # The address confirmed, the password forgotten.
    page.goto(letter())
    look()
    press(page, "Yes, this is my address")
    expect(page.get_by_text("Email address confirmed.")).to_be_visible()
    look()
    sign_out(page)
    page.goto(f"{url}/sign-in/")
    page.get_by_role("link", name="I have forgotten my password").click()
    look()
    page.get_by_label("Email address").fill("hazel@example.org")
    press(page, "Send me the link")
    expect(page.get_by_role("heading", level=1)).to_contain_text("we have sent it an email")
    look()
    page.goto(letter())
    page.get_by_label("New password").fill(SECOND)
    look()
    press(page, "Save")
    look()
    page.get_by_role("link", name="Sign in with it").click()

    # By the address, and with a second step from now on.
    sign_in(page, url, "hazel@example.org", SECOND)
    expect(page.get_by_role("heading", level=1)).not_to_contain_text(HEADLINE)
    page.goto(f"{url}/me/second/")
    look()
    page.get_by_role("link", name="Set up").click()
    look()
    sure(page, SECOND)
    look()
    secret = page.locator("#secret").inner_text()
    page.get_by_label("Code").fill(code(secret))
    press(page, "Turn on")
    expect(page.get_by_text("From now on, signing in needs a code")).to_be_visible()
    page.goto(f"{url}/me/second/spare/")
    look()
    spare, other_spare = page.locator(".codes code").all_inner_texts()[:2]
    page.goto(f"{url}/me/second/spare/new/")
    look()
    page.goto(f"{url}/me/devices/")
    look()
    sign_out(page)
    sign_in(page, url, NAME, SECOND)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Now enter the code from your phone")
    look()
    page.get_by_label("Code").fill(spare)
    press(page, "Sign in")
    expect(page.get_by_role("heading", level=1)).not_to_contain_text("Now enter the code")

    # A passkey, in a device that the browser plays; at first it has none.
    chrome = page.context.new_cdp_session(page)
    chrome.send("WebAuthn.enable")
    device = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True}
    device |= {"isUserVerified": True, "automaticPresenceSimulation": True}
    chrome.send("WebAuthn.addVirtualAuthenticator", {"options": device})
    sign_out(page)
    page.goto(f"{url}/sign-in/")
    press(page, "Sign in with a passkey")
    expect(page.get_by_text("No passkey was used.")).to_be_visible()
    sign_in(page, url, NAME, SECOND)
    page.get_by_label("Code").fill(other_spare)
    press(page, "Sign in")
    page.goto(f"{url}/me/second/passkeys/new/")
    sure(page, SECOND)
    page.get_by_label("Passkey name").fill("My phone")
    page.get_by_label("Let this passkey sign me in").check()
    look()
    press(page, "Add passkey")
    page.wait_for_function("document.querySelector('h1').textContent.includes('second step')")
    assert str(Authenticator.objects.get(type="webauthn")) == "My phone"
    page.goto(f"{url}/me/second/passkeys/")
    look()
    page.get_by_role("link", name="rename").click()
    look()
    sign_out(page)
    page.goto(f"{url}/sign-in/")
    look()
    press(page, "Sign in with a passkey")
    page.wait_for_url("**/g/**")

    # The garden changes hands, and the account ends.
    sign_out(page)
    sign_in(page, url, "rowan", "a-long-password")
    page.goto(f"{url}/g/{garden.pk}/garden/people/")
    look()
    page.get_by_label("Your new role").select_option(label="I leave the garden")
    press(page, "Hand over")
    page.wait_for_url("**/gardens/new/**")
    assert Membership.objects.get().user.username == NAME
    page.goto(f"{url}/me/erase/")
    look()
    page.get_by_label("Your password").fill("a-long-password")
    press(page, "Delete account")
    expect(page.get_by_role("heading", level=1)).to_contain_text(HEADLINE)
    assert list(User.objects.values_list("username", flat=True)) == [NAME]

    # So does the garden.
    press(page, "Sign in with a passkey")
    page.wait_for_url("**/g/**")
    page.goto(f"{url}/g/{garden.pk}/garden/erase/")
    look()
    page.get_by_label("Enter its name to confirm").fill("Test plot")
    press(page, "Delete garden")
    expect(page.get_by_text("Test plot deleted.")).to_be_visible()
    assert not Garden.objects.exists()
    assert seen == [], "\n".join(seen)
