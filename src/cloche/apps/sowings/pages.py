"""Pages of sowings and their packets."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.core.paginator import Page, Paginator
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.models import Packet
from cloche.apps.seed.values import ALL
from cloche.apps.shared import words
from cloche.apps.sowings import selectors
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import Progress, State, progress_of
from cloche.bridge.services import crops
from cloche.drawing import batch
from cloche_engine.crops.catalogue import Crop
from cloche_engine.results import SowingOutlook

A_PAGE = 40


@dataclass(frozen=True)
class SowingLine:
    """One sowing with its chart if calculated; `counts` holds ISO dates and texts."""

    sowing: Sowing
    name: str
    what: str
    text: str
    overdue: bool
    half_on: date | None
    picture: batch.Batch | None
    counts: list[tuple[str, str]]


@dataclass(frozen=True)
class SowingsPage:
    """Context of sowings/sowings.html.

    `over` is one page of finished sowings, latest first; `packets` lists crops with the variety that sets the values of
    their windows.
    """

    headline: str
    awaited: list[SowingLine]
    over: list[SowingLine]
    part: Page[Sowing]
    packets: list[tuple[str, str]]


def sowings_page(garden: Garden, today: date, number: str = "1") -> SowingsPage:
    """Build the page of current sowings and one page of finished ones."""
    rows = selectors.sowings_in(garden)
    awaited = [line(sowing, today) for sowing in rows.filter(finished=False)]
    part = Paginator(rows.filter(finished=True), A_PAGE).get_page(number)
    return SowingsPage(_headline(awaited, today), awaited, [line(sowing, today) for sowing in part], part, _packets(garden))


def _packets(garden: Garden) -> list[tuple[str, str]]:
    """Return key and name of every crop grown here, with the variety in use."""
    varieties = packets.varieties_in_use(garden)
    named = ((crop.key, crop.name, varieties.get(crop.key, "")) for crop in crops.of_garden(garden.crops))
    return [(key, f"{name}, {variety}" if variety else name) for key, name, variety in named]


def _headline(awaited: list[SowingLine], today: date) -> str:
    late = [row for row in awaited if row.overdue]
    if late:
        names = [_("{name} in {name2}").format(name=row.name, name2=row.sowing.place.name) for row in late]
        return _("{sentence} should be up by now.").format(sentence=words.sentence(words.listed(names, 2)))
    if not awaited:
        return _("No sowing is on its way up.")
    ahead = [row for row in awaited if _half_on(row) and _half_on(row) >= today]  # type: ignore[operator]
    if not ahead:
        return _("{sentence} can be counted now.").format(
            sentence=words.sentence(words.count(len(awaited), "sowing", "sowings"))
        )
    soon = min(ahead, key=lambda row: _half_on(row) or today)
    on = _half_on(soon)
    return _("Next up: {name} in {name2}, half of them by {day}.").format(
        name=soon.name, name2=soon.sowing.place.name, day=words.day(on or today, today)
    )


def _half_on(row: SowingLine) -> date | None:
    return row.half_on


def line(sowing: Sowing, today: date) -> SowingLine:
    """Describe one sowing."""
    crop = crops.crop(sowing.crop_key)
    counted = list(sowing.counts.all())
    seeds = sowing.seeds
    points = (
        [(c.on, 100 * c.up / seeds, _("{up} up on {day}").format(up=c.up, day=words.day(c.on))) for c in counted]
        if seeds
        else []
    )
    picture = batch.batch(sowing.sown_on, sowing.outlook.up, points, today) if sowing.outlook else None
    variety = f", {sowing.packet.variety}" if sowing.packet and sowing.packet.variety else ""
    much = f", {words.count(seeds, 'seed', 'seeds')}" if seeds else ""
    progress = progress_of(sowing, today)
    return SowingLine(
        sowing=sowing,
        name=crop.name_plural,
        what=_("{name}{variety}{much}: sown {day}").format(
            name=crop.name, variety=variety, much=much, day=words.day(sowing.sown_on, today)
        ),
        text=_text(sowing, progress, today),
        overdue=progress.state is State.OVERDUE,
        half_on=progress.half_on,
        picture=picture,
        counts=[(c.on.isoformat(), _("{day}: {up} up").format(day=words.day(c.on, today), up=c.up)) for c in counted],
    )


def _text(sowing: Sowing, progress: Progress, today: date) -> str:
    outlook, seeds, most = sowing.outlook, sowing.seeds, progress.counted
    if sowing.finished:
        return _result(sowing, most)
    if outlook is None:
        return _("Working out the forecast…")
    if progress.state is State.OVERDUE:
        since = words.day(outlook.overdue, today)
        return _(
            "No seedlings counted yet. They were due by {since}; if there are none, most of the sowing has failed: too cold, "
            "old seed, a dry or crusted surface, too deep, or eaten. Uncover a hand’s length of the row and "
            "look, then wait, warm it or sow again."
        ).format(since=since)
    parts = [_when(outlook, progress, today)]
    if progress.expected is not None:
        low, middle, high = progress.expected
        expected = f"{middle}" if low == high else f"{middle} ({low}–{high})"
        if most is not None:
            text = _("{most} of {seeds} so far; {expected} expected in the end.")
            parts.append(text.format(most=most, seeds=seeds, expected=expected))
        else:
            parts.append(_("About {expected} of {seeds} expected in the end.").format(expected=expected, seeds=seeds))
    if most is None and outlook.overdue:
        parts.append(_("If nothing is up after {day}, the sowing has failed.").format(day=words.day(outlook.overdue, today)))
    return " ".join(parts)


def _when(outlook: SowingOutlook, progress: Progress, today: date) -> str:
    early, _middle, late = outlook.half
    half = progress.half_on
    if half is None or (early is None and not progress.half_counted):
        return _("It would not come up in the soil as it is now.")
    if progress.half_counted:
        return _("Half were up by {day}.").format(day=words.day(half, today))
    until = _("to {day}").format(day=words.day(late, today)) if late else _("or much later")
    band = "" if early is None or early == late else f" ({words.day(early, today)} {until})"
    verb = _("up by") if half >= today else _("should have been up by")
    return _("Half {verb} {day}{band}.").format(verb=verb, day=words.day(half, today), band=band)


def _result(sowing: Sowing, most: int | None) -> str:
    if most is None:
        return _("Closed without a count.")
    if not sowing.seeds:
        return _("{sentence} came up.").format(sentence=words.sentence(words.count(most, "seedling", "seedlings")))
    return _("{most} of {seeds} came up ({most2}%).").format(
        most=most, seeds=sowing.seeds, most2=f"{100 * most / sowing.seeds:.0f}"
    )


@dataclass(frozen=True)
class PacketLine:
    """One packet in words."""

    packet: Packet
    name: str
    alive: str
    text: list[str]


@dataclass(frozen=True)
class SeedPage:
    """Context of sowings/seed.html."""

    headline: str
    lines: list[PacketLine]
    removed: list[Packet]


def seed_page(garden: Garden, crop: Crop, today: date) -> SeedPage:
    """Build the page of a crop's packets, the one in use first."""
    sowings = list(selectors.sowings_in(garden).filter(crop_key=crop.key))
    lines = [_line(packet, crop, today, sowings) for packet in packets.packets_of(garden, crop.key)]
    removed = Packet.objects.filter(garden=garden, crop_key=crop.key, removed_at__isnull=False).order_by("-removed_at")
    in_use = next((row for row in lines if row.packet.in_use), None)
    if in_use is None:
        headline = _("{name}: no seed packet is entered, so Cloche uses its tables.").format(name=crop.name)
    else:
        headline = _("{name}: windows are based on {name2}; {alive}.").format(
            name=crop.name, name2=in_use.name, alive=in_use.alive
        )
    return SeedPage(headline, lines, list(removed[:5]))


def _line(packet: Packet, crop: Crop, today: date, sowings: list) -> PacketLine:  # type: ignore[type-arg]
    viability = selectors.viability(packet, today, sowings)
    name = packet.variety or _("your packet")
    if packet.packed_year:
        name += _(", packed in {packed_year}").format(packed_year=packet.packed_year)
    alive = _("about {rate}% viable ({low}–{high}%)").format(
        rate=f"{100 * viability.rate:.0f}", low=f"{100 * viability.low:.0f}", high=f"{100 * viability.high:.0f}"
    )
    text = [spec.label.lower() for spec in ALL if spec.name in packet.values]
    if packet.tested_of:
        text.insert(0, _("tested, {tested_up} of {tested_of}").format(tested_up=packet.tested_up, tested_of=packet.tested_of))
    if crop.start != "seed":
        alive = _("planted directly")
    return PacketLine(packet, name, alive, text)
