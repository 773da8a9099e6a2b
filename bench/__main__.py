"""All tables: `./run bench`, or of another file of the same columns `./run bench STATION.csv`."""

from __future__ import annotations

import os
import sys
from pathlib import Path

from bench import accuracy, diurnal, emergence, reliability, speed

STATION = Path(__file__).parent / "data" / "station_hourly_2025.csv"


def main(argv: list[str]) -> int:
    """Accuracy of soil and emergence, then the pages' speed."""
    print("## Soil, fourteen days ahead\n")
    path = Path(argv[1]) if len(argv) > 1 else STATION
    accuracy.print_tables(path)
    diurnal.print_table(path)
    print("\n## The engine's speed\n")
    speed.print_tables()
    print("\n## Emergence against the tables\n")
    emergence.print_tables()
    print("\n## Whether windows hold\n")
    reliability.print_tables(path)
    print("\n## Pages\n")
    os.environ["DJANGO_SETTINGS_MODULE"] = "cloche.config.settings.bench"
    import django

    django.setup()
    from bench import pages

    return pages.main()


if __name__ == "__main__":
    sys.exit(main(sys.argv))
