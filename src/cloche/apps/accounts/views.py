"""Signing in and out, and what belongs to one's account. The steps are allauth's; the words and pages are ours."""

from __future__ import annotations

from typing import Any

from allauth.account.internal.flows.login import perform_password_login
from allauth.account.models import Login
from allauth.account.signals import user_logged_in
from django.contrib.auth import views as auth
from django.dispatch import receiver
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import redirect

from cloche.apps.accounts.letters import leave_the_computer
from cloche.apps.gardens import selectors
from cloche.apps.gardens.forms import SignInForm
from cloche.apps.gardens.language import remember_language
from cloche.apps.gardens.models import User
from cloche.apps.shared.http import INVALID


class SignIn(auth.LoginView):
    """Sign in with name or email address, password and an optional second factor.

    A new installation redirects to its welcome page.
    """

    template_name = "accounts/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def dispatch(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        if selectors.nobody_yet():
            return redirect("welcome")
        return super().dispatch(request, *args, **kwargs)

    def form_valid(self, form: Any) -> HttpResponse:
        return enter(self.request, form.get_user(), self.get_success_url())

    def form_invalid(self, form: Any) -> HttpResponse:
        response = super().form_invalid(form)
        response.status_code = INVALID
        return response


class SignOut(auth.LogoutView):
    """End the session."""


def enter(request: HttpRequest, person: User, onwards: str) -> HttpResponse:
    """Sign in a person after their password, through their second factor if they have one."""
    login = Login(user=person, redirect_url=onwards, email_verification="none")
    return perform_password_login(request, {"username": person.username}, login)


@receiver(user_logged_in, dispatch_uid="browser-speaks-as-its-person")
def speak_as_they_do(sender: Any, request: HttpRequest, user: User, response: Any = None, **kwargs: Any) -> None:
    """Set the browser to the person's language after signing in."""
    if response is not None:
        remember_language(response, user)


def mail_goes_out(request: HttpRequest) -> dict[str, bool]:
    """Return whether letters are sent, for pages that offer one."""
    return {"mail_goes_out": leave_the_computer()}
