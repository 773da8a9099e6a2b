"""Loggers and their tokens; messages mapped onto probes, and those put aside."""

from __future__ import annotations

import re
from datetime import timedelta

from django.db import transaction
from django.db.models import Q, QuerySet
from paho.mqtt.client import topic_matches_sub

from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.flows.take_in import Taken, take_in
from cloche.apps.loggers.mapped import Shape, channel_in, values_of
from cloche.apps.loggers.models import Device, MessageMapping, Probe, RefusedMessage
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place, Room
from cloche.apps.shared import clock
from cloche.apps.shared.http import fingerprint, new_token
from cloche.apps.work import turns
from cloche.bridge.values import border


def let_device_in(garden: Garden, name: str, unit: str, person: User | None) -> tuple[Device, str]:
    """Create a device and return it with its token, which is shown only now."""
    token = new_token()
    device = Device.objects.create(
        garden=garden, name=name, unit=unit, fingerprint=fingerprint(token), made_by=person, made_at=clock.now()
    )
    return device, token


def renew_token(device: Device) -> str:
    """Replace the token and invalidate the old one. A revoked device gains access again."""
    token = new_token()
    device.fingerprint, device.revoked_at = fingerprint(token), None
    device.save(update_fields=["fingerprint", "revoked_at"])
    return token


def shut_out(device: Device) -> None:
    """Revoke the token of a device; its readings remain."""
    device.revoked_at = clock.now()
    device.save(update_fields=["revoked_at"])


@transaction.atomic
def deploy(device: Device, channel: str, where: Place | Room, depth_m: float = 0.0, in_air: bool = False) -> Probe:
    """Set where a channel measures. Earlier values stay with the place where it was then."""
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
    """End the use of a channel; its readings remain."""
    if probe.last_at is None:
        probe.delete()
        return
    probe.until = clock.now()
    probe.save(update_fields=["until"])
    for place in probe.feeling:
        note_change_at(place)


MOST_UNPLACED, MOST_MAPPINGS = 40, 20
"""Channels of which it is shown that they came, and ways in which one device's messages are read."""


def shape_of(mapping: MessageMapping) -> Shape:
    """Where things stand in its messages."""
    return Shape(mapping.each, mapping.value, mapping.at, mapping.channel)


def topics() -> set[str]:
    """Return all topics to subscribe to."""
    return set(_let_in().exclude(topic="").values_list("topic", flat=True))


def mappings_for(topic: str) -> list[MessageMapping]:
    """Return the mappings whose topic matches that of a message."""
    mappings = _let_in().exclude(topic="").select_related("device__garden").order_by("pk")
    # Whoever was first to listen below a name has it; another garden's mapping of it, from an archive say, hears nothing.
    owner = next((mapping.device.garden_id for mapping in mappings if root_of(mapping.topic) == root_of(topic)), None)
    return [mapping for mapping in mappings if mapping.device.garden_id == owner and topic_matches_sub(mapping.topic, topic)]


def root_of(topic: str) -> str:
    """Return the first level of a topic, which belongs to one garden."""
    return topic.partition("/")[0]


def belongs_elsewhere(topic: str, garden: Garden) -> bool:
    """Return whether another garden was the first to use topics with the same first level."""
    first = _let_in().filter(Q(topic=root_of(topic)) | Q(topic__startswith=f"{root_of(topic)}/")).order_by("pk").first()
    return first is not None and first.device.garden_id != garden.pk


def mapping_over_http(device: Device) -> MessageMapping | None:
    """Return the mapping of a device for messages over HTTP."""
    return device.mappings.filter(topic="").first()


def _let_in() -> QuerySet[MessageMapping]:
    return MessageMapping.objects.filter(device__revoked_at__isnull=True)


def take_message(mapping: MessageMapping, payload: bytes, topic: str = "") -> Taken:
    """Store the values of a message. Raises Unreadable.

    A channel without a place is remembered so that one can be set; not everything on a broker concerns the garden.
    """
    named = channel_in(topic, mapping.topic) if mapping.topic else ""
    sent = values_of(shape_of(mapping), payload, named)
    taken = take_in(mapping.device, sent)
    strangers = {sent[refusal.index].channel for refusal in taken.refused if refusal.code == "channel"}
    fresh = sorted(strangers - set(mapping.unplaced))
    if fresh and len(mapping.unplaced) < MOST_UNPLACED:
        mapping.unplaced = [*mapping.unplaced, *fresh][:MOST_UNPLACED]
        mapping.save(update_fields=["unplaced"])
    return Taken(taken.kept, taken.known, taken.faulty, [refusal for refusal in taken.refused if refusal.code != "channel"])


TOKEN = re.compile(r'"token"\s*:\s*"[^"]*"?')
KEPT, MOST_ROWS = timedelta(days=30), 1_000


@transaction.atomic
def keep_aside(payload: bytes, reason: str, device: Device | None) -> RefusedMessage:
    """Store a refused message with its reason. Of an unknown sender, only that it came is stored."""
    sample = TOKEN.sub('"token": "…"', payload[:1200].decode("utf-8", "replace"))
    sample = border.one_line(sample)[:400] if device else ""
    garden = device.garden if device else None
    return RefusedMessage.objects.create(
        garden=garden, device=device, at=turns.database_now(), reason=border.one_line(reason)[:300], sample=sample
    )


def prune_aside() -> int:
    """Delete refused messages older than a month and the oldest beyond a limit."""
    old, _ = RefusedMessage.objects.filter(at__lt=turns.database_now() - KEPT).delete()
    beyond = list(RefusedMessage.objects.order_by("-at").values_list("pk", flat=True)[MOST_ROWS:])
    more, _ = RefusedMessage.objects.filter(pk__in=beyond).delete()
    return old + more
