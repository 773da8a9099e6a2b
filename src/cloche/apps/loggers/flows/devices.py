"""Letting a device in, saying where its probes stick, shutting it out."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.models import Device, Probe
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place, Room
from cloche.apps.shared import clock
from cloche.apps.shared.tokens import fingerprint, new_token


def let_device_in(garden: Garden, name: str, unit: str, person: User | None) -> tuple[Device, str]:
    """A new device and its token, which can be shown only now."""
    token = new_token()
    device = Device.objects.create(
        garden=garden, name=name, unit=unit, fingerprint=fingerprint(token), made_by=person, made_at=clock.now()
    )
    return device, token


def renew_token(device: Device) -> str:
    """Another token; the old one ends at once. A device that was shut out is let in again."""
    token = new_token()
    device.fingerprint, device.revoked_at = fingerprint(token), None
    device.save(update_fields=["fingerprint", "revoked_at"])
    return token


def shut_out(device: Device) -> None:
    """Its token ends at once; what it sent stays."""
    device.revoked_at = clock.now()
    device.save(update_fields=["revoked_at"])


@transaction.atomic
def deploy(device: Device, channel: str, where: Place | Room, depth_m: float = 0.0, in_air: bool = False) -> Probe:
    """Say where a channel sticks, or in whose air it hangs. Moved, what it sent before stays with the place where it stuck
    then."""
    now, to = clock.now(), {"place": where, "room": None, "depth_m": depth_m, "in_air": in_air}
    if isinstance(where, Room):
        to = {"place": None, "room": where, "depth_m": 0.0, "in_air": True}
    old = device.probes.filter(channel=channel, until__isnull=True).first()
    if old is not None and all(getattr(old, name) == value for name, value in to.items()):
        return old
    if old is not None and old.last_at is None:
        for name, value in to.items():  # nothing was sent from there: it was a slip
            setattr(old, name, value)
        old.save(update_fields=list(to))
        return old
    if old is not None:
        old.until = now
        old.save(update_fields=["until"])
    return Probe.objects.create(device=device, channel=channel, since=now if old else None, **to)


@transaction.atomic
def retrieve(probe: Probe) -> None:
    """The channel measures nothing any more; what it sent stays."""
    if probe.last_at is None:
        probe.delete()
        return
    probe.until = clock.now()
    probe.save(update_fields=["until"])
    for place in probe.feeling:
        note_change_at(place)
