"""Heavy questions are worked out beside the pages, not among them."""

import os
import signal
import sys
import time
from typing import Any

import pytest

from cloche.apps.bench.pages import gains
from cloche.apps.covers.pages import whatif
from cloche.apps.forecasts.models import ModelSnapshot
from cloche.apps.gardens.models import Garden
from cloche.apps.work import turns
from cloche.bridge.values.units import Units
from cloche_engine.queries import OutdatedSnapshot
from tests.apps.bench.benches import make_tray
from tests.conftest import NOW


@pytest.fixture
def helper(settings: Any) -> Any:
    settings.CLOCHE_HELPER = True
    yield
    turns._helper().shutdown()
    turns._helper.cache_clear()


ASK = "tests.apps.work.elsewhere:where"


def test_in_a_process_of_its_own_that_stands_back(helper: None) -> None:
    pid, nice = turns.run_low_priority(ASK)
    assert pid != os.getpid()
    assert nice >= os.nice(0) + 9
    assert turns.run_low_priority(ASK)[0] == pid, "one, kept for the next question"


def test_whoever_asks_loads_nothing_of_what_answers(db: None, garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    """The engine takes seconds to load, in which no page of that process would be answered."""
    place = make_tray(garden, kind="open", name="Bed")
    ModelSnapshot.objects.create(place=place, packed=b"-")
    questions: list[str] = []

    def note(work: str, *given: Any) -> Any:
        questions.append(work)
        raise OutdatedSnapshot

    before = set(sys.modules)
    monkeypatch.setattr(whatif, "run_low_priority", note)
    monkeypatch.setattr(gains, "run_low_priority", note)
    query = whatif.Question(place, "carrot", NOW.date(), 14, "")
    assert whatif.what_if_page(query, Units(), NOW.date()).waiting
    assert gains.gains_page(place, "carrot", None, gains.Costs(), Units()).waiting
    assert questions == [whatif.WHAT_IF, gains.HEAT_GAINS]
    assert not {name for name in set(sys.modules) - before if name.startswith("cloche_engine.soil.simulate")}


def test_what_goes_wrong_there_comes_back_and_the_next_is_answered(helper: None) -> None:
    with pytest.raises(ValueError, match="no such bed"):
        turns.run_low_priority("tests.apps.work.elsewhere:refuse", "no such bed")
    assert turns.run_low_priority("builtins:max", 3, 4) == 4


def test_one_that_is_killed_is_replaced(helper: None) -> None:
    pid, _nice = turns.run_low_priority(ASK)
    os.kill(pid, signal.SIGKILL)
    for _ in range(100):
        if not os.path.exists(f"/proc/{pid}/exe"):
            break
        time.sleep(0.05)
    assert turns.run_low_priority(ASK)[0] != pid


def test_within_a_process_one_has_the_turn_and_the_others_do_not_ask_the_database(
    db: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(turns, "HERE_S", 0.01)
    questions: list[str] = []
    monkeypatch.setattr(turns, "_ask", lambda question, kind: questions.append(question) or True)
    with turns.turn(turns.ENGINE) as mine:
        with turns.turn(turns.ENGINE) as other, turns.turn(turns.ARCHIVE) as archive:
            assert (mine, other, archive) == (True, False, True)
        assert len(questions) == 3
    with turns.turn(turns.ENGINE) as again:
        assert again
    # What goes wrong in a turn ends it.
    with pytest.raises(ZeroDivisionError), turns.turn(turns.ENGINE):
        raise ZeroDivisionError
    assert not turns.HERE[turns.ENGINE].locked()
