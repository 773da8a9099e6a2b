"""Changes to packets and to how a garden grows a crop."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_in
from cloche.apps.seed.models import CropChoice, Packet
from cloche.apps.seed.selectors import _current
from cloche.apps.shared import clock


@transaction.atomic
def keep(packet: Packet) -> Packet:
    """Save a packet; choosing one as in use replaces the packet that was in use."""
    others = _current(packet.garden).filter(crop_key=packet.crop_key).exclude(pk=packet.pk)
    if packet.in_use:
        others.update(in_use=False)
    packet.save()
    note_change_in(packet.garden)
    return packet


@transaction.atomic
def remove(packet: Packet) -> None:
    """Remove a packet; the next one comes into use."""
    Packet.objects.filter(pk=packet.pk).update(removed_at=clock.now(), in_use=False)
    if packet.in_use and (following := _current(packet.garden).filter(crop_key=packet.crop_key).first()):
        Packet.objects.filter(pk=following.pk).update(in_use=True)
    note_change_in(packet.garden)


@transaction.atomic
def put_back(packet: Packet) -> None:
    """Restore a packet; it comes into use only if it is the only one."""
    alone = not _current(packet.garden).filter(crop_key=packet.crop_key, in_use=True).exists()
    Packet.objects.filter(pk=packet.pk).update(removed_at=None, in_use=alone)
    note_change_in(packet.garden)


@transaction.atomic
def choose(garden: Garden, crop_key: str, sowing_rule: str, method: str) -> None:
    """Save how the garden grows a crop; an empty choice restores the garden's default."""
    mine = CropChoice.objects.filter(garden=garden, crop_key=crop_key)
    before = mine.values_list("sowing_rule", "method").first() or ("", "")
    mine.delete()
    if sowing_rule or method:
        CropChoice.objects.create(garden=garden, crop_key=crop_key, sowing_rule=sowing_rule, method=method)
    if (sowing_rule, method) != before:
        note_change_in(garden)
