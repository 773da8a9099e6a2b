"""A sentence's holes and the values given for them are named alike; sentences are made last and never read back."""

import ast
from collections.abc import Iterator
from pathlib import Path
from string import Formatter

ROOT = Path(__file__).parents[2]
PYTHON = [file for file in sorted((ROOT / "src").rglob("*.py")) if "migrations" not in file.parts]
LOOKED_UP = {"_", "gettext", "lazy", "say"}


def holes(sentence: str) -> set[str]:
    return {name.split(".")[0].split("[")[0] for _, name, _, _ in Formatter().parse(sentence) if name is not None}


def filled_in(tree: ast.AST) -> Iterator[tuple[int, set[str], set[str]]]:
    """Line, holes and names given, of every sentence that is looked up and filled in by names."""
    for node in ast.walk(tree):
        match node:
            case ast.Call(
                func=ast.Attribute(
                    value=ast.Call(func=ast.Name(id=function), args=[ast.Constant(value=str(sentence))]), attr="format"
                ),
                args=[],
                keywords=keywords,
            ) if function in LOOKED_UP and all(key.arg for key in keywords):
                yield node.lineno, holes(sentence), {str(key.arg) for key in keywords}


def test_every_hole_of_a_sentence_is_given_its_value() -> None:
    sentences = [(file.name, *one) for file in PYTHON for one in filled_in(ast.parse(file.read_text(encoding="utf-8")))]
    assert len(sentences) > 300
    assert [(name, line, wanted ^ given) for name, line, wanted, given in sentences if wanted != given] == []
