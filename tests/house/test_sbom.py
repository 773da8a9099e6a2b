"""What ships is listed: each package of the lock file, pinned by hash, each file beside the source, under a licence that lets
Cloche be passed on. Format: CycloneDX 1.6 (ECMA-424), checked by its own schema."""

import json
import re
import tomllib
from pathlib import Path

import pytest

from bench import sbom

ROOT = Path(__file__).parents[2]
LOCKS = ("run", "test")
COPYLEFT = re.compile(r"\bA?GPL", re.IGNORECASE)


def test_the_file_is_what_would_be_written_now_and_keeps_to_the_standard() -> None:
    # Here, as they build a grammar when they are loaded, in every worker that only looks for tests.
    from cyclonedx.schema import SchemaVersion
    from cyclonedx.validation.json import JsonStrictValidator

    text = sbom.FILE.read_text(encoding="utf-8")
    assert text == sbom.written(), "say ./run sbom"
    assert JsonStrictValidator(SchemaVersion.V1_6).validate_str(text) is None


def test_every_part_has_a_licence_that_lets_it_be_passed_on() -> None:
    parts = json.loads(sbom.FILE.read_text(encoding="utf-8"))["components"]
    assert len(parts) > 50
    for part in parts:
        licences = json.dumps(part.get("licenses", ""))
        # Of another system: in the lock file, and never installed here.
        assert part["name"] == "colorama" or len(licences) > 8, part["name"]
        assert not COPYLEFT.search(licences.replace("LGPL", "")), part["name"]


@pytest.mark.parametrize("lock", LOCKS)
def test_the_lock_files_pin_everything_by_hash_and_name_no_other_place(lock: str) -> None:
    text = (ROOT / "requirements" / f"{lock}.txt").read_text(encoding="utf-8")
    pins = {name.lower(): hashes for name, _version, hashes in sbom.pinned(text)}
    assert all(pins.values())
    assert not re.search(r"https?://|index-url|find-links|@ ", text)
    wanted = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    needed = wanted["dependencies"] + (wanted["optional-dependencies"]["test"] if lock == "test" else [])
    names = {re.split(r"[\[<>=]", requirement)[0].lower() for requirement in needed}
    assert names - set(pins) == set()


def test_what_runs_is_the_same_in_both() -> None:
    run, test = (
        {(name, version) for name, version, _hashes in sbom.pinned((ROOT / "requirements" / f"{lock}.txt").read_text())}
        for lock in LOCKS
    )
    assert run <= test
