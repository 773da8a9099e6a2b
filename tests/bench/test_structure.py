"""The figures about the code are those of the code."""

import ast

import pytest

from bench import structure

TEXT = '''"""What it is about."""

NUMBER = 3
"""What it counts."""


def first(values):
    """Says so.

    And more.
    """
    # Why it is done.
    if values and NUMBER > 2 or not values:
        return [one for one in values if one]
    return None  # nothing


def second():
    return 1
'''


def test_lines_are_told_apart() -> None:
    measured = structure.module_of(TEXT)
    assert measured.lines == 19
    assert measured.docstrings == 6
    assert measured.comments == 2
    assert measured.code == 7
    assert measured.complexity == [5, 1]


def test_complexity_counts_branches_and_the_parts_of_conditions() -> None:
    """McCabe 1976: decisions and one."""
    assert structure.complexity(ast.parse("def f():\n    for a in b:\n        if a: pass\n        else: pass")) == 3


def test_circles_are_found_and_lines_are_not() -> None:
    assert structure.circles({"a": {"b"}, "b": {"c"}, "c": set()}) == []
    assert structure.circles({"a": {"b"}, "b": {"c"}, "c": {"a"}, "d": {"a"}}) == [{"a", "b", "c"}]


def test_no_packages_of_the_core_import_each_other_in_a_circle(capsys: pytest.CaptureFixture[str]) -> None:
    assert structure.main() == 0
    said = capsys.readouterr().out
    assert "packages of cloche_engine that import each other in a circle: none" in said
    assert "0 of more than 500" in said
