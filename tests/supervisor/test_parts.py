"""A part that ends is started again, with a pause that grows and is forgotten; told to stop it stops."""

import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from cloche.supervisor import parts
from cloche.supervisor.parts import Database, Part, how_it_ended


def part(code: str, **more: object) -> Part:
    return Part("The part", [sys.executable, "-c", code], **more)  # type: ignore[arg-type]


def until_ended(started: Part) -> None:
    assert started.process is not None
    started.process.wait(20)


def test_one_that_ends_is_started_again_after_a_pause_that_grows(monkeypatch: pytest.MonkeyPatch) -> None:
    now, said = [1000.0], list[str]()
    monkeypatch.setattr(parts.time, "monotonic", lambda: now[0])
    unit = part("raise SystemExit(3)")
    unit.start()
    pauses = []
    for _ in range(8):
        until_ended(unit)
        unit.look(said.append)
        pauses.append(unit.due_s - now[0])
        unit.look(said.append)
        assert unit.process is None  # not before its time
        now[0] = unit.due_s
        unit.look(said.append)
    assert pauses == [0.5, 1.0, 2.0, 4.0, 8.0, 16.0, 30.0, 30.0]
    assert said[0] == "The part ended with 3; it is started again in 0.5 s."
    assert unit.restarts == 8
    until_ended(unit)
    now[0] += parts.STEADY_S  # it ran for a while: the next end is a first one again
    unit.look(said.append)
    assert unit.due_s - now[0] == 0.5


def test_one_that_cannot_be_started_is_tried_again_and_ends_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    now, said = [1000.0], list[str]()
    monkeypatch.setattr(parts.time, "monotonic", lambda: now[0])
    unit = Part("The part", ["/no/such/program"])
    unit.look(said.append)
    assert "cannot be started" in said[0]
    assert unit.due_s > now[0]


@pytest.mark.skipif(not Path("/dev/full").exists(), reason="no disk here is always full")
def test_what_cannot_be_said_ends_nothing() -> None:
    given = "from cloche.supervisor.parts import report\nreport('a sentence')\nprint('and on')"
    with open("/dev/full", "w") as full:
        done = subprocess.run([sys.executable, "-c", given], stdout=subprocess.PIPE, stderr=full, env={"PYTHONPATH": "src"})  # noqa: S603
    assert done.stdout == b"and on\n"


def test_told_to_stop_it_ends_in_order_or_at_once(tmp_path: Path) -> None:
    mark = tmp_path / "ended"
    gentle = part(
        f"import pathlib, signal, sys, time\n"
        f"signal.signal(signal.SIGTERM, lambda *_: (pathlib.Path({str(mark)!r}).touch(), sys.exit(0)))\n"
        f"print('on', flush=True)\ntime.sleep(60)",
        log=str(tmp_path / "log"),
    )
    stubborn = part(
        "import signal, time\nsignal.signal(signal.SIGTERM, signal.SIG_IGN)\nprint('on', flush=True)\ntime.sleep(60)",
        log=str(tmp_path / "other"),
    )
    for unit in (gentle, stubborn):
        unit.start()
    for _ in range(200):
        if all((tmp_path / name).exists() and (tmp_path / name).read_text() for name in ("log", "other")):
            break
        time.sleep(0.05)
    gentle.stop(20)
    stubborn.stop(0.3)
    assert mark.exists()
    assert stubborn.process is not None
    assert stubborn.process.returncode == -signal.SIGKILL


@pytest.mark.parametrize(
    ("code", "said"), [(0, "ended with 0"), (3, "ended with 3"), (-9, "was ended by SIGKILL"), (-64, "-64")]
)
def test_how_it_ended_is_said_in_words(code: int, said: str) -> None:
    assert said.replace("-64", "") in how_it_ended(code)


def test_one_that_stands_back_lets_every_other_session_go_first() -> None:
    unit = part("import time; time.sleep(60)", stands_back=True)
    unit.start()
    try:
        assert unit.process is not None
        share = Path(f"/proc/{unit.process.pid}/autogroup")
        if not share.exists():
            pytest.skip("this kernel does not share the processor among sessions")
        assert share.read_text().split()[-1] == parts.HINDMOST
        # What has no session of its own, as on a machine that was just set up, has nothing written there.
        assert Path("/proc/self/autogroup").read_text().split()[-1:] != [parts.HINDMOST]
    finally:
        unit.stop(5)


def test_where_there_is_no_such_sharing_nothing_is_amiss(capsys: pytest.CaptureFixture[str]) -> None:
    parts.stand_back(2**22 + 1)
    assert capsys.readouterr().err == ""


def test_the_database_is_ready_when_it_says_so_itself(tmp_path: Path) -> None:
    """What else listens where it would is not it."""
    database = Database("The database", [sys.executable, "-c", "import time; time.sleep(60)"], folder=str(tmp_path))
    assert not database.is_ready()
    database.start()
    assert database.process is not None
    try:
        says = tmp_path / "postmaster.pid"
        assert not database.is_ready()  # it has not spoken yet
        for pid, how, ready in (
            (database.process.pid, "starting", False),
            (database.process.pid, "ready   ", True),
            (database.process.pid, "stopping", False),
            (1, "ready   ", False),  # what a database of before left
        ):
            says.write_text(f"{pid}\n/var/lib/my data\n1775628000\n23456\n\n127.0.0.1\n  1234  5\n{how}\n")
            assert database.is_ready() is ready
    finally:
        database.stop(20)
