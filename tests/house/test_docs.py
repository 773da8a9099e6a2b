"""What docstrings of the engine say of parameters and results, as numpydoc has it; docs/ builds pages of them."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from numpydoc.docscrape import NumpyDocString

ROOT = Path(__file__).parents[2]
CORE = sorted((ROOT / "src" / "cloche_engine").rglob("*.py"))
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


def test_what_is_said_of_parameters_is_of_parameters_that_there_are() -> None:
    """A name whose annotation says all has no line of its own; those that have one stand in the order of the signature."""
    assert len(FUNCTIONS) > 300
    wrong = []
    for name, function in FUNCTIONS:
        section = NumpyDocString(ast.get_docstring(function) or "")["Parameters"]
        taken = [each.arg for each in function.args.args + function.args.kwonlyargs]
        described = [each.name for each in section]
        if described != [each for each in taken if each in described] or not all(each.type and each.desc for each in section):
            wrong.append(name)
    assert wrong == []


def test_attributes_in_docstrings_are_those_of_the_class() -> None:
    """Every name under Attributes is a field of its class."""
    seen = 0
    wrong = []
    for file in CORE:
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.ClassDef):
                continue
            fields = {
                each.target.id for each in node.body if isinstance(each, ast.AnnAssign) and isinstance(each.target, ast.Name)
            }
            described = {
                name for each in NumpyDocString(ast.get_docstring(node) or "")["Attributes"] for name in each.name.split(", ")
            }
            seen += len(described)
            wrong += [f"{file.stem}.{node.name}.{name}" for name in sorted(described - fields)]
    assert seen > 200
    assert wrong == []


def test_numbers_that_go_in_have_their_unit_in_the_name_or_a_line() -> None:
    """Public functions say what a bare number is measured in."""
    units = re.compile(r"_(c|k|m|s|h|d|y|kg|mm|deg|pa|w_m2|w_mk|m_s|m_h|mol|kwh|j_m3k|w_m2k|ppfd|f|w|cm|km|m2|km2)$")
    bare = []
    for name, function in FUNCTIONS:
        described = {each.name for each in NumpyDocString(ast.get_docstring(function) or "")["Parameters"]}
        for each in function.args.args + function.args.kwonlyargs:
            is_number = each.annotation is not None and ast.unparse(each.annotation) == "float"
            if is_number and each.arg not in described and not units.search(each.arg):
                bare.append(f"{name}({each.arg})")
    assert bare == []


def test_what_is_said_of_results_says_more_than_their_type() -> None:
    empty = [
        name
        for name, function in FUNCTIONS
        for each in NumpyDocString(ast.get_docstring(function) or "")["Returns"]
        if not each.desc
    ]
    assert empty == []


def test_every_source_that_is_named_stands_in_the_list() -> None:
    """A source is a name with a year in square brackets, such as [Johansen1975]."""
    named = {key for file in CORE for key in re.findall(r"\[([A-Z]\w+\d{4})[\],; ]", file.read_text(encoding="utf-8"))}
    assert len(named) > 15
    assert {key for key in named if f"| {key} |" not in SOURCES} == set()
