"""A port of one's own is one that no connection going out can take meanwhile."""

import socket
from pathlib import Path

import pytest

from cloche.supervisor import ports


def test_it_lies_below_those_that_connections_get() -> None:
    first = int(Path("/proc/sys/net/ipv4/ip_local_port_range").read_text().split()[0])
    assert all(ports.LOWEST <= ports.free_port() < first for _ in range(50))


def test_one_that_somebody_listens_on_is_not_given(monkeypatch: pytest.MonkeyPatch) -> None:
    with socket.socket() as taken:
        free = ports.free_port()
        taken.bind(("127.0.0.1", free))
        taken.listen()
        drawn = iter([free, free + 1, *range(free + 2, free + 200)])
        monkeypatch.setattr(ports.random.SystemRandom, "randrange", lambda *_: next(drawn))
        assert ports.free_port() > free


@pytest.mark.parametrize("said", ["1024\t65535\n", "nothing\n", ""])
def test_where_connections_get_all_any_free_one_will_do(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, said: str) -> None:
    file = tmp_path / "range"
    file.write_text(said)
    monkeypatch.setattr(ports, "GOING_OUT", file)
    with socket.socket() as tried:
        tried.bind(("127.0.0.1", ports.free_port()))
