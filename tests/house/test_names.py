"""Names that were given up do not come back: docs/glossary.md has the ones that took their place."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[2]
PYTHON = sorted(f for of in ("src", "bench", "tests") for f in (ROOT / of).rglob("*.py") if "migrations" not in f.parts)
GIVEN_UP = {
    "lane": "case",
    "lanes": "cases",
    "character": "parameters",
    "damp": "unlogged_wetness",
    "skin": "soil_surface",
    "lie": "situation",
    "standing": "current, checkpoint",
    "basis": "model snapshot",
    "foretold": "result",
    "deed": "operation",
    "deeds": "operations",
    "school": "sowing_rule",
    "schools": "sowing_rules",
    "verdict": "review",
    "verdicts": "reviews",
    "taught": "cover_evidence",
    "told": "by meaning: params, values, facts, text",
    "asked": "query",
    "off_school": "uncover_rule",
    "give_part": "give_role",
    "evidence_number": "input_revision",
    "bought": "cover_gain",
    "bites": "limiting",
    "stick_probe": "deploy_probe",
    "pull_probe": "retrieve_probe",
    "care_of": "place_log_of",
    "one": "what it is one of",
    "found": "what was found",
}
"""Each with what it is called now."""
MODULES = {"lanes", "stretch", "skin", "damp", "held", "told", "taught", "doubtful", "doubts", "schools", "ways", "warming"}
MODULES |= {"watch", "logbook", "care", "care_views", "bought", "aftermath", "plain", "bounds", "hear", "settle", "past"}


def names_in(tree: ast.AST) -> Iterator[str]:
    """Everything that is given a name: classes, functions, parameters, variables, attributes, imports."""
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.ClassDef):
            yield node.name
        elif isinstance(node, ast.arg):
            yield node.arg
        elif isinstance(node, ast.Attribute):
            yield node.attr
        elif isinstance(node, ast.Name):
            yield node.id
        elif isinstance(node, ast.keyword) and node.arg:
            yield node.arg


def given_up(text: str) -> set[str]:
    """Names of the list that a module gives or uses; a class's is that of its words, a private one's that of its public one."""
    named = {re.sub(r"(?<=[a-z])(?=[A-Z])", "_", name).lower().strip("_") for name in names_in(ast.parse(text))}
    return named & GIVEN_UP.keys()


def test_names_that_were_given_up_stay_away() -> None:
    bad = {str(file.relative_to(ROOT)): names for file in PYTHON if (names := given_up(file.read_text(encoding="utf-8")))}
    assert bad == {}


def test_modules_that_were_renamed_stay_away() -> None:
    assert [str(file.relative_to(ROOT)) for file in PYTHON if file.stem in MODULES or file.parent.name in MODULES] == []


def test_the_check_sees_what_it_looks_for() -> None:
    assert given_up("class Deed:\n    def of(self, school): self._lane = foretold(basis=1)") == {
        "deed",
        "school",
        "lane",
        "foretold",
        "basis",
    }


def test_pages_say_none_of_them_either() -> None:
    words = re.compile(rf"\{{[{{%][^}}\"]*\b({'|'.join(GIVEN_UP)})\b[^}}]*\}}")
    templates = (ROOT / "src" / "cloche" / "templates").rglob("*.html")
    assert [(file.name, match[0]) for file in templates if (match := words.search(file.read_text(encoding="utf-8")))] == []
