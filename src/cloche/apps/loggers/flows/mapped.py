"""Taking in messages in a device's own words."""

from __future__ import annotations

from django.db.models import Q, QuerySet
from paho.mqtt.client import topic_matches_sub

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows.take_in import Taken, take_in
from cloche.apps.loggers.mapped import Shape, channel_in, values_of
from cloche.apps.loggers.models import Device, MessageMapping

MOST_UNPLACED, MOST_MAPPINGS = 40, 20
"""Channels of which it is shown that they came, and ways in which one device's messages are read."""


def shape_of(mapping: MessageMapping) -> Shape:
    """Where things stand in its messages."""
    return Shape(mapping.each, mapping.value, mapping.at, mapping.channel)


def topics() -> set[str]:
    """All that is to be listened to."""
    return set(_let_in().exclude(topic="").values_list("topic", flat=True))


def mappings_for(topic: str) -> list[MessageMapping]:
    """Those whose topic a message has."""
    mappings = _let_in().exclude(topic="").select_related("device__garden").order_by("pk")
    # Whoever was first to listen below a name has it; another garden's mapping of it, from an archive say, hears nothing.
    owner = next((mapping.device.garden_id for mapping in mappings if root_of(mapping.topic) == root_of(topic)), None)
    return [mapping for mapping in mappings if mapping.device.garden_id == owner and topic_matches_sub(mapping.topic, topic)]


def root_of(topic: str) -> str:
    """Return the first level of a topic. It belongs to one garden."""
    return topic.partition("/")[0]


def belongs_elsewhere(topic: str, garden: Garden) -> bool:
    """Whether another garden was first to listen to topics that begin with the same name."""
    first = _let_in().filter(Q(topic=root_of(topic)) | Q(topic__startswith=f"{root_of(topic)}/")).order_by("pk").first()
    return first is not None and first.device.garden_id != garden.pk


def mapping_over_http(device: Device) -> MessageMapping | None:
    """How a device's messages over HTTP read."""
    return device.mappings.filter(topic="").first()


def _let_in() -> QuerySet[MessageMapping]:
    return MessageMapping.objects.filter(device__revoked_at__isnull=True)


def take_message(mapping: MessageMapping, payload: bytes, topic: str = "") -> Taken:
    """Keep the values of a message; raises Unreadable. A channel without a place is remembered, to be given one: of all that a
    broker carries, some are of no concern to the garden."""
    named = channel_in(topic, mapping.topic) if mapping.topic else ""
    sent = values_of(shape_of(mapping), payload, named)
    taken = take_in(mapping.device, sent)
    strangers = {sent[refusal.index].channel for refusal in taken.refused if refusal.code == "channel"}
    fresh = sorted(strangers - set(mapping.unplaced))
    if fresh and len(mapping.unplaced) < MOST_UNPLACED:
        mapping.unplaced = [*mapping.unplaced, *fresh][:MOST_UNPLACED]
        mapping.save(update_fields=["unplaced"])
    return Taken(taken.kept, taken.known, taken.faulty, [refusal for refusal in taken.refused if refusal.code != "channel"])
