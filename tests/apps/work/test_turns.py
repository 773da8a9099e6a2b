"""Heavy questions are worked out beside the pages, not among them."""

import os
import signal
import time
from typing import Any

import pytest

from cloche.apps.work import turns


@pytest.fixture
def helper(settings: Any) -> Any:
    settings.CLOCHE_HELPER = True
    yield
    turns._helper().shutdown()
    turns._helper.cache_clear()


def ask() -> tuple[int, int]:
    return os.getpid(), os.nice(0)


def refuse(word: str) -> None:
    raise ValueError(word)


def test_in_a_process_of_its_own_that_stands_back(helper: None) -> None:
    pid, nice = turns.quietly(ask)
    assert pid != os.getpid()
    assert nice >= os.nice(0) + 9
    assert turns.quietly(ask)[0] == pid, "one, kept for the next question"


def test_what_goes_wrong_there_comes_back_and_the_next_is_answered(helper: None) -> None:
    with pytest.raises(ValueError, match="no such bed"):
        turns.quietly(refuse, "no such bed")
    assert turns.quietly(max, 3, 4) == 4


def test_one_that_is_killed_is_replaced(helper: None) -> None:
    pid, _nice = turns.quietly(ask)
    os.kill(pid, signal.SIGKILL)
    for _ in range(100):
        if not os.path.exists(f"/proc/{pid}/exe"):
            break
        time.sleep(0.05)
    assert turns.quietly(ask)[0] != pid
