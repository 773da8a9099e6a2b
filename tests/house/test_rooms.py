"""The plan of rooms in docs/rooms.md is what the code does."""

import ast
import re
import tomllib
from pathlib import Path

ROOT = Path(__file__).parents[2]
ROOMS = ROOT / "src" / "cloche" / "apps"
PLAN = (ROOT / "docs" / "rooms.md").read_text(encoding="utf-8").split("## Inside")[0]
ROW = re.compile(r"^\| (?!room )(\w+) \| [^|]+ \| ([a-z, –]+) \|$", re.MULTILINE)


def known_by(room: Path) -> set[str]:
    """Other rooms that a room's modules import."""
    rooms = set()
    for file in room.rglob("*.py"):
        if "migrations" not in file.parts:
            for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
                if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("cloche.apps."):
                    rooms.add(str(node.module).split(".")[2])
    return rooms - {room.name}


def drawn() -> dict[str, set[str]]:
    return {room: set() if knows == "–" else set(knows.split(", ")) for room, knows in ROW.findall(PLAN)}


def test_the_plan_shows_every_room_and_what_it_knows() -> None:
    built = {room.name: known_by(room) for room in ROOMS.iterdir() if (room / "__init__.py").exists()}
    assert drawn() == built


def test_the_row_of_rooms_is_the_one_that_the_contract_holds() -> None:
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["tool"]["importlinter"]["contracts"]
    (layers,) = (contract["layers"] for contract in contracts if contract["name"] == "A room knows only the rooms before it")
    row = PLAN.split("```text\n")[1].split("```")[0]
    assert re.findall(r"\w+", row) == [layer.rsplit(".", 1)[1] for layer in reversed(layers)] == list(drawn())
