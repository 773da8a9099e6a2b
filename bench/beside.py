"""The engine's figures beside those of the last release, or of any commit: `./run bench speed [COMMIT]`.

Both run in turn, each in processes of its own from a checkout of its own, so that what else the machine does meets both.
Processor time is compared, the least of several turns.
"""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from bench import speed

ROOT = Path(__file__).parents[1]
TURNS = 4
FIGURES = {
    f"{speed.PLACES} open places x {speed.MEMBERS} members x {speed.DAYS} days": f"seconds({speed.PLACES}, 0, {speed.DAYS})",
    "the same, 7 of them covered": f"seconds({speed.PLACES}, 7, {speed.DAYS})",
    f"one open place, {speed.DAYS} days": f"seconds(1, 0, {speed.DAYS})",
    "one covered place, a fortnight (a what-if)": "seconds(1, 1, 14)",
    f"windows of {speed.CROPS} crops in one place": f"windows_of({speed.CROPS})",
}
"""What is measured, and how bench.speed of either checkout is asked for it."""
CHILD = """
import json, sys, time
from bench import speed
found = []
for call in json.loads(sys.argv[1]):
    eval("speed." + call)
    begun = time.process_time()
    eval("speed." + call)
    found.append(time.process_time() - begun)
print(json.dumps(found))
"""
"""Each is called once before, so that what is compiled or remembered is there."""


def main(commit: str = "") -> int:
    """Print the table; 1 where there is nothing to be put beside."""
    other = commit or _git("describe", "--tags", "--abbrev=0", fails=True)
    if not other:
        print("There is no release yet to be put beside: name a commit, ./run bench speed COMMIT.\n", file=sys.stderr)
        speed.print_tables()
        return 1
    with checkout(other) as there:
        theirs, ours = [], []
        for _ in range(TURNS):
            theirs.append(_measure(there))
            ours.append(_measure(ROOT))
    print(f"Processor seconds, the least of {TURNS} turns; before: {other}.\n")
    print("| run | before | now | ratio |\n|---|---|---|---|")
    for name, before, now in zip(FIGURES, map(min, zip(*theirs, strict=True)), map(min, zip(*ours, strict=True)), strict=True):
        print(f"| {name} | {before:.2f} | {now:.2f} | {now / before:.2f} |")
    return 0


@contextmanager
def checkout(commit: str) -> Iterator[Path]:
    """Its files, apart from ours."""
    place = Path(tempfile.mkdtemp(prefix="cloche-beside-"))
    _git("worktree", "add", "--detach", str(place / "src"), commit)
    try:
        yield place / "src"
    finally:
        _git("worktree", "remove", "--force", str(place / "src"))
        shutil.rmtree(place, ignore_errors=True)


def _measure(checkout: Path) -> list[float]:
    alone = {"OMP_NUM_THREADS": "1", "OPENBLAS_NUM_THREADS": "1", "NUMBA_NUM_THREADS": "1"}
    env = os.environ | alone | {"PYTHONPATH": f"{checkout / 'src'}:{checkout}"}
    command = [sys.executable, "-W", "ignore", "-c", CHILD, json.dumps(list(FIGURES.values()))]
    done = subprocess.run(command, cwd=checkout, env=env, capture_output=True, text=True, check=True)  # noqa: S603 - our own words
    return [float(value) for value in json.loads(done.stdout.splitlines()[-1])]


def _git(*words: str, fails: bool = False) -> str:
    done = subprocess.run(["/usr/bin/git", "-C", str(ROOT), *words], capture_output=True, text=True)  # noqa: S603
    if done.returncode and not fails:
        raise SystemExit(f"git: {done.stderr.strip()}")
    return done.stdout.strip() if not done.returncode else ""
