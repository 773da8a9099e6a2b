"""The code in figures, to hold before and after a redesign against each other: `./run bench structure`.

Python of the application, migrations left out; imports as import-linter's own graph (grimp) has them.
"""

from __future__ import annotations

import ast
import io
import tokenize
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from statistics import median, quantiles

SOURCE = Path(__file__).parents[1] / "src"
SMALL, LARGE = 40, 500
BRANCHES = (
    *(ast.If, ast.For, ast.While, ast.AsyncFor, ast.ExceptHandler, ast.With, ast.AsyncWith, ast.Assert),
    *(ast.comprehension, ast.IfExp, ast.match_case),
)


@dataclass(frozen=True)
class Module:
    """A file: its lines, those of code, of comments and of docstrings, and the cyclomatic complexity of each function."""

    lines: int
    code: int
    comments: int
    docstrings: int
    complexity: list[int]


def modules() -> dict[str, Module]:
    """All of the application by path."""
    files = (path for path in SOURCE.rglob("*.py") if "migrations" not in path.parts)
    return {path.relative_to(SOURCE).as_posix(): module_of(path.read_text(encoding="utf-8")) for path in sorted(files)}


def module_of(text: str) -> Module:
    """What its text says."""
    tree = ast.parse(text)
    comments = {
        token.start[0] for token in tokenize.generate_tokens(io.StringIO(text).readline) if token.type == tokenize.COMMENT
    }
    strings = {line for start, end in _strings(tree) for line in range(start, end + 1)}
    lines = text.splitlines()
    written = {number for number, line in enumerate(lines, start=1) if line.strip() and not line.lstrip().startswith("#")}
    functions = [node for node in ast.walk(tree) if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef)]
    return Module(
        len(lines), len(written - strings), len(comments), len(strings), [complexity(function) for function in functions]
    )


def _strings(tree: ast.AST) -> Iterator[tuple[int, int]]:
    """Strings that stand alone: docstrings, and those that say what a constant is."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str):
            yield node.lineno, node.end_lineno or node.lineno


def complexity(function: ast.AST) -> int:
    """Ways through a function (McCabe 1976): one, and one more for each branch and each further part of a condition."""
    branches = 1
    for node in ast.walk(function):
        branches += isinstance(node, BRANCHES)
        if isinstance(node, ast.BoolOp):
            branches += len(node.values) - 1
    return branches


def circles(arrows: dict[str, set[str]]) -> list[set[str]]:
    """Groups that reach each other, of more than one."""
    reach = {name: _reached(name, arrows) for name in arrows}
    groups: list[set[str]] = []
    for name, known in reach.items():
        group = {name} | {other for other in known if name in reach.get(other, set())}
        if len(group) > 1 and group not in groups:
            groups.append(group)
    return groups


def _reached(start: str, arrows: dict[str, set[str]]) -> set[str]:
    seen: set[str] = set()
    waiting = [start]
    while waiting:
        for other in arrows.get(waiting.pop(), set()) - seen:
            seen.add(other)
            waiting.append(other)
    return seen


def main() -> int:
    """Print the figures."""
    import grimp

    every = modules()
    sizes = [module.lines for module in every.values()]
    code = sum(module.code for module in every.values())
    ways = sorted(ways for module in every.values() for ways in module.complexity)
    graph = grimp.build_graph("cloche", "cloche_engine")
    importers = {name: graph.find_modules_that_directly_import(name) for name in graph.modules}
    largest = max(every, key=lambda path: every[path].lines)
    print(f"{len(every)} modules, {sum(sizes):,} lines of Python, {code:,} of them code")
    print(f"median {median(sizes):.0f} lines, largest {every[largest].lines} ({largest})")
    small, large = (sum(map(test, sizes)) for test in (SMALL.__ge__, LARGE.__lt__))
    print(f"{small} of at most {SMALL} lines, {large} of more than {LARGE}")
    print(f"{sum(len(known) == 1 for known in importers.values())} with exactly one importer")
    print(f"cyclomatic complexity: nine functions in ten at most {quantiles(ways, n=10)[-1]:.0f}, largest {ways[-1]}")
    print(
        f"per 100 lines of code: {100 * sum(module.comments for module in every.values()) / code:.1f} with a comment, ", end=""
    )
    print(f"{100 * sum(module.docstrings for module in every.values()) / code:.0f} of docstrings")
    for parent in ("cloche_engine", "cloche.apps", "cloche.bridge"):
        groups = circles(_between(graph, parent))
        text = "; ".join(", ".join(sorted(name.rpartition(".")[2] for name in group)) for group in groups)
        print(f"packages of {parent} that import each other in a circle: {text or 'none'}")
    return 0


def _between(graph: object, parent: str) -> dict[str, set[str]]:
    """Arrows between the packages of a package."""
    arrows: dict[str, set[str]] = {}
    within = f"{parent}."
    for name in (module for module in graph.modules if module.startswith(within)):  # type: ignore[attr-defined]
        own = within + name.removeprefix(within).split(".")[0]
        for other in graph.find_modules_directly_imported_by(name):  # type: ignore[attr-defined]
            if other.startswith(within) and (to := within + other.removeprefix(within).split(".")[0]) != own:
                arrows.setdefault(own, set()).add(to)
    return arrows
