"""A job of the day, as it is told and answered."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

MORNING_H, DAY_H, EVENING_H = 6.5, 12.0, 17.5
"""Where jobs without an hour of their own stand in the day."""


@dataclass(frozen=True)
class Job:
    """key: which job of which thing, without its day; when: words; at_h: its hour, which orders the day; do: what to do; why:
    the reason with numbers and how sure. link: (words, address) of where it is done, empty where a tick is enough; works: what
    a tick writes into the record, empty: only that it was done. urgent: harm comes of leaving it."""

    key: str
    when: str
    at_h: float
    do: str
    why: str
    place: str
    place_pk: int
    link: tuple[str, str] = ("", "")
    works: str = ""
    urgent: bool = False

    def of_day(self, today: date) -> str:
        """Its key on a day: answered today it may come again tomorrow."""
        return f"{self.key}:{today.isoformat()}"
