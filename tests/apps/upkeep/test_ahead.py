"""What a web reads before its first caller."""

import io
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from django.template import TemplateSyntaxError, engines
from django.test import override_settings

from cloche.apps.upkeep.ahead import folders, read_ahead
from cloche.apps.upkeep.management.commands import web


def test_every_template_is_read_and_kept() -> None:
    engine = engines.all()[0].engine
    engine.template_loaders[0].reset()
    assert read_ahead() == len([path for folder in folders() for path in folder.rglob("*.html")]) > 100
    kept = engine.template_loaders[0].get_template_cache
    assert {"today/today.html", "windows/_crop_line.html"} <= {str(file).partition("-")[0] for file in kept}


def test_a_broken_template_keeps_a_release_from_serving(tmp_path: Path, settings: Any) -> None:
    (tmp_path / "broken.html").write_text("{% if %}")
    ours = settings.TEMPLATES[0]
    with override_settings(TEMPLATES=[ours | {"DIRS": [*ours["DIRS"], tmp_path]}]), pytest.raises(TemplateSyntaxError):
        read_ahead()


def test_no_caller_is_taken_before(monkeypatch: pytest.MonkeyPatch) -> None:
    done: list[str] = []

    class Server:
        def run(self) -> None:
            done.append("serves")

    monkeypatch.setattr(web, "read_ahead", lambda: done.append("read"))
    monkeypatch.setattr(web, "create_server", lambda *_, **__: done.append("listens") or Server())
    monkeypatch.setattr(web, "_listening", lambda *_: done.append("binds"))
    monkeypatch.setattr(web.signal, "signal", lambda *_: None)
    monkeypatch.setattr(web.sys, "setswitchinterval", lambda *_: None)
    call_command("web", "--listen", "127.0.0.1:1", stdout=io.StringIO())
    assert done == ["read", "binds", "listens", "serves"]
