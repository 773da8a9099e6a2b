"""A whole installation on several hosts, by the commands that docs/operations.md gives: begun, worked, hit, and put right."""

from __future__ import annotations

import json
import secrets
import shutil
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

import psycopg
import requests

from bench.network import NET, Host, Network
from bench.running import ROOT, WAITS_S
from cloche.supervisor import parts

DB, POOL, WEB, HTTP, WEATHER = 5432, 6432, 8000, 80, 8077
SPRING_D = 130
"""The installation lives so many days ahead, when there is something to be worked out."""
POOLER = """[databases]
cloche = host={database} port={port} dbname=cloche
[pgbouncer]
listen_addr = {address}
listen_port = {pool}
unix_socket_dir =
auth_type = scram-sha-256
auth_file = {place}/users
pool_mode = session
max_client_conn = 500
default_pool_size = 120
server_connect_timeout = 3
server_login_retry = 1
tcp_keepidle = 5
tcp_keepintvl = 2
tcp_keepcnt = 3
tcp_user_timeout = 10000
pidfile = {place}/pid
"""
PROXY = """daemon off; worker_processes 1; pid {place}/pid; error_log {place}/error.log;
events {{}}
http {{ access_log off; client_body_temp_path {place}/b; proxy_temp_path {place}/p; fastcgi_temp_path {place}/f;
uwsgi_temp_path {place}/u; scgi_temp_path {place}/s;
upstream webs {{ {webs} }}
server {{ listen {address}:{http}; location / {{ proxy_pass http://webs; proxy_set_header Host localhost;
proxy_connect_timeout 1s; proxy_read_timeout 60s; proxy_next_upstream error timeout; }} }} }}
"""


