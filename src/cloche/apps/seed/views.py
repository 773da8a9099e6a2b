"""Views of packets and crops."""

from __future__ import annotations

from dataclasses import dataclass

from django import forms
from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.flows import change_site
from cloche.apps.gardens.selectors import units_of
from cloche.apps.seed import flows
from cloche.apps.seed.forms import ChoiceForm, PacketForm
from cloche.apps.seed.models import Packet
from cloche.apps.seed.own_crops import OwnCropForm, new_key
from cloche.apps.seed.selectors import crop_or_404
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import lazy
from cloche.bridge.services import crops


@in_garden
def new_packet(request: GardenRequest, crop_key: str) -> HttpResponse:
    """Add a packet."""
    return _form(request, Packet(garden=request.garden, crop_key=crop_or_404(crop_key).key))


@in_garden
def edit_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Edit a packet."""
    return _form(request, _packet(request, crop_key, packet_id))


def _form(request: GardenRequest, packet: Packet) -> HttpResponse:
    request.room = "sowings"  # type: ignore[attr-defined]
    crop, year = crops.crop(packet.crop_key), clock.today(request.garden.timezone).year
    bound = request.POST if request.method == "POST" else None
    form = PacketForm(bound, instance=packet, crop=crop, units=units_of(request.user), year=year)
    if form.is_valid():
        flows.keep(form.save())
        messages.success(request, _("{name}: packet saved. Updating windows…").format(name=crop.name))
        return redirect("seed", request.garden.pk, crop.key)
    context = {"form": form, "crop": crop, "packet": packet}
    return render(request, "seed/packet.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def use_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Make a packet the one in use."""
    packet = _packet(request, crop_key, packet_id)
    packet.in_use = True
    flows.keep(packet)
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def remove_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Remove a packet."""
    flows.remove(_packet(request, crop_key, packet_id))
    messages.success(request, _("Packet put away. You can restore it below."))
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def put_back_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Restore a removed packet."""
    packet = Packet.objects.filter(garden=request.garden, crop_key=crop_key, pk=packet_id, removed_at__isnull=False).first()
    if packet is None:
        raise Http404
    flows.put_back(packet)
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def choose(request: GardenRequest, crop_key: str) -> HttpResponse:
    """Set the sowing rule and method of a crop."""
    crop, form = crop_or_404(crop_key), ChoiceForm(request.POST, garden=request.garden)
    if not form.is_valid():
        raise Http404
    flows.choose(request.garden, crop.key, form.cleaned_data["sowing_rule"], form.cleaned_data["method"])
    messages.success(request, _("{name}: saved.").format(name=crop.name))
    return redirect("seed", request.garden.pk, crop.key)


def _packet(request: GardenRequest, crop_key: str, packet_id: int) -> Packet:
    packet = Packet.objects.filter(garden=request.garden, crop_key=crop_key, pk=packet_id, removed_at__isnull=True).first()
    if packet is None:
        raise Http404
    return packet


FEW = 3
"""Families with fewer crops stand together."""


class CropsForm(forms.Form):
    """Form for the keys of the selected crops."""

    crops = forms.MultipleChoiceField(
        choices=lambda: [(crop.key, crop.name) for crop in crops.crops()],
        error_messages={"required": lazy("Tick at least one crop: without one there is nothing to forecast.")},
    )


@dataclass(frozen=True)
class Family:
    """A heading with its crops: key, name, other names and whether selected."""

    name: str
    crops: list[tuple[str, str, str, bool]]


def families(ticked: set[str]) -> list[Family]:
    """Group all crops by family, largest first, with small families together at the end."""
    by_family: dict[str, list[tuple[str, str, str, bool]]] = {}
    for crop in crops.crops():
        by_family.setdefault(crop.family, []).append((crop.key, crop.name, ", ".join(crop.other_names), crop.key in ticked))
    large = {name: rows for name, rows in by_family.items() if len(rows) >= FEW}
    small = [row for name, rows in by_family.items() if name not in large for row in rows]
    named = [Family(words.sentence(name), rows) for name, rows in sorted(large.items(), key=lambda item: -len(item[1]))]
    return [*named, Family(_("Others"), small)]


@in_garden
def my_crops(request: GardenRequest) -> HttpResponse:
    """Select the crops grown in this garden."""
    form = CropsForm(request.POST if request.method == "POST" else None)
    if form.is_valid():
        request.garden.crops = form.cleaned_data["crops"]
        change_site(request.garden)
        grown = words.count(len(request.garden.crops), "crop", "crops")
        messages.success(request, _("Saved: {grown}. Updating forecasts…").format(grown=grown))
        return redirect("garden", request.garden.pk)
    ticked = {crop.key for crop in crops.chosen(request.garden.crops)}
    if request.method == "POST":
        ticked = set(request.POST.getlist("crops"))
    mine = sorted((entry["name"], key) for key, entry in request.garden.own_crops.items())
    context = {"form": form, "mine": mine, "families": families(ticked), "count": len(ticked), "total": len(crops.crops())}
    return render(request, "seed/my_crops.html", context, status=INVALID if form.errors else 200)


@in_garden
def new_own(request: GardenRequest) -> HttpResponse:
    """Add an own crop: choose its relative, then enter what differs."""
    of = request.GET.get("of", "")
    if not of:
        relatives = [crop for crop in crops.crops() if not crops.KEY.fullmatch(crop.key)]
        return render(request, "seed/own_crop.html", {"relatives": relatives})
    return _own(request, new_key(request.garden), of, editing=False)


@in_garden
def edit_own(request: GardenRequest, key: str) -> HttpResponse:
    """Edit an own crop."""
    entry = request.garden.own_crops.get(key)
    if entry is None:
        raise Http404
    return _own(request, key, entry["of"], editing=True)


def _own(request: GardenRequest, key: str, of: str, editing: bool) -> HttpResponse:
    bound = request.POST if request.method == "POST" else None
    if len(request.garden.own_crops) >= crops.MOST and not editing:
        messages.error(request, f"A garden has at most {crops.MOST} crops of its own.")
        return redirect("my_crops", request.garden.pk)
    form = OwnCropForm(bound, garden=request.garden, relative=crop_or_404(of), key=key, units=units_of(request.user))
    if form.is_valid():
        form.keep()
        messages.success(
            request,
            _("{cleaned_data} saved and ticked. Working out its windows…").format(cleaned_data=form.cleaned_data["name"]),
        )
        return redirect("my_crops", request.garden.pk)
    context = {"form": form, "editing": editing}
    return render(request, "seed/own_crop.html", context, status=INVALID if form.errors else 200)
