"""How allauth, which does the signing in, fits into this house: who may come in, what is written and said."""

from __future__ import annotations

from typing import Any, cast

from allauth.account.adapter import DefaultAccountAdapter
from allauth.mfa.adapter import DefaultMFAAdapter
from django.contrib import messages
from django.http import HttpRequest
from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.accounts import letters
from cloche.apps.gardens.models import User
from cloche.apps.shared.words import lazy

SAID = {
    "account/messages/password_changed.txt": lazy("Password changed. Your other devices have been signed out."),
    "account/messages/email_confirmed.txt": lazy("Email address confirmed."),
    "account/messages/email_confirmation_sent.txt": lazy("We have emailed {email}. Open the link in that email."),
    "account/messages/email_deleted.txt": lazy("Address removed."),
    "usersessions/messages/sessions_logged_out.txt": lazy("Other devices signed out."),
    "mfa/messages/totp_activated.txt": lazy("From now on, signing in needs a code from your phone."),
    "mfa/messages/totp_deactivated.txt": lazy("Signing in no longer needs a code from your phone."),
    "mfa/messages/recovery_codes_generated.txt": lazy("New recovery codes created. The old ones no longer work."),
    "mfa/messages/webauthn_added.txt": lazy("Passkey added."),
    "mfa/messages/webauthn_removed.txt": lazy("Passkey removed."),
}
"""What allauth has to say, by its names; about the rest Cloche is silent."""


class Adapter(DefaultAccountAdapter):
    """Account settings: no open sign-up, and letters through the queue."""

    error_messages = DefaultAccountAdapter.error_messages | {
        "duplicate_email": lazy("That is already your address."),
        "email_taken": lazy("Someone here already uses that address."),
        "enter_current_password": lazy("That is not your current password."),
        "incorrect_password": lazy("That is not your password."),
        "incorrect_code": lazy("That code is not correct. A new one appears every 30 seconds, and each works once."),
        "same_as_current": lazy("That is already your address."),
        "rate_limited": lazy("Too many requests. Wait a minute and try again."),
        "too_many_login_attempts": lazy("Too many attempts. Wait 15 minutes and try again."),
    }

    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """Refuse sign-up; accounts are created at the welcome page and by invitation."""
        return False

    def get_client_ip(self, request: HttpRequest) -> str:
        """Return the address from the web server, which trusts only the header of its proxy."""
        return str(request.META.get("REMOTE_ADDR", "")) or "127.0.0.1"

    def get_password_change_redirect_url(self, request: HttpRequest) -> str:
        """Return to the account page."""
        return reverse("me")

    def get_email_verification_redirect_url(self, email_address: Any) -> str:
        """Return to the account page, which asks to sign in first."""
        return reverse("me")

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Queue a letter with our own text."""
        link = context.get("activate_url") or ""
        person = cast("User | None", context.get("user"))
        letters.write(person, email, template_prefix, link, self.get_client_ip(self.request))

    def send_notification_mail(self, template_prefix: str, user: Any, context: Any = None, email: str | None = None) -> None:
        """Queue a notification with the person's name and in their language."""
        super().send_notification_mail(template_prefix, user, {**(context or {}), "user": user}, email)

    def add_message(
        self,
        request: HttpRequest,
        level: int,
        message_template: str | None = None,
        message_context: dict[str, Any] | None = None,
        extra_tags: str = "",
        message: str | None = None,
    ) -> None:
        """Show a message with our own text."""
        if text := message or SAID.get(message_template or ""):
            messages.add_message(request, level, str(text).format(**(message_context or {})), extra_tags=extra_tags)


class SecondFactors(DefaultMFAAdapter):
    """Second factors: codes from a phone, recovery codes and passkeys."""

    error_messages = DefaultMFAAdapter.error_messages | {
        "incorrect_code": lazy("That code is not correct. A new one appears every 30 seconds, and each works once."),
        "cannot_delete_authenticator": lazy("That address cannot be removed."),
    }

    def get_totp_issuer(self) -> str:
        """Return the name under which the phone lists the account."""
        return "Cloche"

    def generate_authenticator_name(self, user: Any, type: Any) -> str:  # noqa: A002 (allauth's name)
        """Return a name for an unnamed passkey."""
        return _("Passkey {number}").format(number=user.authenticator_set.filter(type=type).count() + 1)

    def get_public_key_credential_rp_entity(self) -> dict[str, str]:
        """Return the name of the site that a passkey belongs to."""
        return super().get_public_key_credential_rp_entity() | {"name": "Cloche"}
