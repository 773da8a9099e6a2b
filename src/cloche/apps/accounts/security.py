"""What concerns safety is written into the log, by number and address, never by secret: who came in, who was kept out, whose
account or role was changed."""

from __future__ import annotations

import logging
from typing import Any

from allauth.account import signals as account
from allauth.mfa import signals as mfa
from axes.signals import user_locked_out
from django.contrib.auth import signals as auth
from django.db.models.signals import post_delete, post_save
from django.dispatch import receiver
from django.http import HttpRequest

from cloche.apps.gardens.models import Invitation, Membership

log = logging.getLogger("cloche.security")


def note(event: str, request: HttpRequest | None = None, **facts: Any) -> None:
    """Log one security event as a sentence and as fields."""
    known = {"event": event, **facts}
    if request is not None:
        known["address"] = str(request.META.get("REMOTE_ADDR", ""))
    log.info("%s %s", event, " ".join(f"{key}={value}" for key, value in known.items() if key != "event"), extra=known)


@receiver(auth.user_logged_in, dispatch_uid="security-in")
def came_in(request: HttpRequest, user: Any, **kwargs: Any) -> None:
    """Log a sign-in."""
    note("signed_in", request, person=user.pk)


@receiver(auth.user_logged_out, dispatch_uid="security-out")
def went(request: HttpRequest, user: Any, **kwargs: Any) -> None:
    """Log a sign-out."""
    note("signed_out", request, person=user.pk if user is not None else None)


@receiver(auth.user_login_failed, dispatch_uid="security-failed")
def kept_out(request: HttpRequest | None = None, **kwargs: Any) -> None:
    """Log a failed sign-in without the name, which may be a password typed into the wrong field."""
    note("sign_in_failed", request)


@receiver(user_locked_out, dispatch_uid="security-locked")
def locked_out(request: HttpRequest, **kwargs: Any) -> None:
    """Log too many attempts."""
    note("locked_out", request)


@receiver(mfa.authentication_failed, dispatch_uid="security-second-failed")
def second_failed(request: HttpRequest, user: Any, **kwargs: Any) -> None:
    """Log a wrong second factor after a correct password."""
    note("second_step_failed", request, person=user.pk)


def _account(event: str) -> Any:
    def heard(request: HttpRequest, user: Any = None, **kwargs: Any) -> None:
        address = kwargs.get("email_address")
        note(event, request, person=user.pk if user is not None else address.user_id if address is not None else None)

    return heard


for signal, event in (
    (account.password_changed, "password_changed"),
    (account.password_reset, "password_reset"),
    (account.email_confirmed, "address_confirmed"),
    (account.email_changed, "address_changed"),
    (account.email_removed, "address_removed"),
    (mfa.authenticator_added, "second_step_added"),
    (mfa.authenticator_removed, "second_step_removed"),
    (mfa.authenticator_reset, "spare_codes_made"),
):
    signal.connect(_account(event), weak=False, dispatch_uid=f"security-{event}")


@receiver(post_save, sender=Membership, dispatch_uid="security-role")
def role_given(instance: Membership, **kwargs: Any) -> None:
    """Log a change of role."""
    note("role", person=instance.user_id, garden=instance.garden_id, role=instance.role)


@receiver(post_delete, sender=Membership, dispatch_uid="security-left")
def role_taken(instance: Membership, **kwargs: Any) -> None:
    """Log the end of a membership."""
    note("left", person=instance.user_id, garden=instance.garden_id)


@receiver(post_save, sender=Invitation, dispatch_uid="security-invited")
def invited(instance: Invitation, created: bool, **kwargs: Any) -> None:
    """Log a new invitation, which is valid for two weeks."""
    if created:
        note("invited", person=instance.made_by_id, garden=instance.garden_id, role=instance.role)
