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
    """A secret for one person, good for a fortnight; it can be shown only now. Raises ValidationError where it is full."""
    token, now = new_token(), clock.now()
    waiting = garden.invitations.filter(used_at__isnull=True, ends_at__gt=now).count()
    refuse_beyond("people", garden.memberships.count() + waiting + 1)
    Invitation.objects.create(
        garden=garden, role=role, fingerprint=fingerprint(token), made_by=person, made_at=now, ends_at=now + GOOD_FOR
    )
    return token


def invitation_of(token: str) -> Invitation | None:
    """The invitation behind a secret, while it is good."""
    open_ones = Invitation.objects.filter(used_at__isnull=True, ends_at__gt=clock.now()).select_related("garden", "made_by")
    return open_ones.filter(fingerprint=fingerprint(token)).first()


@transaction.atomic
def join(invitation: Invitation, who: Callable[[], User]) -> Membership | None:
    """Use an invitation up; None where somebody was quicker, and then nobody is asked who they are.

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
    """End an invitation that was not used; returns whether there was one."""
    gone, _ = garden.invitations.filter(pk=invitation_id, used_at__isnull=True).delete()
    return bool(gone)


@transaction.atomic
def give_role(garden: Garden, user_id: int, role: str) -> bool:
    """Give somebody another role; the last owner stays owner, whoever else is changed at the same moment. Returns whether it
    was done."""
    owners = _owners_held(garden)
    membership = garden.memberships.filter(user_id=user_id).first()
    if membership is None or (role != Membership.Role.OWNER and owners == [membership.pk]):
        return False
    membership.role = role
    membership.save(update_fields=["role"])
    return True


def _owners_held(garden: Garden) -> list[int]:
    """The owners' memberships; nobody else changes anybody's role until this transaction ends."""
    Garden.objects.select_for_update().only("pk").get(pk=garden.pk)
    return list(garden.memberships.filter(role=Membership.Role.OWNER).values_list("pk", flat=True))


@transaction.atomic
def show_out(garden: Garden, user_id: int) -> bool:
    """Take a person out of the garden. The last owner stays; returns whether it was done."""
    membership = garden.memberships.select_for_update().filter(user_id=user_id).first()
    if membership is None or membership.role == Membership.Role.OWNER:
        return False
    membership.delete()
    return True


@transaction.atomic
def hand_over(garden: Garden, giver: User, user_id: int, role: str) -> bool:
    """Make somebody else of the garden its owner; the giver goes on with another role, or leaves where that is empty. Returns
    whether it was done."""
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
    """Go of one's own will. The last owner stays; returns whether it was done."""
    owners = _owners_held(garden)
    membership = garden.memberships.filter(user=person).first()
    if membership is None or owners == [membership.pk]:
        return False
    membership.delete()
    return True


@transaction.atomic
def found_garden(garden: Garden, owner: User) -> Garden:
    """Save a new garden and make its founder the owner."""
    garden.save()
    Membership.objects.create(garden=garden, user=owner, role=Membership.Role.OWNER)
    return garden


@transaction.atomic
def change_site(garden: Garden) -> Garden:
    """Save a changed site; all its forecasts rest on it."""
    garden.save()
    site_changed.send(Garden, garden=garden)
    return garden
