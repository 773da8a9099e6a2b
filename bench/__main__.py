"""All tables: `./run bench`; of another file of the same columns: `./run bench STATION.csv`; one part: `./run bench covers`;
of covers against what was measured under them: `./run bench gains CONDITIONS.csv`; of windows against days that any grower
would agree with: `./run bench calendars SITES.csv PROBES.csv`; the engine beside its last release: `./run bench speed`;
machines made of this one: `./run bench hosts`."""

from __future__ import annotations

import importlib
import os
import sys
from pathlib import Path

from bench import (
    accuracy,
    beside,
    calendars,
    climate,
    covers,
    diurnal,
    earlier,
    emergence,
    gains,
    reliability,
    speed,
    undercover,
    vents,
)

ALONE = {
    "covers": covers.print_table,
    "vents": vents.table,
    "bands": undercover.table,
    "earlier": earlier.table,
    "climate": climate.main,
}
"""What needs the engine alone."""
ROOMS = ("crossing", "drag", "farm", "ingest", "pages", "scale")
SCORED = {"gains": 1, "frosts": 1, "calendars": 2}
"""What scores files that are named behind it, and how many."""
OUTSIDE = ("after", "agreement", "edr", "faults", "fuzz", "gardens", "heavy", "images", "schema", "structure")
"""What is loaded only when it is asked for, with numbers behind it; most start the application and stand before it."""
MEASURED = Path(__file__).parent / "data" / "covers_measured.csv"
STATION = Path(__file__).parent / "data" / "station_hourly_2025.csv"


def main(argv: list[str]) -> int:
    """Accuracy of soil and emergence, then the pages' speed."""
    if len(argv) > 1 and argv[1] in OUTSIDE:
        return int(importlib.import_module(f"bench.{argv[1]}").main(*(float(word) for word in argv[2:])))
    if len(argv) > 1 and len(argv) - 2 == SCORED.get(argv[1]):
        return int(importlib.import_module(f"bench.{argv[1]}").main(*argv[2:]))
    if len(argv) > 1 and argv[1] == "hosts":
        return int(importlib.import_module("bench.hosts").main(*argv[2:]))
    if len(argv) > 1 and argv[1] == "speed":
        return beside.main(*argv[2:3])
    if len(argv) > 1 and argv[1] in ROOMS:
        return _room(argv[1])
    if len(argv) > 1 and argv[1] in ALONE:
        ALONE[argv[1]]()
        return 0
    path = Path(argv[1]) if len(argv) > 1 else STATION
    if not path.exists():
        scored = (part + " FILE.csv" * files for part, files in SCORED.items())
        known = ", ".join(sorted({"speed", *OUTSIDE, *ROOMS, *ALONE, *scored}))
        print(f"“{argv[1]}” is neither a part of the benchmark ({known}) nor a file that is there.", file=sys.stderr)
        return 64
    print("## Soil, fourteen days ahead\n")
    accuracy.print_tables(path)
    diurnal.print_table(path)
    print("\n## The engine's speed\n")
    speed.print_tables()
    print("\n## Emergence against the tables\n")
    emergence.print_tables()
    print("\n## The climate of regions\n")
    climate.main()
    print("\n## Windows against the calendars of growers\n")
    calendars.main()
    calendars.main(str(calendars.OWN_SITES), str(calendars.OWN_PROBES))
    calendars.main(str(calendars.WIDE_SITES), str(calendars.WIDE_PROBES))
    print("\n## Whether windows hold\n")
    reliability.print_tables(path)
    print("\n## What a cover would buy\n")
    covers.print_table()
    gains.main(str(MEASURED))
    print("\n## Days sooner under a cover\n")
    earlier.table()
    print("\n## Whether the band under a cover holds\n")
    undercover.table()
    print("\n## Opening and shutting\n")
    vents.table()
    print("\n## Loggers\n")
    wrong = _room("ingest")
    print("\n## Pages\n")
    return _room("pages") or wrong


def _room(name: str) -> int:
    """What needs the application: its pages, its loggers, years of them."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "cloche.config.settings.bench"
    import django

    django.setup()
    return int(importlib.import_module(f"bench.{name}").main())


if __name__ == "__main__":
    sys.exit(main(sys.argv))
