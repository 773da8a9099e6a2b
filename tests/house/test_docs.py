"""Every public function of the core says what goes in and what comes out, as numpydoc has it; docs/ builds pages of them."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from numpydoc.docscrape import NumpyDocString

ROOT = Path(__file__).parents[2]
CORE = sorted((ROOT / "src" / "cloche" / "core").rglob("*.py"))
SOURCES = (ROOT / "docs" / "sources.md").read_text(encoding="utf-8")


def functions_in(body: list[ast.stmt]) -> Iterator[ast.FunctionDef]:
    """Public ones, and those of public classes."""
    for node in body:
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
            yield from functions_in(node.body)
        elif isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
            yield node


FUNCTIONS = [
    (f"{file.stem}.{function.name}", function)
    for file in CORE
    for function in functions_in(ast.parse(file.read_text(encoding="utf-8")).body)
]


def is_property(function: ast.FunctionDef) -> bool:
    return any("property" in ast.unparse(each) for each in function.decorator_list)


def test_every_parameter_is_described_and_none_besides() -> None:
    assert len(FUNCTIONS) > 300
    wrong = []
    for name, function in FUNCTIONS:
        section = NumpyDocString(ast.get_docstring(function) or "")["Parameters"]
        wanted = [each.arg for each in function.args.args + function.args.kwonlyargs if each.arg not in ("self", "cls")]
        if [each.name for each in section] != wanted or not all(each.type and each.desc for each in section):
            wrong.append(name)
    assert wrong == []


def test_what_comes_out_is_said() -> None:
    silent = [
        name
        for name, function in FUNCTIONS
        if function.returns is not None and ast.unparse(function.returns) != "None" and not is_property(function)
        if not NumpyDocString(ast.get_docstring(function) or "")["Returns"]
    ]
    assert silent == []


def test_every_source_that_is_named_stands_in_the_list() -> None:
    """A source is a name with a year in square brackets, such as [Johansen1975]."""
    named = {key for file in CORE for key in re.findall(r"\[([A-Z]\w+\d{4})[\],; ]", file.read_text(encoding="utf-8"))}
    assert len(named) > 15
    assert {key for key in named if f"| {key} |" not in SOURCES} == set()
