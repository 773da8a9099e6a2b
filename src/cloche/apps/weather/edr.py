"""A weather provider that speaks OGC API – Environmental Data Retrieval: any collection that answers questions about a position
or a cube in CoverageJSON."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any
from urllib.parse import urlencode

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import clock
from cloche.apps.weather.provider import MOST_AHEAD, NoAnswer, ProviderAnswer, answer_from, read_from
from cloche.bridge.services import coverages

AHEAD_D, HOURLY_BACK_D, DAILY_BACK_Y = 16, 62, 30
"""How far it is asked: years of days only where a collection has its values by the day."""
CELL_DEG = 0.05
"""Sites so near each other are one question."""
AROUND_DEG = 0.15
"""Half of a cube's side where a collection knows no positions."""
CURRENT = timedelta(hours=2)
POSITION, CUBE = "position", "cube"
COVERAGE = re.compile(r"cov(erage)?[-_+ ]?json", re.IGNORECASE)
LEAST_DAYS = 1


SIMULATED = "simulated"
"""Keyword by which a stand-in says of itself that its weather is made up."""


@dataclass(frozen=True)
class Collection:
    """Used parts of a collection's description.

    `names` maps known parameters, `daily` tells whether all are daily, `query` is the preferred query type (position if
    possible), and `format` the name of CoverageJSON there if given.
    """

    url: str
    names: dict[str, Any]
    first: datetime | None
    last: datetime | None
    daily: bool
    query: str
    format: str | None
    simulated: bool = False


class EdrProvider:
    """Provider that reads one or more collections of a service; later ones fill what earlier ones lack."""

    def __init__(self, urls: Iterable[str]) -> None:
        self.urls = [url.rstrip("/") for url in urls]

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Query every collection around the garden's grid cell. Raises NoAnswer."""
        now, zone = clock.now(), garden.timezone
        latitude, longitude = (round(round(v / CELL_DEG) * CELL_DEG, 4) for v in (garden.latitude_deg, garden.longitude_deg))
        days: dict[date, dict[str, Any]] = {}
        current: float | None = None
        simulated = False
        for url in self.urls:
            collection = described(url, read_from(f"{url}?f=json"))
            simulated = simulated or collection.simulated
            runs = _series(collection, latitude, longitude, now)
            for day, row in coverages.days_of_runs(runs, zone).items():
                known = {name: value for name, value in row.items() if value is not None}
                days[day] = known | days.get(day, {})
            current = coverages.air_at(runs, now, CURRENT) if current is None else current
        answer = _answer(days, current, now, now.astimezone(zone).date())
        return answer_from(answer | {"simulated": simulated})


def described(url: str, document: Any) -> Collection:
    """Parse a collection's description. Raises NoAnswer."""
    try:
        named = document["parameter_names"]
        rows = named.items() if isinstance(named, dict) else [(entry["id"], entry) for entry in named]
        names = {key: parameter for key, parameter in rows if coverages.meant(parameter, key)}
        queries = document.get("data_queries") or {}
        intervals = ((document.get("extent") or {}).get("temporal") or {}).get("interval") or [[None, None]]
        first, last = (intervals[0] if isinstance(intervals[0], list) else intervals)[:2]
    except (AttributeError, KeyError, TypeError, ValueError, IndexError) as odd:
        raise NoAnswer(_("The weather service does not describe its collection as the standard requires.")) from odd
    if not names:
        raise NoAnswer(_("The weather service has no air temperature in a known unit."))
    query = POSITION if POSITION in queries or not queries else CUBE
    lasting = [str((entry.get("measurementType") or {}).get("duration", "")).lstrip("-") for entry in names.values()]
    keywords = document.get("keywords") or []
    return Collection(
        url,
        names,
        _instant(first),
        _instant(last),
        daily=set(lasting) == {"P1D"},
        query=query,
        format=_format(document, queries.get(query)),
        simulated=isinstance(keywords, list) and SIMULATED in keywords,
    )


def _format(document: dict[str, Any], query: Any) -> str | None:
    """Return the name of CoverageJSON among the formats of the query or the collection, or None.

    Names vary, and a server that lists none may refuse to be asked for one.
    """
    own = ((query.get("link") or {}).get("variables") or {}).get("output_formats") if isinstance(query, dict) else None
    listed = own or document.get("output_formats") or []
    return next((name for name in listed if isinstance(name, str) and COVERAGE.search(name)), None)


def _instant(text: object) -> datetime | None:
    """Parse an end of an interval; None where it is open."""
    try:
        instant = datetime.fromisoformat(str(text))
    except ValueError:
        return None
    return instant if instant.tzinfo else instant.replace(tzinfo=UTC)


def _series(collection: Collection, latitude: float, longitude: float, now: datetime) -> list[coverages.Series]:
    years = datetime(now.year - DAILY_BACK_Y, 1, 1, tzinfo=UTC)
    back = years if collection.daily else now - timedelta(days=HOURLY_BACK_D)
    first = max([back, *([collection.first] if collection.first else [])])
    last = min([now + timedelta(days=AHEAD_D), *([collection.last] if collection.last else [])])
    if last < first:
        return [{}]
    words = {
        "datetime": "/".join(at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ") for at in (first, last)),
        "parameter-name": ",".join(collection.names),
    }
    if collection.format:
        words["f"] = collection.format
    if collection.query == POSITION:
        where = {"coords": f"POINT({longitude} {latitude})"}
    else:
        box = (longitude - AROUND_DEG, latitude - AROUND_DEG, longitude + AROUND_DEG, latitude + AROUND_DEG)
        where = {"bbox": ",".join(f"{round(v, 4)}" for v in box)}
    document = read_from(f"{collection.url}/{collection.query}?{urlencode(where | words)}")
    try:
        return coverages.series_of(document, latitude, longitude, collection.names)
    except coverages.NotUnderstood as odd:
        raise NoAnswer(_("The weather service sent something unreadable. {odd}").format(odd=odd)) from odd


def _answer(days: dict[date, dict[str, Any]], current: float | None, now: datetime, today: date) -> dict[str, Any]:
    """Return the days as every provider gives them: the unbroken series up to yesterday, and today's and later."""
    first = today
    while first - timedelta(days=1) in days:
        first -= timedelta(days=1)
    behind = [days[first + timedelta(days=i)] for i in range((today - first).days)]
    ahead = [days[day] | {"day": day.isoformat()} for day in sorted(days) if day >= today][:MOST_AHEAD]
    if len(behind) + len(ahead) < LEAST_DAYS:
        raise NoAnswer(_("The weather service has no complete day."))
    return {
        "issued": now.isoformat(),
        "current": {"air_c": current},
        "forecast": ahead,
        "daily": {"first": first.isoformat()} | {n: [row.get(n) for row in behind] for n in ("low_c", "high_c", "rain_mm")},
    }
