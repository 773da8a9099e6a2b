"""Whose a mail address is. Letters go only to an address that somebody has confirmed as theirs."""

from __future__ import annotations

from allauth.account.models import EmailAddress
from django.http import HttpRequest

from cloche.apps.accounts.letters import confirmed_address, leave_the_computer
from cloche.apps.gardens.models import User


def address_for(person: User) -> str:
    """Where regular letters to somebody go: the address they confirmed. Where no mail leaves the computer, the one they gave,
    for nobody could confirm any."""
    return confirmed_address(person) or ("" if leave_the_computer() else person.email)


def wish(request: HttpRequest, person: User, email: str) -> bool:
    """Somebody wants letters at an address. Returns whether it can be used at once; else a letter asks whether it is theirs."""
    if confirmed_address(person) == email.lower():
        return True
    if person.email != email:
        person.email = email
        person.save(update_fields=["email"])
    EmailAddress.objects.add_new_email(request, person, email)
    return not leave_the_computer()
