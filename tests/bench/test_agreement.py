"""The pages of a few random gardens agree, and a contradiction would be found."""

from __future__ import annotations

import re
from functools import partial
from pathlib import Path
from typing import Any

import pytest

from bench import agreement
from bench.agree.invariants import INVARIANTS
from cloche.apps.shared import clock
from cloche_engine import api
from tests.conftest import _remembered

DOCS = Path(__file__).parents[2] / "docs" / "agreement.md"
SEED = 7


@pytest.fixture
def quick(monkeypatch: pytest.MonkeyPatch) -> None:
    """The bench sets the clock, and looks weeks ahead, for as long as it runs."""
    monkeypatch.setattr(clock, "now", clock.now)
    from cloche_engine.forecast import outlooks, steps
    from cloche_engine.soil import calibrate

    for module, names in (
        (outlooks, ["CANDIDATES"]),
        (steps, ["SOIL_D", "RUN_UP_D"]),
        (calibrate, ["MOST_CALLS", "SCAN", "LONGEST_MEMORY_D"]),
    ):
        for name in names:
            monkeypatch.setattr(module, name, getattr(module, name))
    agreement.shorten()
    monkeypatch.setattr(api, "forecast", partial(_remembered, False))


def test_the_documents_list_is_that_of_the_bench() -> None:
    rows = re.findall(r"^\| \d+ \| (.*?) \| (.*?) \|$", DOCS.read_text(encoding="utf-8"), re.MULTILINE)
    assert rows == [(invariant.text, invariant.pages) for invariant in INVARIANTS]
    assert len(rows) >= 40


@pytest.mark.parametrize("number", [0, 4])
def test_pages_of_a_garden_agree(db: None, quick: None, number: int) -> None:
    report = agreement.looked_at((number, SEED))
    assert report.contradictions == []
    assert report.errors == []


def test_a_contradiction_is_found(db: None, quick: None, monkeypatch: pytest.MonkeyPatch) -> None:
    """Ground one degree warmer than everything else says."""
    from cloche.apps.windows.pages import ground

    line = ground._line

    def warmer(*given: Any) -> Any:
        from dataclasses import replace

        drawn = line(*given)
        return replace(drawn, number=drawn.number.replace("°", "1°"))

    monkeypatch.setattr(ground, "_line", warmer)
    said = " ".join(agreement.looked_at((4, SEED)).contradictions)
    assert "A place's page names the same soil now as Ground" in said
    assert "Numbers are in the reader's scale" in said
