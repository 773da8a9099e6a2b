"""What people do to a garden: invite, leave, hand over, and say where it lies."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta

from django.db import transaction

from cloche.apps.gardens.models import Garden, Invitation, Membership, User
from cloche.apps.gardens.signals import site_changed
from cloche.apps.shared import clock
from cloche.apps.shared.http import fingerprint, new_token
from cloche.apps.shared.quota import refuse_beyond

GOOD_FOR = timedelta(days=14)


def invite(garden: Garden, role: str, person: User) -> str:
    """Return the secret of a new invitation, valid for two weeks and shown only once. Raises ValidationError if full."""
    token, now = new_token(), clock.now()
    waiting = garden.invitations.filter(used_at__isnull=True, ends_at__gt=now).count()
    refuse_beyond("people", garden.memberships.count() + waiting + 1)
    Invitation.objects.create(
        garden=garden, role=role, fingerprint=fingerprint(token), made_by=person, made_at=now, ends_at=now + GOOD_FOR
    )
    return token


def invitation_of(token: str) -> Invitation | None:
    """Return the invitation of a secret while it is valid."""
    open_ones = Invitation.objects.filter(used_at__isnull=True, ends_at__gt=clock.now()).select_related("garden", "made_by")
    return open_ones.filter(fingerprint=fingerprint(token)).first()


@transaction.atomic
def join(invitation: Invitation, who: Callable[[], User]) -> Membership | None:
    """Accept an invitation, None if someone else was faster. Nobody is asked to identify themselves in that case.

    who: says who comes, or makes their account. Who belongs already keeps the role they have.
    """
    good = Invitation.objects.select_for_update().filter(pk=invitation.pk, used_at__isnull=True).first()
    if good is None:
        return None
    person = who()
    good.used_at, good.used_by = clock.now(), person
    good.save(update_fields=["used_at", "used_by"])
    membership, _ = Membership.objects.get_or_create(garden=invitation.garden, user=person, defaults={"role": invitation.role})
    return membership


def withdraw(garden: Garden, invitation_id: int) -> bool:
    """End an unused invitation and return whether there was one."""
    gone, _ = garden.invitations.filter(pk=invitation_id, used_at__isnull=True).delete()
    return bool(gone)


@transaction.atomic
def give_role(garden: Garden, user_id: int, role: str) -> bool:
    """Change a role and return whether that was possible. The last owner stays owner, even with concurrent changes."""
    owners = _owners_held(garden)
    membership = garden.memberships.filter(user_id=user_id).first()
    if membership is None or (role != Membership.Role.OWNER and owners == [membership.pk]):
        return False
    membership.role = role
    membership.save(update_fields=["role"])
    return True


def _owners_held(garden: Garden) -> list[int]:
    """Lock the owners' memberships so that nobody else changes a role until the transaction ends."""
    Garden.objects.select_for_update().only("pk").get(pk=garden.pk)
    return list(garden.memberships.filter(role=Membership.Role.OWNER).values_list("pk", flat=True))


@transaction.atomic
def show_out(garden: Garden, user_id: int) -> bool:
    """Remove a person and return whether that was possible. The last owner stays."""
    membership = garden.memberships.select_for_update().filter(user_id=user_id).first()
    if membership is None or membership.role == Membership.Role.OWNER:
        return False
    membership.delete()
    return True


@transaction.atomic
def hand_over(garden: Garden, giver: User, user_id: int, role: str) -> bool:
    """Make another member the owner and return whether that was possible.

    The giver continues with another role, or leaves if it is empty.
    """
    owners = _owners_held(garden)
    mine, theirs = (garden.memberships.filter(user_id=pk).first() for pk in (giver.pk, user_id))
    if mine is None or theirs is None or mine.pk == theirs.pk or mine.pk not in owners:
        return False
    theirs.role = Membership.Role.OWNER
    theirs.save(update_fields=["role"])
    if role:
        mine.role = role
        mine.save(update_fields=["role"])
    else:
        mine.delete()
    return True


@transaction.atomic
def leave(garden: Garden, person: User) -> bool:
    """Leave the garden and return whether that was possible. The last owner stays."""
    owners = _owners_held(garden)
    membership = garden.memberships.filter(user=person).first()
    if membership is None or owners == [membership.pk]:
        return False
    membership.delete()
    return True


@transaction.atomic
def found_garden(garden: Garden, owner: User) -> Garden:
    """Save a new garden with its founder as owner."""
    garden.save()
    Membership.objects.create(garden=garden, user=owner, role=Membership.Role.OWNER)
    return garden


@transaction.atomic
def change_site(garden: Garden) -> Garden:
    """Save a changed site, on which all forecasts of the garden depend."""
    garden.save()
    site_changed.send(Garden, garden=garden)
    return garden
