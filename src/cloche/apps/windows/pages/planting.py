"""Planting out on a chosen day, counted back to sowing on the bench."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache

from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.windows.pages.sowing import harvest_words, risk_words, vigour_words
from cloche.apps.windows.prospects import prospect_on
from cloche.bridge.services import beds, crops
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop
from cloche_engine.outlook_days import day_of
from cloche_engine.places.kinds import BENCH_KINDS
from cloche_engine.windows.raised_life import Raising, raising

ROOM = "room"


@dataclass(frozen=True)
class Bench:
    """Soil temperature where plants are raised [°C], by day from today or constant."""

    key: str
    name: str
    soil_c: float | Sequence[float]


@dataclass(frozen=True)
class Planting:
    """Prospect of planting out on one day; `rows` lists the tasks in order."""

    on: date
    offset: int
    text: str
    soil: str
    risk: str
    after: str
    rows: list[tuple[str, str]]


def benches(garden: Garden, units: Units) -> list[Bench]:
    """Return the garden's places for raising plants, and a heated room."""
    own = [
        Bench(str(place.pk), place.name, [float(v) for v in ground.data.far_mid_c])
        for place, ground in selectors.grounds_in(garden)
        if ground is not None and place.kind in BENCH_KINDS
    ]
    room = Bench(
        ROOM,
        _("a tray at {temperature}").format(temperature=units.temperature_text(beds.ROOM_BENCH_C, 0)),
        beds.ROOM_BENCH_C,
    )
    return [room, *own]


def chosen_bench(benches: Sequence[Bench], query: QueryDict) -> Bench:
    """Return the bench asked for, or the heated room."""
    return next((bench for bench in benches if bench.key == query.get("bench")), benches[0])


def planting_page(
    crop: Crop, place: Place, outlook: CropOutlook, bench: Bench, units: Units, today: date, offset: int
) -> Planting:
    """Describe the candidate day nearest to `offset` days from today."""
    day = day_of(outlook.days, offset)
    on = today + timedelta(days=day.offset)
    raised = raising(crop, bench.soil_c, day.offset)
    rows = [] if raised is None else _rows(raised, on, today)
    prospect = prospect_on(outlook, on, today)
    after = _("At first they would {growth} there. {harvest}").format(
        growth=vigour_words(day.growth), harvest=harvest_words(crop, prospect, today) if prospect else ""
    )
    ripe = prospect.harvest_on if prospect else None
    harvest = [(_("harvest"), _("about {day}").format(day=words.day(ripe, today)))] if ripe else []
    return Planting(
        on=on,
        offset=day.offset,
        text=_text(raised, bench, on, today, units, crop),
        soil=_("Root-zone soil about {temperature} in the following week.").format(
            temperature=units.temperature_text(day.soil_c)
        ),
        risk=risk_words(day, sown=False),
        after=after.rstrip(),
        rows=[*rows, (_("plant out"), words.day(on, today)), *harvest],
    )


def indoors_by(crop_key: str, on: date) -> date | None:
    """Return when to sow on an indoor bench for planting out on a day, from catalogue values."""
    days = _room_days(crop_key)
    return None if days is None else on - timedelta(days=days)


@cache
def _room_days(crop_key: str) -> int | None:
    raised = raising(crops.crop(crop_key), beds.ROOM_BENCH_C)
    return None if raised is None else raised.sow_d


def _text(raised: Raising | None, bench: Bench, on: date, today: date, units: Units, crop: Crop) -> str:
    out = _("If planted out {part}").format(part=_("today") if on == today else "on " + words.day(on, today))
    if raised is None:
        want = units.temperature_text(crop.germinate_c, 0)
        return _("{out}, it cannot be raised on {name}, because it would not come up there. It needs about {want}.").format(
            out=out, name=bench.name, want=want
        )
    sow_on = on - timedelta(days=raised.sow_d)
    weeks = words.count(round(raised.sow_d / 7), "week", "weeks")
    if sow_on < today:
        return _("{out}, it should have been sown on {name} on {day}, {weeks} before.").format(
            out=out, name=bench.name, day=words.day(sow_on, today), weeks=weeks
        )
    return _("{out}, sow it on {name} {part}, {weeks} before.").format(
        out=out, name=bench.name, part=_("today") if sow_on == today else "on " + words.day(sow_on, today), weeks=weeks
    )


def _rows(raised: Raising, on: date, today: date) -> list[tuple[str, str]]:
    def back(days: int) -> str:
        return words.day(on - timedelta(days=days), today)

    return [
        (_("sow on the bench"), back(raised.sow_d)),
        (
            _("half are up"),
            _("{back}, after {emergence_d} days").format(back=back(raised.up_d), emergence_d=f"{raised.emergence_d:.0f}"),
        ),
        (_("start hardening off"), back(raised.harden_d)),
    ]
