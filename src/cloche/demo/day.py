"""The demo's day: `python -m cloche.demo.day [YYYY-MM-DD|today]` prints by how many days it differs from the real one.

Left open it is the last 22 April gone by: spring in the north, autumn in the south, and much to decide.
"""

from __future__ import annotations

import sys
from datetime import date

DEFAULT_MONTH, DEFAULT_DAY = 4, 22


def demo_day(word: str, real: date) -> date:
    """Return the day for a word on the command line. Raises ValueError."""
    if word == "today":
        return real
    if word:
        return date.fromisoformat(word)
    spring = date(real.year, DEFAULT_MONTH, DEFAULT_DAY)
    return spring if spring <= real else date(real.year - 1, DEFAULT_MONTH, DEFAULT_DAY)


def main(argv: list[str]) -> int:
    """Print the offset in days, or exit with 1 and a sentence if the date cannot be read."""
    real = date.today()
    try:
        day = demo_day(argv[1] if len(argv) > 1 else "", real)
    except ValueError:
        sys.stderr.write(f"Cloche cannot go on: “{argv[1]}” is not a date; write it like 2027-04-08, or “today”.\n")
        return 1
    sys.stdout.write(str((day - real).days))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv))
