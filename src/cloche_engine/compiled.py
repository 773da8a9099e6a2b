"""The engine's innermost functions, compiled to machine code at their first call and kept on disk for later processes."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar, cast

import numba

UNCOUNTED: Any = {"_nrt": False}
"""Numba's own word for code without its memory runtime."""
F = TypeVar("F", bound=Callable[..., object])

HERE = Path(__file__).parent


def _digest() -> str:
    """What the compiled functions were made from: they call each other across modules, which Numba's own check does not see."""
    seen = hashlib.sha256()
    for source in sorted(HERE.rglob("*.py")):
        if source.parent.name != "forecast":  # which calls compiled functions and holds none
            seen.update(source.read_bytes())
    return seen.hexdigest()[:16]


# Where NUMBA_CACHE_DIR says, else beside the source; where that cannot be written, Numba keeps them in the user's own cache.
_KEPT = Path(numba.config.CACHE_DIR or HERE / "__pycache__")  # type: ignore[attr-defined]
numba.config.CACHE_DIR = str(_KEPT / f"compiled-{_digest()}")  # type: ignore[attr-defined]


def compiled(function: F) -> F:
    """The same function compiled: numbers, arrays and named tuples of arrays in and out; divides by zero as NumPy does, and
    lets other threads run meanwhile.

    Parameters
    ----------
    function : F
        The function to compile.
    """
    return cast(F, numba.njit(cache=True, error_model="numpy", nogil=True)(function))


def lean(function: F) -> F:
    """Compiled for the innermost loops: it allocates nothing, so that no array's users are counted on its way in and out,
    which took as long as the physics.

    Parameters
    ----------
    function : F
        The function to compile; an array that it makes is refused.
    """
    return cast(F, numba.njit(cache=True, error_model="numpy", nogil=True, **UNCOUNTED)(function))


def woven(function: F) -> F:
    """Compiled into each function that calls it: for pieces of an inner loop that would hand whole batches to each other.

    Parameters
    ----------
    function : F
        The function to compile.
    """
    return cast(F, numba.njit(cache=True, error_model="numpy", inline="always", **UNCOUNTED)(function))