class Installation:
    """place: an empty folder that every user may enter; code: the checkout that its parts run from."""

    def __init__(self, place: Path, code: Path = ROOT) -> None:
        self.place, self.code, self.network = place, code, Network(place)
        self.password, self.secret = secrets.token_urlsafe(18), secrets.token_urlsafe(48)
        names = ("database", "second", "pooler", "weather", "proxy", "web1", "web2", "rounds")
        self.hosts = {name: self.network.host(name) for name in names}
        self.first, self.second = self.hosts["database"], self.hosts["second"]
        self.url = f"http://{self.hosts['proxy'].address}"
        self.empty_bytes = 0.0

    def begin(self) -> None:
        """Everything but the workers, until it answers."""
        self._database(self.first)
        self._until(lambda: self._asks("SELECT 1", on=self.first) == "1", "the database")
        self._database(self.second, CLOCHE_DB_FOLLOWS=f"{self.first.address}:{DB}")
        self._until(lambda: self._keeper("SELECT state FROM pg_stat_replication") == "streaming", "the second database")
        # No reading is answered for that only one of them has.
        self._keeper("ALTER SYSTEM SET synchronous_standby_names = 'follower'")
        self._keeper("SELECT pg_reload_conf()")
        self._pool(self.first)
        weather = self.hosts["weather"]
        weather.start(
            *(sys.executable, "-m", "cloche.demo.weather_service", "--host", weather.address, "--port", str(WEATHER)),
            *("--day-offset", str(SPRING_D)),
            PYTHONPATH=str(self.code / "src"),
        )
        self._manage(self.hosts["rounds"], "ready", "-v", "0")
        for name in ("web1", "web2"):
            self._web(self.hosts[name])
        self._start(self.hosts["rounds"], "rounds")
        self._proxy()
        self._until(partial(_answers, self.url), "a page")

    def close(self) -> None:
        """All of it ended."""
        self.network.close()

    def make(self, gardens: int) -> list[dict[str, Any]]:
        """So many gardens; their facts."""
        self.empty_bytes = self._bytes()
        env = self.env(self.hosts["rounds"]) | {"PYTHONPATH": f"{self.code}/src:{ROOT}"}
        said = self.hosts["rounds"].run(sys.executable, "-m", "bench.made_up", str(gardens), **env)
        return [json.loads(line) for line in said.splitlines()]

    def worker(self, name: str) -> Host:
        """One more host that works."""
        host = self.hosts[name] = self.hosts.get(name) or self.network.host(name)
        # On a machine of its own it would take nothing from the others; here it stands back, as it does on one machine.
        parts.stand_back(self._start(host, "work", "--without-rounds").pid)
        return host

    def rate_a_minute(self, seconds: float) -> float:
        """Places worked out, from the first on, over so long or until there are none left."""
        self.make_stale()
        all_of_them = self.stale()
        self._until(lambda: self.stale() < all_of_them, "the first place")
        begun, before = time.monotonic(), self.stale()
        while time.monotonic() - begun < seconds and self.stale():
            time.sleep(0.5)
        return 60 * (before - self.stale()) / (time.monotonic() - begun)

    def make_stale(self) -> None:
        """As a night does: every place is due again."""
        self._asks("UPDATE places_place SET input_revision = input_revision + 1")

    def stale(self) -> int:
        """Places that are due."""
        fresh = "EXISTS (SELECT FROM forecasts_forecast f WHERE f.place_id = p.id AND f.input_revision = p.input_revision)"
        return int(self._asks(f"SELECT count(*) FROM places_place p WHERE NOT {fresh}"))  # noqa: S608 - our own words

    def until_fresh(self) -> float:
        """Until no place is due; seconds that took."""
        begun = time.monotonic()
        self._until(lambda: self.stale() == 0, "fresh forecasts", tries=7200)
        return time.monotonic() - begun

    def spent_s(self) -> float:
        """Processor time of the work done for all gardens, a forecast of each place."""
        rows = "SELECT sum(seconds) / sum(count) FROM work_worked WHERE task LIKE 'forecasts.%'"
        return float(self._asks(rows)) * int(self._asks("SELECT count(*) FROM places_place"))

    def bytes_a_garden(self, gardens: int) -> float:
        """What the database takes of a disk for one."""
        return (self._bytes() - self.empty_bytes) / gardens

    def _bytes(self) -> float:
        return float(self._asks("SELECT pg_database_size('cloche')"))

    def lags_while(self, what: Callable[[], None]) -> list[float]:
        """How far the second database is behind meanwhile [s], looked at twice a second."""
        ended, lags = threading.Event(), list[float]()

        def look() -> None:
            while not ended.wait(0.5):
                lags.append(
                    float(self._keeper("SELECT coalesce(extract(epoch FROM replay_lag), 0) FROM pg_stat_replication") or 0)
                )

        looking = threading.Thread(target=look)
        looking.start()
        try:
            what()
        finally:
            ended.set()
            looking.join()
        return lags

    def lose_worker(self) -> None:
        """What it had in hand is taken up by the others."""
        name = max(name for name in self.hosts if name.startswith("worker"))
        self._first_worked()
        self.hosts[name].lose()
        self.hosts[name].back()

    def lose_web(self) -> None:
        """The proxy leaves it out; it comes back by itself as services do."""
        web = self.hosts["web2"]
        web.lose()
        time.sleep(10)
        web.back()
        self._web(web)

    def go_over_to(self, code: Path) -> float:
        """The tables first, then one part after another, each only when the one before it answers; seconds that took."""
        begun, self.code = time.monotonic(), code
        self._manage(self.hosts["rounds"], "ready", "-v", "0")
        for name in ("web1", "web2"):
            web = self.hosts[name]
            web.stop()
            self._web(web)
            self._until(partial(_answers, f"http://{web.address}:{WEB}"), name)
        for name in sorted(name for name in self.hosts if name.startswith("worker")):
            self.hosts[name].stop()
            self.worker(name)
        self.hosts["rounds"].stop()
        self._start(self.hosts["rounds"], "rounds")
        return time.monotonic() - begun

    def lose_database(self) -> None:
        """The second one takes over, by the commands of docs/operations.md."""
        self._first_worked()
        self.first.lose()
        self.first, self.second = self.second, self.first
        control = Path(self._pg_bin()) / "pg_ctl"
        self.first.run(str(control), "-D", str(self._data(self.first)), "-w", "promote", user="postgres")
        self._pool(self.first)

    def _first_worked(self) -> None:
        """Until the work has begun, or there is nothing to lose."""
        all_of_them = self.stale()
        self._until(lambda: self.stale() < all_of_them, "the first place")

    def compared(self, logged: set[tuple[int, str]], read: list[tuple[int, float]]) -> tuple[int, int]:
        """How many of what was answered for are not there, and how many are there more than once."""
        with self._connected(self.first) as there:
            values = "SELECT p.place_id, r.at FROM loggers_reading r JOIN loggers_probe p ON p.id = r.probe_id"
            rows = [(place, at.isoformat()) for place, at in there.execute(values)]
            also = [
                (place, round(value, 2))
                for place, value in there.execute("SELECT place_id, temperature_c FROM readings_reading")
            ]
        there_once, there_too = set(rows), set(also)
        lost = sum(reading not in there_once for reading in logged) + sum(reading not in there_too for reading in read)
        return lost, len(rows) - len(there_once) + sum(also.count(reading) > 1 for reading in read)

    # The parts.

    def env(self, host: Host) -> dict[str, str]:
        """What a part of the application is told."""
        return {
            "CLOCHE_DB_HOST": self.hosts["pooler"].address,
            "CLOCHE_DB_PORT": str(POOL),
            "CLOCHE_DB_PASSWORD": self.password,
            "CLOCHE_SECRET_KEY": self.secret,
            "CLOCHE_STATE": str(host.place),
            "CLOCHE_WEATHER_URL": f"http://{self.hosts['weather'].address}:{WEATHER}",
            "CLOCHE_DAY_OFFSET": str(SPRING_D),
            "DJANGO_SETTINGS_MODULE": "cloche.config.settings.production",
            "PYTHONPATH": f"{self.code}/src",
            "OMP_NUM_THREADS": "1",
            "OPENBLAS_NUM_THREADS": "1",
        }

    def _web(self, host: Host) -> None:
        self._manage(host, "collectstatic", "--noinput", "-v", "0")
        self._start(host, "web", "--listen", f"{host.address}:{WEB}")

    def _start(self, host: Host, *words: str) -> subprocess.Popen[bytes]:
        return host.start(sys.executable, "-m", "cloche.manage", *words, **self.env(host))

    def _manage(self, host: Host, *words: str) -> None:
        host.run(sys.executable, "-m", "cloche.manage", *words, **self.env(host))

    def _data(self, host: Host) -> Path:
        return host.place / "postgres" / "data"

    def _database(self, host: Host, **more: str) -> None:
        folder = host.place / "postgres"
        folder.mkdir(mode=0o700)
        shutil.chown(folder, "postgres")
        script = shutil.copy(ROOT / "deploy" / "database.sh", host.place / "database.sh")
        own = {"CLOCHE_DB_PASSWORD": self.password, "CLOCHE_DB_FOLLOWER_PASSWORD": self.secret, "LC_ALL": "C.UTF-8"}
        own |= {"CLOCHE_DB_LISTEN": host.address, "CLOCHE_DB_PORT": str(DB), "CLOCHE_DB_FROM": f"{NET}.0/24"}
        host.start("/bin/bash", str(script), str(folder), user="postgres", **own, **more)

    def _pool(self, database: Host) -> None:
        """Begun, or told of another database."""
        host = self.hosts["pooler"]
        facts = {"database": database.address, "port": DB, "address": host.address, "pool": POOL, "place": host.place}
        (host.place / "pooler.ini").write_text(POOLER.format(**facts))
        if host.running:
            host.running[-1].send_signal(1)
            return
        (host.place / "users").write_text(f'"cloche" "{self.password}"\n')
        shutil.chown(host.place, "postgres")
        host.start("/usr/sbin/pgbouncer", str(host.place / "pooler.ini"), user="postgres")

    def _proxy(self) -> None:
        host = self.hosts["proxy"]
        webs = " ".join(f"server {self.hosts[name].address}:{WEB} max_fails=1 fail_timeout=5s;" for name in ("web1", "web2"))
        conf = host.place / "nginx.conf"
        conf.write_text(PROXY.format(place=host.place, webs=webs, address=host.address, http=HTTP))
        host.start("/usr/sbin/nginx", "-e", str(host.place / "error.log"), "-c", str(conf))

    # Questions.

    def _connected(self, host: Host) -> psycopg.Connection[Any]:
        where = {"host": host.address, "port": DB, "user": "cloche", "password": self.password, "dbname": "cloche"}
        return psycopg.connect(**where, autocommit=True, connect_timeout=5)  # type: ignore[arg-type]

    def _asks(self, words: str, on: Host | None = None) -> str:
        with self._connected(on or self.first) as there:
            answer = there.execute(words)  # type: ignore[call-overload]
            row = answer.fetchone() if answer.description else None
        return "" if row is None else str(row[0])

    def _keeper(self, words: str) -> str:
        """As whoever owns the server, on its own machine."""
        socket = self._data(self.first).parent
        psql = [f"{self._pg_bin()}/psql", "-X", "-qAt", "-h", str(socket), "-p", str(DB), "-U", "keeper", "-d", "postgres"]
        return self.first.run(*psql, "-c", words, user="postgres")

    @staticmethod
    def _pg_bin() -> str:
        return max(Path("/usr/lib/postgresql").glob("*/bin"), key=lambda path: int(path.parent.name)).as_posix()

    def _until(self, true: Callable[[], bool], what: str, tries: int = 1200) -> None:
        for _ in range(tries):
            try:
                if true():
                    return
            except (psycopg.OperationalError, requests.RequestException, subprocess.CalledProcessError):
                pass  # it is not there yet, or not there again
            time.sleep(0.25)
        said = {host.name: _end(host.place / "said.log") for host in self.hosts.values()}
        raise AssertionError(f"waited in vain for {what}: {said}")


def _answers(url: str) -> bool:
    # A web knows itself by the name that its proxy gives it.
    return requests.get(f"{url}/healthz/", headers={"Host": "localhost"}, timeout=WAITS_S).status_code == 200


def _end(log: Path) -> str:
    return log.read_text(errors="replace")[-600:] if log.exists() else ""
