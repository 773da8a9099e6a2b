"""Several machines made of one: a proxy, two webs, workers, a database and the one that follows it, a pooler, the weather; many
gardens made up, a night's work and a morning's rounds; then a worker, a web and the database are lost, one after another. With
a commit named, all of it begins from that one's code and goes over to this while loggers send.

`./run bench hosts [GARDENS [COMMIT]]`, as root.
"""

from __future__ import annotations

import os
import shutil
import statistics
import tempfile
from contextlib import nullcontext
from pathlib import Path

from bench.beside import checkout
from bench.growers import Morning, Sending
from bench.installation import Installation
from bench.running import ROOT
from bench.sheet import print_sheet

GARDENS, WORKERS, SHARE_S, MORNING_S = "40", 2, 60.0, 60.0


def main(gardens: str = GARDENS, commit: str = "") -> int:
    """Print what was found; 1 where a reading that was answered is lost or doubled, or the work is not caught up with."""
    if os.geteuid() != 0:
        print("Machines can be made of one by root alone.")
        return 1
    place = Path(tempfile.mkdtemp(prefix="cloche-hosts-"))
    place.chmod(0o755)
    with checkout(commit) if commit else nullcontext(ROOT) as code:
        site = Installation(place, code)
        try:
            return _all(site, int(gardens), commit)
        finally:
            site.close()
            shutil.rmtree(place, ignore_errors=True)


def _all(site: Installation, gardens: int, commit: str) -> int:
    site.begin()
    made = site.make(gardens)
    places = sum(len(garden["places"]) for garden in made)
    print(f"{gardens} gardens, {places} places; {os.cpu_count()} cores for all machines together.\n")

    print("| workers | places worked out a minute |\n|---|---|")
    for number in range(1, WORKERS + 1):
        site.worker(f"worker{number}")
        print(f"| {number} | {site.rate_a_minute(SHARE_S):.0f} |", flush=True)
    night_s, spent_s = site.until_fresh(), site.spent_s()
    print(f"\nThe rest of the night's work took {night_s:.0f} s more.\n")

    with Sending(site.url, made) as sending:
        morning = Morning(site.url, made)
        lags = site.lags_while(lambda: morning.run(MORNING_S))
        print("| a morning's rounds | answers | median ms | 95th percentile | longest |\n|---|---|---|---|---|")
        for name, took in morning.took_ms.items():
            print(f"| {name} | {len(took)} | {_row(took)} |")
        print(f"\nThe second database was {_row([1000 * lag for lag in lags])} ms behind (median, 95th percentile, longest).")
        print(f"Work waited for {site.until_fresh():.0f} s after the last reading of the rounds.\n", flush=True)

        if commit:
            sending.longest_s = 0.0
            took_s = site.go_over_to(ROOT)
            print(f"From {commit} to this code in {took_s:.0f} s, {sending.longest_s:.1f} s at most without an answer.\n")
        print("| lost | without an answer s | caught up after s |\n|---|---|---|")
        for what, lose in (("a worker", site.lose_worker), ("a web", site.lose_web), ("the database", site.lose_database)):
            site.make_stale()
            sending.longest_s = 0.0
            lose()
            caught_up_s = site.until_fresh()
            print(f"| {what} | {sending.longest_s:.1f} | {caught_up_s:.0f} |", flush=True)
    lost, doubled = site.compared(set(sending.answered), morning.answered)
    print(f"\n{len(sending.answered) + len(morning.answered)} readings answered for: {lost} lost, {doubled} doubled.\n")
    print_sheet(spent_s / places, site.bytes_a_garden(gardens))
    return int(bool(lost or doubled))


def _row(values: list[float]) -> str:
    if len(values) < 2:
        return " | ".join(f"{value:.0f}" for value in values * 3)
    p95 = statistics.quantiles(values, n=20, method="inclusive")[-1]
    return f"{statistics.median(values):.0f} | {p95:.0f} | {max(values):.0f}"
