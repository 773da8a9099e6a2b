"""Who is meant by what was typed to sign in: a name, or a mail address that is confirmed as somebody's."""

from __future__ import annotations

from typing import Any

from allauth.account.models import EmailAddress
from django.http import HttpRequest

from cloche.apps.shared import known


def name_of(typed: str) -> str:
    """The name of whoever has that address; else what was typed."""
    if "@" in typed:
        address = EmailAddress.objects.filter(email__iexact=typed, verified=True).select_related("user").first()
        if address is not None:
            return str(address.user.get_username())
    return typed


def tried(request: HttpRequest | None, credentials: dict[str, Any] | None) -> str:
    """Under which name wrong tries count: one's address and one's name are one door."""
    typed = (credentials or {}).get("username") or (request.POST.get("username", "") if request is not None else "")
    return name_of(str(typed))


def address(request: HttpRequest) -> str:
    """Where a try comes from, for counting."""
    return known.address(request, tried(request, None))
