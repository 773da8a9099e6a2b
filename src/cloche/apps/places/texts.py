"""What this room calls things."""

from __future__ import annotations

from cloche.apps.shared.i18n import lazy
from cloche.core.soil.bed import Work

WORK_NAMES = {
    Work.WATERED: lazy("watered"),
    Work.MULCHED: lazy("mulched"),
    Work.MULCH_OFF: lazy("mulch off"),
    Work.COMPOST: lazy("compost spread"),
    Work.STONES: lazy("stones laid"),
    Work.DUG: lazy("bed dug"),
    Work.CANOPY: lazy("canopy closed"),
    Work.THINNED: lazy("thinned"),
    Work.HARVESTED: lazy("harvested"),
    Work.FILLED: lazy("hotbed filled"),
    Work.OPENED: lazy("cover opened"),
    Work.SHUT: lazy("cover shut"),
}
ON_ROUNDS = (
    Work.OPENED,
    Work.SHUT,
    Work.WATERED,
    Work.MULCHED,
    Work.COMPOST,
    Work.DUG,
    Work.STONES,
    Work.THINNED,
    Work.HARVESTED,
)
"""What is done to a place on a round, in the order of how often."""


def work_choices() -> list[tuple[str, str]]:
    """What growers do to a place, for choosing."""
    return [(str(work), name) for work, name in WORK_NAMES.items()]


def round_choices() -> list[tuple[str, str]]:
    """What is done to a place on a round, for choosing."""
    return [(str(work), WORK_NAMES[work]) for work in ON_ROUNDS]


def work_name(work: str) -> str:
    """Of something that was done."""
    return WORK_NAMES[Work(work)]
