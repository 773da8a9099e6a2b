"""Letters of an account, sent by the workers: a new password, the addresses of its letters."""

from __future__ import annotations

from urllib.parse import urljoin

from allauth.account.forms import default_token_generator
from allauth.account.models import EmailAddress
from allauth.account.utils import user_pk_to_url_str
from django.http import HttpRequest
from django.urls import reverse
from django.utils.crypto import get_random_string

from cloche.apps.accounts import letters
from cloche.apps.accounts.letters import confirmed_address, leave_the_computer
from cloche.apps.gardens.models import User
from cloche.apps.work import queue

FORGOTTEN = "accounts.forgotten"


def ask(email: str, base: str) -> None:
    """Queue a password reset. `base` is the address at which Cloche was reached."""
    queue.put(FORGOTTEN, f"forgotten-{get_random_string(12)}", email=email, base=base)


def write(email: str, base: str) -> int:
    """Write to everyone with this confirmed address and return their number. Raises letters.NotSent.

    Never to an address that was only typed: a slip of the keyboard would hand the account to a stranger.
    """
    confirmed = EmailAddress.objects.filter(email__iexact=email, verified=True, user__is_active=True).select_related("user")
    people = [address.user for address in confirmed.order_by("user_id")]
    for person in people:
        key = f"{user_pk_to_url_str(person)}-{default_token_generator.make_token(person)}"
        uid, _dash, token = key.partition("-")
        link = urljoin(base, reverse("account_reset_password_from_key", kwargs={"uidb36": uid, "key": token}))
        subject, text = letters.words_for(person, letters.RESET, link)
        letters.hand_over(email, subject, text)
    return len(people)


def address_for(person: User) -> str:
    """Return the address for regular letters to a person.

    It is the confirmed one, or the one they gave if no mail leaves the computer and none can be confirmed.
    """
    return confirmed_address(person) or ("" if leave_the_computer() else person.email)


def wish(request: HttpRequest, person: User, email: str) -> bool:
    """Set the address for letters and return whether it can be used at once.

    Otherwise a letter asks for confirmation.
    """
    if confirmed_address(person) == email.lower():
        return True
    if person.email != email:
        person.email = email
        person.save(update_fields=["email"])
    EmailAddress.objects.add_new_email(request, person, email)
    return not leave_the_computer()
