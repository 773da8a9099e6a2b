"""Numbers for programs that watch, read by the library's own parser."""

import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError
from prometheus_client import generate_latest
from prometheus_client.parser import text_string_to_metric_families

from cloche.apps.gardens.models import Garden
from cloche.apps.upkeep import health
from cloche.apps.upkeep.health import registry


def numbers(folder: str = "") -> dict[str, dict[tuple[str, ...], float]]:
    text = generate_latest(registry(folder)).decode()
    return {
        family.name: {tuple(value for _name, value in sorted(sample.labels.items())): sample.value for sample in family.samples}
        for family in text_string_to_metric_families(text)
    }


def test_what_is_well_and_how_much_there_is(garden: Garden) -> None:
    values = numbers()
    assert values["cloche_well"]["database",] == 1.0
    assert values["cloche_well"]["workers",] == 0.0, "no worker runs in this test"
    assert values["cloche_gardens"][()] == 1.0
    assert values["cloche_disk_free_megabytes"][()] > 0
    assert all(name.startswith("cloche_") for name in values)


def test_without_a_database_it_says_so(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    def away() -> Any:
        raise OperationalError("away")

    monkeypatch.setattr(health, "_database", away)
    values = numbers()
    assert values["cloche_well"]["database",] == 0.0
    assert "cloche_gardens" not in values


COUNT = """
import django; django.setup()
from cloche.apps.shared import words
for status in (200, 200, 404):
    words.answered("GET", "today", status, 0.07)
words.answered("BREW", "", 405, 0.2)
"""


def test_requests_of_several_processes_are_counted_together(tmp_path: Path, garden: Garden) -> None:
    env = os.environ | {"PROMETHEUS_MULTIPROC_DIR": str(tmp_path), "CLOCHE_METRICS_PORT": "9464"}
    for _ in range(2):
        subprocess.run([sys.executable, "-c", COUNT], env=env, check=True)  # noqa: S603
    values = numbers(str(tmp_path))
    requests = {labels: value for labels, value in values["cloche_requests"].items() if len(labels) == 3}
    assert requests == {("GET", "today", "200"): 4.0, ("GET", "today", "404"): 2.0, ("other", "none", "405"): 2.0}
    assert values["cloche_request_seconds"]["0.1", "today"] == 6.0
    assert values["cloche_request_seconds"]["0.05", "today"] == 0.0
