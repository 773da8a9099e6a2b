"""Compiles the engine once, so that whatever starts after it finds it compiled: `python -m bench.warm`."""

from __future__ import annotations

from bench.covers import EIGHT, inputs
from cloche_engine.api import forecast, what_if
from cloche_engine.queries import WhatIfQuery


def main() -> None:
    """One bed's forecast, and covers over it, go through nearly all that is compiled."""
    given = inputs()
    what_if(forecast(given).snapshot, given, WhatIfQuery(0, 14, EIGHT[:2], ("carrot",)))


if __name__ == "__main__":
    main()
