"""How a garden grows a crop: its packets of seed, how alive each is, and by which rule and way it goes in."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.models import Packet
from cloche.apps.seed.values import ALL
from cloche.apps.sowings import selectors
from cloche.core.crops.catalogue import Crop


@dataclass(frozen=True)
class PacketLine:
    """A packet in words."""

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
    """Every packet, the one in use first."""
    sowings = list(selectors.sowings_in(garden).filter(crop_key=crop.key))
    lines = [_line(packet, crop, today, sowings) for packet in packets.packets_of(garden, crop.key)]
    removed = Packet.objects.filter(garden=garden, crop_key=crop.key, removed_at__isnull=False).order_by("-removed_at")
    in_use = next((row for row in lines if row.packet.in_use), None)
    if in_use is None:
        headline = _("{name}: no seed packet is entered, so Cloche uses its tables.").format(name=crop.name)
    else:
        headline = _("{name}: windows go by {name2}; {alive}.").format(name=crop.name, name2=in_use.name, alive=in_use.alive)
    return SeedPage(headline, lines, list(removed[:5]))


def _line(packet: Packet, crop: Crop, today: date, sowings: list) -> PacketLine:  # type: ignore[type-arg]
    viability = selectors.viability(packet, today, sowings)
    name = packet.variety or _("your packet")
    if packet.packed_year:
        name += _(", packed in {packed_year}").format(packed_year=packet.packed_year)
    alive = _("about {rate} of 100 alive ({low}–{high})").format(
        rate=f"{100 * viability.rate:.0f}", low=f"{100 * viability.low:.0f}", high=f"{100 * viability.high:.0f}"
    )
    text = [spec.label.lower() for spec in ALL if spec.name in packet.values]
    if packet.tested_of:
        text.insert(0, _("tested, {tested_up} of {tested_of}").format(tested_up=packet.tested_up, tested_of=packet.tested_of))
    if crop.start != "seed":
        alive = _("planted as it is")
    return PacketLine(packet, name, alive, text)
