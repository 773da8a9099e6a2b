"""Messages in a device's own words, over HTTP: where their values stand is told once."""

import json
from datetime import UTC, datetime
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows import devices
from cloche.apps.loggers.flows.take_in import Sent
from cloche.apps.loggers.mapped import WORDINGS, Shape, Unreadable, channel_in, check_pointer, check_topic, values_of
from cloche.apps.loggers.models import Device, LoggedReading, MessageMapping
from tests.factories import make_garden, make_person, make_place

AT = datetime(2026, 4, 22, 5, 30, tzinfo=UTC)


@pytest.fixture
def device(garden: Garden) -> tuple[Device, str]:
    device, token = devices.let_device_in(garden, "House", "C", None)
    devices.deploy(device, "bed", make_place(garden), 0.05)
    return device, token


# An Observation as the standard's part 1 shows it, from memory [SensorThings].
OBSERVATION = {"@iot.id": 7, "result": 9.5, "phenomenonTime": "2026-04-22T07:30:00+02:00", "Datastream": {"@iot.id": "bed"}}


@pytest.mark.parametrize(
    ("shape", "message", "topic", "read"),
    [
        (Shape(), "9.5", "", Sent("1", 9.5)),
        (Shape(), " 9.5 ", "bed", Sent("bed", 9.5)),
        (Shape("", "/temperature"), {"temperature": "9.5", "battery": 80}, "", Sent("1", 9.5)),
        (Shape("", "/soil/1/t", "", "/who"), {"who": "Bed Nº 3", "soil": [{}, {"t": -1}]}, "x", Sent("Bed-N-3", -1.0)),
        (WORDINGS["observation"], OBSERVATION, "", Sent("bed", 9.5, AT)),
        (WORDINGS["observations"], {"value": [OBSERVATION]}, "", Sent("bed", 9.5, AT)),
        (Shape("", "/t", "/at"), {"t": 9.5, "at": AT.timestamp()}, "", Sent("1", 9.5, AT)),
        (Shape("", "/t", "/at"), {"t": 9.5, "at": AT.timestamp() * 1000}, "", Sent("1", 9.5, AT)),
        (Shape("", "/t", "/at"), {"t": 9.5, "at": "2026-04-22T05:00:00Z/2026-04-22T06:00:00Z"}, "", Sent("1", 9.5, AT)),
        (Shape("", "/a~1b"), {"a/b": 3}, "", Sent("1", 3.0)),
    ],
)
def test_a_value_is_found_where_it_was_said_to_stand(shape: Shape, message: Any, topic: str, read: Sent) -> None:
    payload = message if isinstance(message, str) else json.dumps(message)
    assert values_of(shape, payload.encode(), topic) == [read]


@pytest.mark.parametrize(
    ("shape", "message", "why"),
    [
        (Shape("", "/t"), {}, "no value at /t"),
        (Shape("", "/t"), [1], "no value at /t"),
        (Shape("", "/t"), {"t": True}, "“True” is not a number"),
        (Shape("", "/t"), {"t": {"x": 1}}, "is not a number"),
        (Shape("", "/t"), {"t": "nan"}, "not a temperature"),
        (Shape("", "/t"), {"t": 1e300}, "not a temperature"),
        (Shape("", "/t", "/at"), {"t": 1, "at": "2026-04-22T07:30:00"}, "not a time with its UTC offset"),
        (Shape("", "/t", "/at"), {"t": 1, "at": 1e300}, "not a time"),
        (Shape("", "/t", "/at"), {"t": 1, "at": "/" * 900_000}, "not a time"),
        (Shape("/all", "/t"), {"all": {"t": 1}}, "no list"),
        (Shape("/all", "/t"), {"all": [{"t": 1}] * 20_001}, "At most"),
        (Shape(), "", "not valid JSON"),
        (Shape(), "{", "not valid JSON"),
        (Shape(), "wet", "“wet” is not a number"),
        (Shape(), "[" * 200, "deep"),
    ],
)
def test_what_cannot_be_read_says_why(shape: Shape, message: Any, why: str) -> None:
    payload = message if isinstance(message, str) else json.dumps(message)
    with pytest.raises(Unreadable, match=why):
        values_of(shape, payload.encode())


