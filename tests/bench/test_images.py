"""The images' bench: each service of the compose file gets all that it asks for, and its own command."""

import os
import re
from pathlib import Path

import pytest
import yaml

from bench.images import DEPLOY, Engine, Failed, Services


class Noted(Engine):
    """Keeps what it is told to do."""

    def __init__(self, place: Path) -> None:
        super().__init__(place)
        self.done: list[list[str]] = []

    def run(self, *words: str) -> str:
        self.done.append(list(words))
        return str(os.getuid())


@pytest.fixture
def services(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Services:
    monkeypatch.setattr(os, "chown", lambda *_: None)
    return Services(Noted(tmp_path))


def test_every_service_is_told_what_it_cannot_do_without(services: Services) -> None:
    compose = yaml.safe_load((DEPLOY / "compose.yaml").read_text())["services"]
    for name, service in compose.items():
        services.run(name)
        words = services.engine.done[-1]  # type: ignore[attr-defined]
        said = dict(word.removeprefix("--env=").split("=", 1) for word in words if word.startswith("--env="))
        needs = re.findall(r"\$\{(\w+):\?\}", str(service["environment"]))
        assert needs
        assert all(said[key] for key in needs), name
        assert not any("${" in value for value in said.values())
        assert words[words.index(service["image"]) + 1 :][:1] == service.get("command", [])[:1]


def test_the_web_listens_where_it_is_looked_for(services: Services) -> None:
    services.run("web")
    assert services.engine.done[-1][-1] == f"127.0.0.1:{services.web}"  # type: ignore[attr-defined]


def test_containers_may_open_as_much_as_the_services_of_systemd(services: Services) -> None:
    part = (DEPLOY.parent / "scripts" / "units" / "hardening.part").read_text()
    (most,) = re.findall(r"^LimitNOFILE=(\d+)$", part, re.MULTILINE)
    services.run("worker", "--detach")
    assert f"--ulimit=nofile={most}:{most}" in services.engine.done[-1]  # type: ignore[attr-defined]


def test_what_fails_is_tried_again(services: Services, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("bench.running.time.sleep", lambda _: None)
    said = iter([Failed("no database yet"), "", ""])
    begun: list[str] = []

    def run(name: str, *options: str) -> str:
        begun.append(name)
        answer = next(said) if name in ("tables", "static") else ""
        if isinstance(answer, Failed):
            raise answer
        return answer

    monkeypatch.setattr(services, "run", run)
    monkeypatch.setattr("bench.images.ready", lambda url: True)
    assert services.start() == f"http://127.0.0.1:{services.web}"
    assert begun == ["database", "tables", "tables", "static", "web", "worker", "rounds"]
