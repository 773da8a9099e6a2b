"""Random gardens through the application's forms, random steps, every page: do they agree? Prints contradictions with the pages
involved. Repeatable by its seed: `./run bench agreement [GARDENS [SEED]]`.
"""

from __future__ import annotations

import sys
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from multiprocessing import get_context

GARDENS, SEED, PROCESSES, SHOWN = 200, 31, 2, 40


@dataclass
class Report:
    """Of one garden: what contradicts what, and what did not answer."""

    number: int
    contradictions: list[str] = field(default_factory=list)
    errors: list[str] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)


def looked_at(job: tuple[int, int]) -> Report:
    """One garden, made, lived in and looked at; nothing of it is kept."""
    from django.db import transaction
    from django.test import override_settings

    number, seed = job
    report = Report(number)
    with override_settings(ALLOWED_HOSTS=["*"], CLOCHE_HELPER=False), transaction.atomic():
        try:
            _look(number, seed, report)
        except Exception as fault:  # noqa: BLE001 - every fault is counted, whatever it is
            report.errors.append(f"{type(fault).__name__}: {str(fault)[:200]}")
        transaction.set_rollback(True)
    return report


def _look(number: int, seed: int, report: Report) -> None:
    from bench.agree.gardens import make, steps
    from bench.agree.invariants import INVARIANTS
    from bench.agree.pages import Pages
    from cloche.apps.forecasts.flows import refresh

    world = make(number, seed)
    for _ in range(2):
        for place in world.garden.places.select_related("garden"):
            try:
                refresh(place)
            except Exception as fault:  # noqa: BLE001 - a place without a forecast is counted, the others go on
                report.errors.append(f"{place.name} ({place.kind}): {type(fault).__name__}: {str(fault)[:120]}")
        if not world.steps:
            steps(world)
    pages = Pages(world)
    pages.ask_for_all()
    for invariant in INVARIANTS:
        contradictions = [f"{invariant.text} [{invariant.pages}]: {detail}" for detail in invariant.check(pages)]
        report.contradictions += contradictions[:3]
    report.errors += pages.errors
    report.refused += world.refused


def ready() -> None:
    """Before a process looks at any garden: Django, contexts of templates kept, a season that is looked weeks ahead."""
    import os

    os.environ["DJANGO_SETTINGS_MODULE"] = "cloche.config.settings.bench"
    import django

    django.setup()
    from django.test.utils import setup_test_environment

    setup_test_environment(debug=False)
    shorten()


def shorten() -> None:
    """Windows weeks ahead instead of a year, fewer rounds of learning: pages are compared here, not forecasts judged."""
    import numpy as np

    from cloche_engine.forecast import outlooks, steps
    from cloche_engine.layout import NEAR_PAST_D
    from cloche_engine.soil import calibrate

    outlooks.CANDIDATES = np.arange(0, 32)
    steps.SOIL_D, steps.RUN_UP_D = 67, NEAR_PAST_D
    calibrate.MOST_CALLS, calibrate.SCAN, calibrate.LONGEST_MEMORY_D = (2, 2), 2, 8  # type: ignore[assignment]


def main(gardens: float = GARDENS, seed: float = SEED) -> int:
    """Print what contradicts what; 1 where anything does."""
    ready()
    from django.core.management import call_command
    from django.db import connections

    call_command("ready", verbosity=0)
    connections.close_all()
    jobs = [(number, int(seed)) for number in range(int(gardens))]
    contradictions: Counter[str] = Counter()
    errors: Counter[str] = Counter()
    first: dict[str, str] = {}
    refused = 0
    with ProcessPoolExecutor(PROCESSES, get_context("spawn"), ready) as pool:
        for report in pool.map(looked_at, jobs):
            for line in report.contradictions:
                kind = line.partition("]: ")[0] + "]"
                contradictions[kind] += 1
                first.setdefault(kind, f"garden {report.number}: {line.partition(']: ')[2]}")
            for line in report.errors:
                errors[f"garden {report.number}: {line}"] += 1
            refused += len(report.refused)
            if sys.stderr.isatty():
                print(f"\r{report.number + 1} of {len(jobs)}", end="", file=sys.stderr)
    for kind, times in contradictions.most_common():
        print(f"{times:4d}  {kind}\n      {first[kind]}")
    for line in list(errors)[:SHOWN]:
        print(f"error  {line}")
    print(f"{refused} forms were refused")
    print(f"agreement: {sum(contradictions.values())} contradictions, {sum(errors.values())} errors in {len(jobs)} gardens")
    return 1 if contradictions or errors else 0