@pytest.mark.parametrize(
    ("topic", "pattern", "channel"),
    [
        ("home/bed/soil", "home/+/soil", "bed"),
        ("home/bed/soil", "home/bed/soil", ""),
        ("home/a/b c", "home/#", "a.b-c"),
        ("home/a/x/b", "home/+/x/+", "a.b"),
        ("home", "home/#", ""),
    ],
)
def test_a_topic_names_the_channel(topic: str, pattern: str, channel: str) -> None:
    assert channel_in(topic, pattern) == channel


def test_pointers_and_topics_are_looked_at_before_they_are_kept() -> None:
    assert check_pointer("temperature") == "/temperature"
    assert check_topic("home/+/soil") == "home/+/soil"
    with pytest.raises(ValueError, match="Enter the path"):
        check_pointer("/a~2b")
    for wrong in ("#", "+/x", "$SYS/x", "cloche/readings", "home/b+/x", "home/#/x", "home//x"):
        with pytest.raises(ValueError, match=r"Begin with a name|stands for one whole level"):
            check_topic(wrong)


def send(client: Client, token: str, address: str, message: Any) -> Any:
    heads = {"HTTP_AUTHORIZATION": f"Bearer {token}"}
    return client.post(f"/api/v1/{address}", json.dumps(message), content_type="application/json", **heads)


def test_over_http_it_is_read_as_told_and_new_channels_are_shown(
    client: Client, signed_in: Client, garden: Garden, device: tuple[Device, str]
) -> None:
    logger, token = device
    assert "has not been set up" in send(client, token, "messages", OBSERVATION).json()["detail"]
    page = reverse("own_messages", args=[garden.pk, logger.pk])
    answer = signed_in.post(page, {"value": "result", "at": "/phenomenonTime", "channel": "/Datastream/@iot.id"})
    assert answer.status_code == 302
    assert send(client, token, "messages", OBSERVATION).json()["kept"] == 1
    assert send(client, token, "messages", OBSERVATION).json()["known"] == 1
    shed = OBSERVATION | {"Datastream": {"@iot.id": "shed"}}
    assert send(client, token, "messages", shed).json() == {"kept": 0, "known": 0, "faulty": 0, "refused": []}
    assert send(client, token, "messages", {}).status_code == 400
    shown = signed_in.get(page).content.decode()
    assert "temperature at /result, time at /phenomenonTime" in shown
    assert "<b>shed</b>" in shown
    devices.deploy(logger, "shed", garden.places.get(), 0.05)
    assert "<b>shed</b>" not in signed_in.get(page).content.decode()
    assert send(client, token, "messages", shed).json()["kept"] == 1
    assert signed_in.post(reverse("forget_mapping", args=[garden.pk, logger.pk, logger.mappings.get().pk])).status_code == 302
    assert send(client, token, "messages", shed).status_code == 400
    assert LoggedReading.objects.count() == 2


def test_sensor_things_need_nothing_told(client: Client, device: tuple[Device, str]) -> None:
    answer = send(client, device[1], "sensorthings/Datastreams(bed)/Observations", OBSERVATION)
    assert (answer.status_code, answer.json()["kept"]) == (201, 1)
    assert LoggedReading.objects.get().at == AT
    assert send(client, device[1], "sensorthings/Datastreams(bed)/Observations", {"result": None}).status_code == 400
    other = send(client, device[1], "sensorthings/Datastreams(9)/Observations", OBSERVATION).json()["refused"]
    assert [fault["code"] for fault in other] == ["channel"]


