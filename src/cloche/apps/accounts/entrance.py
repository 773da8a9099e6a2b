"""Who is let in: names and addresses people sign in with, and how often somebody may try."""

from __future__ import annotations

from typing import Any

from allauth.account.models import EmailAddress
from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import override

from cloche.apps.accounts import flows, letters
from cloche.apps.accounts.forms import NewPersonForm
from cloche.apps.accounts.views import enter
from cloche.apps.gardens import flows as flow
from cloche.apps.gardens import selectors
from cloche.apps.gardens.forms import UnitsForm
from cloche.apps.gardens.language import language_of, remember_language
from cloche.apps.gardens.models import User
from cloche.apps.shared import known_browser
from cloche.apps.shared.http import INVALID


def welcome(request: HttpRequest) -> HttpResponse:
    """Create the first account of an installation. The page closes once there is one."""
    if not selectors.nobody_yet():
        return redirect("sign_in")
    form = NewPersonForm(request.POST or None)
    if form.is_valid():
        return _come_in(request, form.save(), form, reverse("new_garden"))
    return render(request, "accounts/welcome.html", {"form": form}, status=INVALID if form.errors else 200)


def join(request: HttpRequest, token: str) -> HttpResponse:
    """Accept an invitation with an existing or a new account."""
    invitation = flow.invitation_of(token)
    if invitation is None:
        return render(request, "accounts/join_ended.html", status=404)
    signed_in = request.user.is_authenticated
    form = NewPersonForm(request.POST if request.method == "POST" and not signed_in else None)
    if request.method == "POST" and (signed_in or form.is_valid()):
        membership = flow.join(invitation, form.save if not signed_in else lambda: request.user)  # type: ignore[arg-type, return-value]
        if membership is None:
            return render(request, "accounts/join_ended.html", status=404)
        there = reverse("today", args=[invitation.garden.pk])
        response = redirect(there) if signed_in else _come_in(request, membership.user, form, there)
        names = {"name": invitation.garden.name, "role": membership.get_role_display()}
        messages.success(request, _("You have joined {name}. Your role: {role}.").format(**names))
        return response
    context = {"invitation": invitation, "form": form, "role": invitation.get_role_display()}
    return render(request, "accounts/join.html", context, status=INVALID if form.errors else 200)


def _come_in(request: HttpRequest, person: User, form: NewPersonForm, there: str) -> HttpResponse:
    """Sign in a new person and send a confirmation letter if they gave an address."""
    response = enter(request, person, there)
    if form.cleaned_data["email"]:
        flows.wish(request, person, form.cleaned_data["email"])
    return response


@login_required
def me(request: HttpRequest) -> HttpResponse:
    """Show a person's units and language, and links to everything else of theirs."""
    form = UnitsForm(request.POST or None, instance=request.user)  # type: ignore[arg-type]
    if form.is_valid():
        form.save()
        with override(language_of(form.instance)):
            messages.success(request, _("Units changed on all pages."))
        response = redirect("home")
        remember_language(response, form.instance)
        return response
    address = letters.confirmed_address(request.user)  # type: ignore[arg-type]
    return render(request, "accounts/me.html", {"form": form, "here": selectors.garden_to_open(request), "address": address})


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
    return known_browser.address(request, tried(request, None))
