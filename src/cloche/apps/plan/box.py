"""Seed box: every packet with its estimated viability and what the plan needs of it, and a form for entering packets."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date
from typing import Any

from django import forms
from django.contrib import messages
from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.models import Garden
from cloche.apps.plan.pages.overview import seed_needed
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.seed import flows as seed
from cloche.apps.seed.models import Packet
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import lazy
from cloche.apps.sowings import selectors as sowings
from cloche.bridge.services import crops

OLD = 0.5
"""Share alive below which a packet is hardly worth its ground (assumption)."""


@dataclass(frozen=True)
class BoxLine:
    """One packet in the list; `kind` is good or old."""

    packet: Packet
    name: str
    age: str
    alive: str
    kind: str


@dataclass(frozen=True)
class BoxCrop:
    """All packets of a crop, and the seed that the plan needs."""

    key: str
    name: str
    packets: list[BoxLine]
    wanted: str


@dataclass(frozen=True)
class BoxPage:
    """Context of plan/box.html.

    `buy` lists planned crops without a packet worth sowing.
    """

    headline: str
    crops: list[BoxCrop]
    buy: list[str]


class QuickPacket(forms.ModelForm):
    """Short form for a packet; further values are entered on the crop's page."""

    class Meta:
        model = Packet
        fields = ["crop_key", "variety", "packed_year", "price"]
        labels = {"variety": lazy("Variety"), "packed_year": lazy("Year packed"), "price": lazy("Price")}
        help_texts = {"price": lazy("In your own currency.")}

    def __init__(self, *args: Any, garden: Garden, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "packet_%s"} | kwargs))
        self.garden, self.today = garden, today
        self.fields["crop_key"] = forms.ChoiceField(label=_("Crop"), choices=[(crop.key, crop.name) for crop in crops.crops()])

    def clean_packed_year(self) -> int | None:
        """Refuse years in the future and before any plausible packet."""
        year: int | None = self.cleaned_data["packed_year"]
        if year is not None and not self.today.year - 40 <= year <= self.today.year + 1:
            raise forms.ValidationError(_("Enter the year the seed was packed, for example 2025."))
        return year

    @transaction.atomic
    def keep(self) -> Packet:
        """Save the packet; the first packet of a crop sets the values its windows use."""
        packet: Packet = self.save(commit=False)
        packet.garden = self.garden
        kept = Packet.objects.filter(garden=self.garden, crop_key=packet.crop_key, removed_at__isnull=True)
        packet.in_use = not kept.filter(in_use=True).exists()
        return seed.keep(packet)


@in_garden
def seed_box(request: GardenRequest) -> HttpResponse:
    """Show all packets and add the next one."""
    request.room = "plan"  # type: ignore[attr-defined]
    garden, today = request.garden, clock.today(request.garden.timezone)
    form = QuickPacket(request.POST or None, garden=garden, today=today, initial={"crop_key": request.GET.get("crop")})
    if form.is_valid():
        packet = form.keep()
        text = _("{name} is in the box. Add the next one?")
        messages.success(request, text.format(name=" ".join(filter(None, (crops.crop(packet.crop_key).name, packet.variety)))))
        return redirect("seed_box", garden.pk)
    context = {"form": form, "page": box_page(garden, today)}
    return render(request, "plan/box.html", context, status=INVALID if form.errors else 200)


def box_page(garden: Garden, today: date) -> BoxPage:
    """Build the seed box page, with the oldest packet of each crop first because it is sown first."""
    rows = Packet.objects.filter(garden=garden, removed_at__isnull=True).order_by("packed_year", "id")
    rows = rows.select_related("saved__planting__place", "saved__planting__packet")
    made = list(sowings.sowings_in(garden).filter(packet__isnull=False, finished=True))
    by_crop: dict[str, list[BoxLine]] = defaultdict(list)
    for packet in rows:
        rate = sowings.viability(packet, today, made).rate
        age = _age(packet)
        alive = _("about {share}% viable").format(share=f"{100 * rate:.0f}")
        line = BoxLine(packet, packet.variety or _("a packet"), age, alive, "old" if rate < OLD else "good")
        by_crop[packet.crop_key].append(line)
    waiting = list(plantings_in(garden).filter(planted_on=None, ended_on=None).exclude(crop_key=""))
    needs = {need.crop_key: need.seeds for need in seed_needed(garden, waiting)}
    keys = sorted({*by_crop, *needs}, key=lambda key: crops.crop(key).name)
    box_crops = [
        BoxCrop(
            key,
            crops.crop(key).name,
            by_crop.get(key, []),
            _("the plan needs {seeds}").format(seeds=words.count(needs[key], "seed", "seeds")) if key in needs else "",
        )
        for key in keys
    ]
    buy = [crop.name for crop in box_crops if crop.wanted and not any(line.kind == "good" for line in crop.packets)]
    return BoxPage(_headline(box_crops, buy), box_crops, buy)


def _age(packet: Packet) -> str:
    """Return a packet's year and the planting it was saved from."""
    saved = getattr(packet, "saved", None)
    if saved is None:
        return "" if packet.packed_year is None else _("packed {year}").format(year=packet.packed_year)
    parent = saved.planting.packet
    return _("saved {year} from {parent}, {place}").format(
        year=packet.packed_year,
        parent=parent.variety if parent and parent.variety else crops.crop(packet.crop_key).name,
        place=saved.planting.place.name,
    )


def _headline(box_crops: list[BoxCrop], buy: list[str]) -> str:
    packets = sum(len(crop.packets) for crop in box_crops)
    if not packets:
        return _("The seed box is empty.")
    text = _("{packets} in the box").format(packets=words.sentence(words.count(packets, "packet", "packets")))
    return (
        _("{text}; the plan also needs {names}.").format(text=text, names=words.listed([words.within(name) for name in buy], 4))
        if buy
        else f"{text}."
    )
