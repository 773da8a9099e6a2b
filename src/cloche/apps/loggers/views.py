"""Loggers: letting them in, saying where their probes stick, shutting them out."""

from __future__ import annotations

from dataclasses import asdict

from django.conf import settings
from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import keeper_of_computer, units_of
from cloche.apps.loggers import pages
from cloche.apps.loggers.flows import devices as flow
from cloche.apps.loggers.forms import DeviceForm, MappingForm, ProbeForm
from cloche.apps.loggers.mapped import WORDINGS, Unreadable
from cloche.apps.loggers.models import Device, MessageMapping, Probe
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID


@in_garden
def loggers(request: GardenRequest) -> HttpResponse:
    """Show all loggers and add one; its token is shown once."""
    form = DeviceForm(request.POST or None, instance=Device(garden=request.garden))
    if form.is_valid():
        data = form.cleaned_data
        device, token = flow.let_device_in(request.garden, data["name"], data["unit"], request.user)
        return _once(request, device, token)
    return _page(request, form=form)


def _page(
    request: GardenRequest, form: DeviceForm | None = None, refused: ProbeForm | None = None, device_id: int = 0
) -> HttpResponse:
    request.room = "garden"  # type: ignore[attr-defined]
    units = units_of(request.user)
    page = pages.loggers_page(request.garden, units, clock.now())
    empty = ProbeForm(garden=request.garden, units=units)
    rows = [(line, refused if refused and line.pk == device_id else empty) for line in page.devices]
    context = {"page": page, "rows": rows, "form": form or DeviceForm()}
    failed = bool((form and form.errors) or refused)
    return render(request, "loggers/loggers.html", context, status=INVALID if failed else 200)


def _once(request: GardenRequest, device: Device, token: str) -> HttpResponse:
    request.room = "garden"  # type: ignore[attr-defined]
    context = {"device": device, "token": token, "here": request.build_absolute_uri("/api/v1/readings")}
    return render(request, "loggers/token.html", context)


@require_POST
@in_garden
def deploy_probe(request: GardenRequest, device_id: int) -> HttpResponse:
    """Set where a channel measures."""
    device = _device(request, device_id)
    form = ProbeForm(request.POST, garden=request.garden, units=units_of(request.user))
    if not form.is_valid():
        return _page(request, refused=form, device_id=device.pk)
    probe = flow.deploy(device, form.cleaned_data["channel"], form.where, form.depth_m, form.cleaned_data["in_air"])
    messages.success(
        request,
        _("Probe {channel} of {name} is now in {name2}.").format(
            channel=probe.channel, name=device.name, name2=probe.where.name
        ),
    )
    return redirect("loggers", request.garden.pk)


@require_POST
@in_garden
def retrieve_probe(request: GardenRequest, device_id: int, probe_id: int) -> HttpResponse:
    """End the use of a channel."""
    probe = Probe.objects.filter(pk=probe_id, device=_device(request, device_id), until__isnull=True).first()
    if probe is None:
        raise Http404
    flow.retrieve(probe)
    messages.success(
        request,
        _("Probe {channel} removed from {name}. What it measured there stays.").format(
            channel=probe.channel, name=probe.where.name
        ),
    )
    return redirect("loggers", request.garden.pk)


@in_garden
def own_messages(request: GardenRequest, device_id: int) -> HttpResponse:
    """Set up and try a device's own messages."""
    device = _device(request, device_id)
    over_broker = bool(settings.CLOCHE_MQTT_URL) and request.user == keeper_of_computer()
    begin = WORDINGS.get(request.GET.get("as", ""), WORDINGS[""])
    form = MappingForm(
        request.POST or None, instance=MessageMapping(device=device), over_broker=over_broker, initial=asdict(begin)
    )
    tried: list[str] = []
    if form.is_valid():
        try:
            tried = pages.tried_lines(form.tried(), device, units_of(request.user)) if form.cleaned_data["sample"] else []
        except Unreadable as refusal:
            form.add_error("sample", str(refusal))
        else:
            if "try" not in request.POST:
                form.save()
                messages.success(request, _("Format saved. Messages of {name} are now read this way.").format(name=device.name))
                return redirect("own_messages", request.garden.pk, device.pk)
    request.room = "garden"  # type: ignore[attr-defined]
    context = {
        "device": device,
        "form": form,
        "tried": tried,
        "lines": pages.mapping_lines(device),
        "broker": bool(settings.CLOCHE_MQTT_URL),
        "over_broker": over_broker,
        "here": request.build_absolute_uri("/api/v1/messages"),
        "things": request.build_absolute_uri("/api/v1/sensorthings/Datastreams(1)/Observations"),
    }
    return render(request, "loggers/messages.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden
def forget_mapping(request: GardenRequest, device_id: int, mapping_id: int) -> HttpResponse:
    """Delete a mapping."""
    device = _device(request, device_id)
    gone, _unused = device.mappings.filter(pk=mapping_id).delete()
    if not gone:
        raise Http404
    messages.success(request, _("Format removed. Values that were read with it stay."))
    return redirect("own_messages", request.garden.pk, device.pk)


@require_POST
@in_garden
def renew_token(request: GardenRequest, device_id: int) -> HttpResponse:
    """Replace the token and invalidate the old one."""
    device = _device(request, device_id)
    return _once(request, device, flow.renew_token(device))


@require_POST
@in_garden
def shut_out(request: GardenRequest, device_id: int) -> HttpResponse:
    """Revoke the token of a device."""
    device = _device(request, device_id)
    flow.shut_out(device)
    messages.success(request, _("{name} blocked. Its values stay. A new token unblocks it.").format(name=device.name))
    return redirect("loggers", request.garden.pk)


def _device(request: GardenRequest, device_id: int) -> Device:
    device = Device.objects.filter(pk=device_id, garden=request.garden).first()
    if device is None:
        raise Http404
    return device
