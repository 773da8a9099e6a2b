"""Packets of seed, and how a crop is grown."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.seed import flows
from cloche.apps.seed.access import crop_or_404
from cloche.apps.seed.forms import ChoiceForm, PacketForm
from cloche.apps.seed.models import Packet
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.bridge.services import crops


@in_garden
def new_packet(request: GardenRequest, crop_key: str) -> HttpResponse:
    """Add a packet."""
    return _form(request, Packet(garden=request.garden, crop_key=crop_or_404(crop_key).key))


@in_garden
def edit_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Change what is told of it."""
    return _form(request, _packet(request, crop_key, packet_id))


def _form(request: GardenRequest, packet: Packet) -> HttpResponse:
    request.room = "sowings"  # type: ignore[attr-defined]
    crop, year = crops.crop(packet.crop_key), clock.today(request.garden.timezone).year
    bound = request.POST if request.method == "POST" else None
    form = PacketForm(bound, instance=packet, crop=crop, units=units_of(request.user), year=year)
    if form.is_valid():
        flows.keep(form.save())
        messages.success(request, _("{name}: the packet is kept; windows are being worked out again.").format(name=crop.name))
        return redirect("seed", request.garden.pk, crop.key)
    context = {"form": form, "crop": crop, "packet": packet}
    return render(request, "seed/packet.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def use_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Let windows go by it."""
    packet = _packet(request, crop_key, packet_id)
    packet.in_use = True
    flows.keep(packet)
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def remove_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Put it away."""
    flows.remove(_packet(request, crop_key, packet_id))
    messages.success(request, _("The packet is put away; it can be taken out again below."))
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def put_back_packet(request: GardenRequest, crop_key: str, packet_id: int) -> HttpResponse:
    """Take it out again."""
    packet = Packet.objects.filter(garden=request.garden, crop_key=crop_key, pk=packet_id, removed_at__isnull=False).first()
    if packet is None:
        raise Http404
    flows.put_back(packet)
    return redirect("seed", request.garden.pk, crop_key)


@require_POST
@in_garden
def choose(request: GardenRequest, crop_key: str) -> HttpResponse:
    """By which rule and in which way it goes in."""
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
