"""A sentence's holes and the values given for them are named alike; sentences are made last and never read back."""

import ast
from collections.abc import Iterator
from pathlib import Path
from string import Formatter

from babel.messages.pofile import read_po

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
    sentences = [
        (file.name, *sentence) for file in PYTHON for sentence in filled_in(ast.parse(file.read_text(encoding="utf-8")))
    ]
    assert len(sentences) > 300
    assert [(name, line, wanted ^ given) for name, line, wanted, given in sentences if wanted != given] == []


CUTS = {"split", "rsplit", "partition", "rpartition", "splitlines", "startswith", "endswith", "find", "index"}
CUTS |= {"removeprefix", "removesuffix"}
STORES = {"create", "update", "get_or_create", "update_or_create", "bulk_create", "filter", "exclude", "get"}
CATALOGUE = ROOT / "src" / "cloche" / "locale" / "en_US" / "LC_MESSAGES" / "django.po"


def sentences() -> set[str]:
    """All that can be said and has a space in it."""
    with CATALOGUE.open("rb") as file:
        ids = [message.id for message in read_po(file) if message.id]
    return {text for each in ids for text in (each if isinstance(each, tuple) else (each,)) if " " in text}


def is_said(node: ast.AST, known: set[str]) -> bool:
    """Whether it is a sentence, or one that is looked up, filled in or not."""
    match node:
        case ast.Constant(value=str(text)):
            return text in known
        case ast.Call(func=ast.Name(id=function)):
            return function in LOOKED_UP - {"lazy"}
        case ast.Call(func=ast.Attribute(value=inner, attr="format")):
            return is_said(inner, known)
    return False


def read_back(tree: ast.AST, known: set[str]) -> Iterator[int]:
    """Lines in which a sentence is compared, cut, looked for or put into the database."""
    for node in ast.walk(tree):
        match node:
            case ast.Compare(left=left, comparators=others) if any(is_said(piece, known) for piece in (left, *others)):
                yield node.lineno
            case ast.Call(func=ast.Attribute(value=said, attr=cut), args=args) if cut in CUTS:
                if is_said(said, known) or any(is_said(piece, known) for piece in args):
                    yield node.lineno
            case ast.Call(func=ast.Attribute(value=ast.Attribute(attr="objects"), attr=store), keywords=keywords):
                if store in STORES and any(is_said(key.value, known) for key in keywords):
                    yield node.lineno


def test_no_sentence_is_compared_cut_or_stored() -> None:
    known = sentences()
    assert len(known) > 1500
    caught = 'x == _("A b")\n"A b" in x\n_("A {b}").format(b=1).split()\nx.startswith("A b")\nM.objects.create(t=_("A b"))\n'
    assert list(read_back(ast.parse(caught), {"A b"})) == [1, 2, 3, 4, 5]
    faults = [(file.name, line) for file in PYTHON for line in read_back(ast.parse(file.read_text(encoding="utf-8")), known)]
    assert faults == []