def test_a_message_can_be_tried_before_anything_is_kept(signed_in: Client, garden: Garden, device: tuple[Device, str]) -> None:
    page = reverse("own_messages", args=[garden.pk, device[0].pk])
    typed = {"value": "/result", "at": "/phenomenonTime", "sample": json.dumps(OBSERVATION), "try": "1"}
    shown = signed_in.post(page, typed).content.decode().replace("\xa0", " ")
    assert "<li>channel 1: 9.5 °C, Wed 22 Apr, 07:30</li>" in shown
    wrong = signed_in.post(page, typed | {"value": "/temperature"})
    assert wrong.status_code == 422
    assert "There is no value at /temperature." in wrong.content.decode()
    assert "phenomenonTime" in wrong.content.decode()
    assert not MessageMapping.objects.exists()
    assert 'value="/Datastream/@iot.id"' in signed_in.get(f"{page}?as=observation").content.decode()


def test_topics_are_given_by_whoever_keeps_the_computer(
    signed_in: Client, garden: Garden, device: tuple[Device, str], settings: Any
) -> None:
    page = reverse("own_messages", args=[garden.pk, device[0].pk])
    assert 'name="topic"' not in signed_in.get(page).content.decode()
    settings.CLOCHE_MQTT_URL = "mqtt://127.0.0.1:1"
    assert 'name="topic"' in signed_in.get(page).content.decode()
    assert signed_in.post(page, {"topic": "home/#", "value": ""}).status_code == 302
    again = signed_in.post(page, {"topic": "home/#", "value": "/t"})
    assert "Remove that one first" in again.content.decode()
    assert "Begin with a name" in signed_in.post(page, {"topic": "cloche/x"}).content.decode()
    # Somebody with a garden of their own here, who keeps no computer: another's topics are not theirs to hear.
    hazel = make_person("hazel")
    plot = make_garden(hazel, "Their plot")
    other, _token = devices.let_device_in(plot, "Shed", "C", None)
    signed_in.force_login(hazel, backend="allauth.account.auth_backends.AuthenticationBackend")
    page = reverse("own_messages", args=[plot.pk, other.pk])
    assert 'name="topic"' not in signed_in.get(page).content.decode()
    signed_in.post(page, {"topic": "home/#", "value": "/t"})
    assert [mapping.topic for mapping in other.mappings.all()] == [""]


@pytest.mark.parametrize("theirs", ["home/#", "home/bed/soil", "home/+/soil", "home"])
def test_a_topic_belongs_to_the_garden_that_listened_to_it_first(
    signed_in: Client, garden: Garden, device: tuple[Device, str], settings: Any, theirs: str
) -> None:
    """Somebody who keeps this computer has a second garden: it hears nothing of the first one's probes."""
    from cloche.apps.loggers.flows import devices

    settings.CLOCHE_MQTT_URL = "mqtt://127.0.0.1:1"
    device[0].mappings.create(topic="home/+/soil")
    plot = make_garden(garden.people.get(), "Plot")
    other, _token = devices.let_device_in(plot, "Shed", "C", None)
    page = reverse("own_messages", args=[plot.pk, other.pk])
    refused = signed_in.post(page, {"topic": theirs, "value": "/t"})
    assert refused.status_code == 422
    assert "topics that begin with home/" in refused.content.decode()
    assert not other.mappings.exists()
    # As an archive or an earlier release may have left it.
    other.mappings.create(topic="home/#")
    assert {mapping.device for mapping in devices.mappings_for("home/bed/soil")} == {device[0]}
    assert signed_in.post(page, {"topic": "shed/#", "value": "/t"}).status_code == 302


def test_a_device_that_is_shut_out_is_not_listened_to(device: tuple[Device, str], garden: Garden) -> None:
    from cloche.apps.loggers.flows import devices

    device[0].mappings.create(topic="home/+/soil")
    assert devices.topics() == {"home/+/soil"}
    assert [mapping.device for mapping in devices.mappings_for("home/x/soil")] == [device[0]]
    assert devices.mappings_for("home/x/y/soil") == []
    devices.shut_out(device[0])
    assert devices.topics() == set()
    assert devices.mappings_for("home/x/soil") == []
