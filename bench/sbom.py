"""What ships with Cloche, under which licence: a bill of materials in CycloneDX's JSON, from the lock file and the files that
lie beside the source. `./run sbom` writes docs/sbom.json; it is the same whenever it is made."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterator
from importlib.metadata import PackageNotFoundError, metadata
from pathlib import Path

from cyclonedx.contrib.license.factories import LicenseFactory
from cyclonedx.model import HashAlgorithm, HashType
from cyclonedx.model.bom import Bom
from cyclonedx.model.component import Component, ComponentType
from cyclonedx.output.json import JsonV1Dot6
from packageurl import PackageURL

from cloche import __version__

ROOT = Path(__file__).parents[1]
STATIC = ROOT / "src" / "cloche" / "static"
FILE = ROOT / "docs" / "sbom.json"
PINNED = re.compile(r"^([A-Za-z0-9._-]+)==([^\s;\\]+)(?:\s*;\s*([^\\]+))?", re.MULTILINE)
HASH = re.compile(r"--hash=sha256:([0-9a-f]{64})")
VENDOR = {"bootstrap": "MIT", "htmx": "0BSD", "idb": "ISC"}
FONTS = {"atkinson-hyperlegible-next": "OFL-1.1", "literata": "OFL-1.1"}
ABOUT = ("License-Expression", "License")


def pinned(text: str) -> Iterator[tuple[str, str, list[str]]]:
    """Name, version and hashes of each package of a lock file."""
    for block in re.split(r"\n(?=[A-Za-z0-9])", text):
        if match := PINNED.match(block):
            yield match.group(1), match.group(2), HASH.findall(block)


def licence_of(name: str) -> str:
    """As the package itself says; empty where it is not installed here or says nothing."""
    try:
        about = metadata(name)
    except PackageNotFoundError:
        return ""
    named = next((about[key] for key in ABOUT if about[key] and len(about[key]) < 60), "")
    classes = [
        classifier.rsplit(" :: ", 1)[1]
        for classifier in about.get_all("Classifier") or []
        if classifier.startswith("License ::")
    ]
    return named or ", ".join(sorted(classes))


def vendored() -> Iterator[Component]:
    """Scripts, styles and fonts that lie beside the source."""
    for folder in sorted((STATIC / "vendor").iterdir()):
        name, version = folder.name.rsplit("-", 1)
        yield _component(name, version, VENDOR[name], f"pkg:npm/{name}@{version}", sorted(folder.iterdir()))
    for name, licence in FONTS.items():
        files = sorted((STATIC / "fonts").glob(f"{name}*.woff2"))
        digest = hashlib.sha256(b"".join(file.read_bytes() for file in files)).hexdigest()
        yield _component(name, digest[:12], licence, "", files)


def _component(name: str, version: str, licence: str, url: str, files: list[Path]) -> Component:
    whole = hashlib.sha256(b"".join(file.read_bytes() for file in files if file.is_file())).hexdigest()
    return Component(
        name=name,
        version=version,
        type=ComponentType.LIBRARY if url else ComponentType.FILE,
        bom_ref=f"{name}@{version}",
        purl=PackageURL.from_string(url) if url else None,
        licenses=[LicenseFactory().make_from_string(licence)],
        hashes=[HashType(alg=HashAlgorithm.SHA_256, content=whole)],
    )


def bill() -> Bom:
    """All of it."""
    document = Bom(serial_number=None, version=1)
    document.metadata.timestamp = None  # type: ignore[assignment]
    own = Component(name="cloche", version=__version__, type=ComponentType.APPLICATION, bom_ref="cloche")
    document.metadata.component = own
    for name, version, hashes in pinned((ROOT / "requirements" / "run.txt").read_text(encoding="utf-8")):
        licence = licence_of(name)
        document.components.add(
            Component(
                name=name,
                version=version,
                type=ComponentType.LIBRARY,
                bom_ref=f"{name}@{version}",
                purl=PackageURL("pypi", None, name, version),
                licenses=[LicenseFactory().make_from_string(licence)] if licence else [],
                hashes=[HashType(alg=HashAlgorithm.SHA_256, content=digest) for digest in hashes[:1]],
            )
        )
    for component in vendored():
        document.components.add(component)
    document.register_dependency(own, document.components)
    return document


def written() -> str:
    """As it stands in the file: without what would differ the next time."""
    text = JsonV1Dot6(bill()).output_as_string(indent=2)
    text = re.sub(r'\n\s*"serialNumber": "[^"]*",', "", text)
    return re.sub(r'\n\s*"timestamp": "[^"]*",', "", text) + "\n"


if __name__ == "__main__":
    FILE.write_text(written(), encoding="utf-8")
