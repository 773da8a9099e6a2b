"""The rules of the house, as tests."""

import os
import re
import subprocess
import sys
import tomllib
from pathlib import Path

import pytest

import cloche

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "cloche"
TEMPLATES = sorted((SOURCE / "templates").rglob("*.html"))
OWN = [*TEMPLATES, *(SOURCE / "static" / "css").glob("*.css"), *(SOURCE / "static" / "js").glob("*.js")]


@pytest.mark.parametrize("file", OWN, ids=lambda f: f.name)
def test_nothing_is_loaded_from_outside(file: Path) -> None:
    urls = re.findall(r"https?://[^\s\"')]+", file.read_text(encoding="utf-8"))
    assert [u for u in urls if not u.startswith("http://www.w3.org/")] == []


@pytest.mark.parametrize("file", TEMPLATES, ids=lambda f: str(f.relative_to(SOURCE)))
def test_templates_hold_no_scripts_or_styles_of_their_own(file: Path) -> None:
    text = file.read_text(encoding="utf-8")
    assert not re.search(r"<script(?![^>]*\bsrc=)", text)
    assert "<style" not in text
    assert not re.search(r"\s(style|on[a-z]+)=\"", text)


@pytest.mark.parametrize("file", TEMPLATES, ids=lambda f: str(f.relative_to(SOURCE)))
def test_templates_are_short(file: Path) -> None:
    assert len(file.read_text(encoding="utf-8").splitlines()) < 80


@pytest.mark.parametrize("file", [f for f in TEMPLATES if f.name.startswith("_")], ids=lambda f: f.name)
def test_pieces_open_by_naming_what_they_need(file: Path) -> None:
    assert file.read_text(encoding="utf-8").startswith("{# needs: ")


PYTHON = [f for f in SOURCE.rglob("*.py") if "migrations" not in f.parts]


@pytest.mark.parametrize("file", PYTHON, ids=lambda f: str(f.relative_to(SOURCE)))
def test_files_are_shorter_than_three_hundred_and_fifty_lines(file: Path) -> None:
    assert len(file.read_text(encoding="utf-8").splitlines()) < 350


@pytest.mark.parametrize("file", PYTHON, ids=lambda f: str(f.relative_to(SOURCE)))
def test_only_settings_read_the_environment(file: Path) -> None:
    if "settings" not in file.parts and file.name != "manage.py":
        assert "os.environ" not in file.read_text(encoding="utf-8")


@pytest.mark.parametrize("file", PYTHON, ids=lambda f: str(f.relative_to(SOURCE)))
def test_only_the_clock_knows_the_time(file: Path) -> None:
    # The stand-ins for a weather provider and a logger are programs of their own, with their own clocks.
    allowed = {"clock.py", "day.py", "bench.py", "weather_service.py", "probe.py"}
    if file.name not in allowed:
        assert not re.search(r"(datetime\.now|date\.today|timezone\.now)\(", file.read_text(encoding="utf-8"))


def test_lock_files_name_no_registry() -> None:
    for file in (ROOT / "requirements").glob("*.txt"):
        text = file.read_text(encoding="utf-8")
        assert "http" not in text
        assert "--hash=sha256:" in text


def test_the_run_command_says_what_it_can_do() -> None:
    said = subprocess.run(["bash", str(ROOT / "run")], capture_output=True, text=True, check=True).stdout  # noqa: S603, S607
    for word in ("demo", "start", "test", "bench"):
        assert f"./run {word}" in said or word in said


def test_a_wrong_word_is_refused_in_a_sentence() -> None:
    done = subprocess.run(["bash", str(ROOT / "run"), "demo", "--prot", "1"], capture_output=True, text=True)  # noqa: S603, S607
    assert done.returncode == 1
    assert "“--prot” is not a word that ./run demo knows" in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1


def test_a_taken_port_is_named_in_a_sentence() -> None:
    import socket

    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = str(taken.getsockname()[1])
        done = subprocess.run(["bash", str(ROOT / "run"), "demo", "--port", port], capture_output=True, text=True)  # noqa: S603, S607
    assert done.returncode == 1
    assert f"port {port} is taken" in done.stderr


def test_the_pages_load_no_engine() -> None:
    """What serves pages starts quickly and stays small; only a worker computes."""
    query = (
        "import sys, django; django.setup(); import cloche.config.urls; print({'numba', 'scipy', 'pandas'} & set(sys.modules))"
    )
    path = {"PYTHONPATH": f"{ROOT / 'src'}:{ROOT}"}
    command = [sys.executable, "-W", "ignore", "-c", query]
    done = subprocess.run(command, capture_output=True, text=True, check=True, env=os.environ | path)  # noqa: S603
    assert done.stdout.strip() == "set()"


def test_the_version_of_the_package_is_that_of_the_project() -> None:
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    assert project["version"] == cloche.__version__
