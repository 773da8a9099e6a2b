"""What the layout of every page of a garden knows: its rooms, and what the reader may do."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.http import HttpRequest
from django.urls import reverse

from cloche import __version__
from cloche.apps.gardens.access import GROWS, LOGS, OWNS
from cloche.apps.shared import clock, script_texts
from cloche.apps.shared.words import lazy


@dataclass(frozen=True)
class Room:
    """A link in the navigation; `key` is the letter that opens it."""

    name: str
    url: str
    key: str
    here: bool


@dataclass(frozen=True)
class Group:
    """Links with one purpose, or a link by itself without a name. `here` says whether the page is one of them."""

    key: str
    name: str
    rooms: list[Room]

    @property
    def here(self) -> bool:
        """Whether the page is one of its links."""
        return any(room.here for room in self.rooms)


ROOMS = (
    ("do", "", ((lazy("Today"), "today", "t"), (lazy("Round"), "round", "r"))),
    (
        "ahead",
        lazy("Plan ahead"),
        (
            (lazy("Soil"), "ground", "g"),
            (lazy("Germination"), "what_wakes", "w"),
            (lazy("Windows"), "windows", "n"),
            (lazy("Covers"), "covers", "c"),
            (lazy("Bench"), "bench", "b"),
            (lazy("Plan"), "plan", "p"),
        ),
    ),
    (
        "records",
        lazy("Records"),
        (
            (lazy("Sowings"), "sowings", "o"),
            (lazy("Years"), "years", "y"),
            (lazy("Weather"), "weather", "a"),
            (lazy("Files"), "files", "f"),
            (lazy("Garden"), "garden", "s"),
        ),
    ),
)
"""By what one comes for: to do, to look ahead, to keep records."""


def rooms(request: HttpRequest) -> dict[str, Any]:
    """Return the context of the layout, empty outside a garden."""
    garden = getattr(request, "garden", None)
    common = {"demo": settings.CLOCHE_DEMO, "version": __version__, "script_sentences": script_texts.sentences()}
    if garden is None or not request.user.is_authenticated:
        return common
    here = request.resolver_match.url_name if request.resolver_match else ""
    stands = {here, getattr(request, "room", "")}
    groups = [
        Group(key, name, [Room(n, reverse(u, args=[garden.pk]), k, u in stands) for n, u, k in rooms])
        for key, name, rooms in ROOMS
    ]
    gardens = request.user.gardens.all()
    role = request.membership  # type: ignore[attr-defined]
    may = {"log": role.may(LOGS), "grow": role.may(GROWS), "own": role.may(OWNS)}
    everywhere: dict[str, Any] = {"may": may, "days_ahead": settings.CLOCHE_DAY_OFFSET, "today": clock.today(garden.timezone)}
    return common | everywhere | {"room_groups": groups, "garden": garden, "gardens": gardens}
