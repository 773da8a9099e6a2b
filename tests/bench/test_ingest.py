"""Devices at once on the real server, which is killed in the middle: nothing lost, nothing doubled."""

import pytest
from django.db import connection

from bench.ingest import Server, storm


@pytest.mark.django_db(transaction=True)
def test_a_server_killed_while_devices_send_loses_and_doubles_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("CLOCHE_DB_NAME", str(connection.settings_dict["NAME"]))
    monkeypatch.setenv("DJANGO_SETTINGS_MODULE", "cloche.config.settings.test")
    monkeypatch.setenv("PYTHONPATH", "src")
    server = Server()
    try:
        _, lost, wrong = storm(server, devices=20, each=200)
    finally:
        server.kill()
    assert (lost, wrong) == (0, 0)
