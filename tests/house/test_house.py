"""The rules of the house, as tests."""

import hashlib
import os
import re
import subprocess
import sys
import tomllib
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

import cloche

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "cloche"
TEMPLATES = sorted((SOURCE / "templates").rglob("*.html"))
OWN = [*TEMPLATES, *(SOURCE / "static" / "css").glob("*.css"), *(SOURCE / "static" / "js").glob("*.js")]


def breaking(files: Iterable[Path], breaks: Callable[[Path, str], Any]) -> list[str]:
    """Those that break a rule."""
    return [str(file.relative_to(ROOT)) for file in files if breaks(file, file.read_text(encoding="utf-8"))]


def test_nothing_is_loaded_from_outside() -> None:
    def outside(file: Path, text: str) -> list[str]:
        return [u for u in re.findall(r"https?://[^\s\"')]+", text) if not u.startswith("http://www.w3.org/")]

    assert breaking(OWN, outside) == []


def test_templates_hold_no_scripts_or_styles_of_their_own() -> None:
    own = re.compile(r"<script(?![^>]*(?:\bsrc=|type=\"application/json\"))|<style|\s(style|on[a-z]+)=\"")
    assert breaking(TEMPLATES, lambda file, text: own.search(text)) == []


def test_templates_are_short() -> None:
    assert breaking(TEMPLATES, lambda file, text: len(text.splitlines()) >= 80) == []


def test_pieces_open_by_naming_what_they_need() -> None:
    pieces = [file for file in TEMPLATES if file.name.startswith("_")]
    assert breaking(pieces, lambda file, text: not text.startswith("{# needs: ")) == []


PYTHON = [f for f in (ROOT / "src").rglob("*.py") if "migrations" not in f.parts]


def test_files_are_shorter_than_five_hundred_lines() -> None:
    styles = (SOURCE / "static" / "css").glob("*.css")
    scripts = (SOURCE / "static" / "js").glob("*.js")
    assert breaking([*PYTHON, *styles, *scripts], lambda file, text: len(text.splitlines()) >= 500) == []


def test_the_engine_is_handed_all_that_it_needs() -> None:
    """What a request or a task is about is known to pages alone, and in one place."""
    engine = [file for file in PYTHON if {"cloche_engine", "bridge"} & set(file.parts)]
    asks = [file.relative_to(ROOT / "src").as_posix() for file in engine if "ContextVar" in file.read_text(encoding="utf-8")]
    assert asks == ["cloche/bridge/services/crops.py"]


def test_only_settings_read_the_environment() -> None:
    others = [file for file in PYTHON if "settings" not in file.parts and file.name != "manage.py"]
    assert breaking(others, lambda file, text: "os.environ" in text) == []


def test_only_the_clock_knows_the_time() -> None:
    # The stand-ins for a weather provider and a logger are programs of their own, with their own clocks.
    allowed = {"clock.py", "day.py", "bench.py", "weather_service.py", "probe.py"}
    others = [file for file in PYTHON if file.name not in allowed]
    assert breaking(others, lambda file, text: re.search(r"(datetime\.now|date\.today|timezone\.now)\(", text)) == []


def test_a_rule_that_is_broken_is_seen(tmp_path: Path) -> None:
    assert breaking([ROOT / "run"], lambda file, text: "bash" in text) == ["run"]


def test_every_class_that_pages_use_is_styled() -> None:
    """Bootstrap is compiled with only the parts in use: a page that wants another class finds out here."""
    css = "".join(file.read_text(encoding="utf-8") for file in (SOURCE / "static").rglob("*.css"))
    scripts = "".join(file.read_text(encoding="utf-8") for file in (SOURCE / "static" / "js").glob("*.js"))
    styled = set(re.findall(r"\.([A-Za-z][\w-]*)", css)) | set(re.findall(r"\.([A-Za-z][\w-]*)", scripts))
    used = re.compile(r"\sclass=\"([^\"]*)\"")
    words = re.compile(r"\{[{%#].*?[}%#]\}")
    classes = {
        name
        for file in TEMPLATES
        for value in used.findall(file.read_text(encoding="utf-8"))
        if "{" not in value
        for name in words.sub(" ", value).split()
    }
    assert classes - styled == set()


def test_every_id_that_is_styled_is_on_a_page() -> None:
    css = "".join(file.read_text(encoding="utf-8") for file in (SOURCE / "static" / "css").glob("*.css"))
    styled = {name for selectors in re.findall(r"([^{};]+)\{", css) for name in re.findall(r"#([a-z][\w-]*)", selectors)}
    pages = "".join(file.read_text(encoding="utf-8") for file in TEMPLATES)
    assert len(styled) > 5
    assert {name for name in styled if f'id="{name}"' not in pages} == set()


def test_linear_algebra_stays_on_one_core_however_it_is_started() -> None:
    for file in ("scripts/setup.sh", "scripts/install.sh", "deploy/Containerfile"):
        text = (ROOT / file).read_text(encoding="utf-8")
        assert {"OMP_NUM_THREADS=1", "OPENBLAS_NUM_THREADS=1"} <= set(re.split(r"\s+", text)), file


def test_the_compiled_bootstrap_is_of_its_recipe() -> None:
    (artefact,) = (SOURCE / "static" / "vendor").glob("bootstrap-*/bootstrap.css")
    recipe = hashlib.sha256((ROOT / "styles" / "bootstrap.scss").read_bytes()).hexdigest()
    assert recipe in artefact.read_text(encoding="utf-8").splitlines()[0], "run ./run style"


def test_lock_files_name_no_registry() -> None:
    for file in (ROOT / "requirements").glob("*.txt"):
        text = file.read_text(encoding="utf-8")
        assert "http" not in text
        assert "--hash=sha256:" in text


def test_the_run_command_says_what_it_can_do() -> None:
    said = subprocess.run(["bash", str(ROOT / "run")], capture_output=True, text=True, check=True).stdout  # noqa: S603, S607
    for word in ("./run demo", "./run start", "./run test", "| bench", "| backup"):
        assert word in said


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
