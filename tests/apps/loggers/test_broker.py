"""The same words through a real broker: Debian's mosquitto, a subscriber that is away for a while, a simulated probe."""

import json
import shutil
import socket
import subprocess
import time
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

import paho.mqtt.publish as publish
import pytest

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows import devices
from cloche.apps.loggers.listening import NotTaken, heard, listener
from cloche.apps.loggers.models import Device, LoggedReading, RefusedMessage
from cloche.demo.probe import ByMqtt, SimulatedProbe
from cloche.supervisor.ports import free_port
from tests.conftest import NOW
from tests.factories import make_place

MOSQUITTO = shutil.which("mosquitto", path="/usr/sbin:/usr/bin") or "/usr/sbin/mosquitto"


@pytest.fixture
def token(garden: Garden) -> str:
    device, token = devices.let_device_in(garden, "Bed logger", "C", None)
    devices.deploy(device, "1", make_place(garden), 0.05)
    return token


@pytest.fixture
def broker(tmp_path: Path) -> Iterator[str]:
    port = free_port()
    given = tmp_path / "mosquitto.conf"
    given.write_text(f"listener {port} 127.0.0.1\nallow_anonymous true\npersistence false\n")
    running = subprocess.Popen([MOSQUITTO, "-c", str(given)], stderr=subprocess.DEVNULL)  # noqa: S603
    for _ in range(100):
        with socket.socket() as query:
            if query.connect_ex(("127.0.0.1", port)) == 0:
                break
        time.sleep(0.05)
    yield f"mqtt://127.0.0.1:{port}"
    running.terminate()
    running.wait(10)


def until(true: Any) -> None:
    for _ in range(200):
        if true():
            return
        time.sleep(0.05)
    raise AssertionError("it never came")


@pytest.mark.django_db(transaction=True)
def test_a_probe_is_heard_through_the_broker_once_though_the_listener_was_away(broker: str, token: str) -> None:
    probe = SimulatedProbe(every=timedelta(minutes=10), faults=0.1, seed=4)
    count = probe.measure(NOW - timedelta(hours=10), NOW)
    way = ByMqtt(broker, token)
    client = listener(broker)
    client.loop_start()
    until(client.is_connected)
    time.sleep(0.3)
    assert way({"readings": probe.waiting[:20], "sent_at": NOW.isoformat()})
    until(lambda: LoggedReading.objects.count() == 20)
    client.disconnect()
    client.loop_stop()
    # The listener is away; the broker keeps what comes, and what was sent already comes again.
    assert probe.send(way, NOW, batch=20)
    assert LoggedReading.objects.count() == 20
    client = listener(broker)
    client.loop_start()
    until(lambda: LoggedReading.objects.count() == count)
    client.disconnect()
    client.loop_stop()
    way.close()
    assert LoggedReading.objects.filter(fault__gt=0).exists()
    assert Device.objects.get().heard_at == NOW


@pytest.mark.django_db(transaction=True)
def test_topics_of_devices_that_know_nothing_of_us_are_listened_to_once_they_are_told(broker: str, garden: Garden) -> None:
    device, _token = devices.let_device_in(garden, "House", "C", None)
    devices.deploy(device, "bed-2", make_place(garden), 0.05)
    client = listener(broker)
    client.loop_start()
    until(client.is_connected)
    mapping = device.mappings.create(topic="home/+/soil", value="/temperature", at="/time")
    client.user_data_get().begin(client)
    time.sleep(0.3)
    said = [("home/bed 2/soil", 9.5), ("home/kitchen/soil", 21), ("home/bed 2/soil", "unavailable"), ("home/bed 2/door", 3)]
    for topic, value in said:
        publish.single(topic, json.dumps({"temperature": value, "time": NOW.isoformat()}), qos=1, port=port_of(broker))
    until(lambda: RefusedMessage.objects.count() == 1)
    assert list(LoggedReading.objects.values_list("temperature_c", "at")) == [(9.5, NOW)]
    mapping.refresh_from_db()
    assert mapping.unplaced == ["kitchen"]
    refused = RefusedMessage.objects.get()
    assert (refused.device, refused.garden) == (device, garden)
    assert refused.reason == "home/bed 2/soil: “unavailable” is not a number."
    mapping.delete()
    client.user_data_get().looked = -1e9
    client.user_data_get().keep(client)
    assert client.user_data_get().now == set()
    client.disconnect()
    client.loop_stop()


@pytest.mark.django_db(transaction=True)
def test_what_a_broker_only_repeats_is_new_only_with_a_time_of_its_own(broker: str, garden: Garden) -> None:
    device, _token = devices.let_device_in(garden, "House", "C", None)
    devices.deploy(device, "1", make_place(garden), 0.05)
    device.mappings.create(topic="shed/soil")
    device.mappings.create(topic="shed/timed", value="/t", at="/at")
    publish.single("shed/soil", "8.5", qos=1, retain=True, port=port_of(broker))
    timed = json.dumps({"t": 7.5, "at": (NOW - timedelta(hours=1)).isoformat()})
    publish.single("shed/timed", timed, qos=1, retain=True, port=port_of(broker))
    client = listener(broker)
    client.loop_start()
    until(lambda: LoggedReading.objects.exists())
    publish.single("shed/soil", "9.5", qos=1, port=port_of(broker))
    until(lambda: LoggedReading.objects.count() == 2)
    client.disconnect()
    client.loop_stop()
    assert set(LoggedReading.objects.values_list("temperature_c", flat=True)) == {7.5, 9.5}


def port_of(broker: str) -> int:
    return int(broker.rpartition(":")[2])


def test_words_are_the_same_as_over_http(token: str) -> None:
    device, taken = heard(json.dumps({"token": token, "readings": [{"temperature": 9.5}]}).encode())
    assert (device.name, taken.kept) == ("Bed logger", 1)


@pytest.mark.parametrize(
    "payload", [b"", b"[]", b"{}", b'{"token": 1, "readings": 2}', b"\xff", b'{"token": "x", "readings": []}']
)
def test_what_cannot_be_taken_is_no_reason_to_stop(db: None, payload: bytes) -> None:
    with pytest.raises(NotTaken):
        heard(payload)
