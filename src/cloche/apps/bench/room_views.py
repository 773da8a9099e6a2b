"""Rooms, their air, and by which rules the bench is run."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.bench import flows, selectors
from cloche.apps.bench.forms import AirForm, RoomForm, RulesForm
from cloche.apps.bench.pages.rooms import air_lines, logger_lines, room_lines
from cloche.apps.bench.views import stand_in
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Room, RoomAir
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID


@in_garden
def rooms(request: GardenRequest) -> HttpResponse:
    """Show all rooms, a form for a new one, and the rules."""
    return _rooms(request, Room(garden=request.garden))


def _rooms(request: GardenRequest, room: Room, refused: RulesForm | None = None) -> HttpResponse:
    stand_in(request)
    units, bound = units_of(request.user), request.POST if request.method == "POST" and refused is None else None
    form = RoomForm(bound, instance=room, units=units, garden=request.garden)
    if form.is_valid():
        flows.keep_room(form.save(commit=False))
        messages.success(request, _("{name} added.").format(name=room.name))
        return redirect("rooms", request.garden.pk)
    removed = request.garden.rooms.filter(removed_at__isnull=False).order_by("-removed_at")[:5]
    context = {"form": form, "lines": room_lines(request.garden, units), "removed": removed, "tab": "rooms"}
    context["rules"] = refused or RulesForm(instance=request.garden, units=units)
    return render(request, "bench/rooms.html", context, status=INVALID if form.errors or refused else 200)


@require_POST
@in_garden
def rules(request: GardenRequest) -> HttpResponse:
    """Edit when heat goes off, when trays come in, and the price of energy."""
    form = RulesForm(request.POST, instance=request.garden, units=units_of(request.user))
    if form.is_valid():
        flows.keep_rules(form.save(commit=False))
        messages.success(request, _("Saved. The bench now uses these rules."))
        return redirect("rooms", request.garden.pk)
    return _rooms(request, Room(garden=request.garden), form)


@in_garden
def room(request: GardenRequest, room_id: int) -> HttpResponse:
    """Show one room and its air."""
    return _room(request, _room_or_404(request, room_id), None)


def _room(request: GardenRequest, room: Room, refused: AirForm | None) -> HttpResponse:
    stand_in(request)
    units, bound = units_of(request.user), request.POST if request.method == "POST" and refused is None else None
    form = RoomForm(bound, instance=room, units=units, garden=request.garden)
    if form.is_valid():
        flows.keep_room(form.save(commit=False))
        messages.success(request, _("Saved. Updating the forecasts for its trays…"))
        return redirect("room", request.garden.pk, room.pk)
    context = {
        "form": form,
        "room": room,
        "air": air_lines(room, units),
        "air_form": refused or AirForm(units=units, room=room),
    }
    context["loggers"] = logger_lines(room, units, clock.now())
    return render(request, "bench/room.html", context, status=INVALID if form.errors or refused else 200)


@require_POST
@in_garden(writing=LOGS)
def add_air(request: GardenRequest, room_id: int) -> HttpResponse:
    """Record an air reading."""
    room = _room_or_404(request, room_id)
    form = AirForm(request.POST, units=units_of(request.user), room=room)
    if not form.is_valid():
        return _room(request, room, form)
    flows.note_air(form.air())
    messages.success(
        request, _("Saved. The reading also improves the forecasts for the trays in {name}.").format(name=room.name)
    )
    return redirect("room", request.garden.pk, room.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("places.RoomAir", "air_id"))
def remove_air(request: GardenRequest, room_id: int, air_id: int) -> HttpResponse:
    """Delete an air reading."""
    room = _room_or_404(request, room_id)
    air = RoomAir.objects.filter(room=room, pk=air_id).first()
    if air is None:
        raise Http404
    flows.remove_air(air)
    messages.success(request, _("Removed."))
    return redirect("room", request.garden.pk, room.pk)


@require_POST
@in_garden
def remove_room(request: GardenRequest, room_id: int) -> HttpResponse:
    """Remove a room."""
    room = _room_or_404(request, room_id)
    flows.remove_room(room)
    text = _("{name} removed. Its trays are now in a usual room. You can restore it below.")
    messages.success(request, text.format(name=room.name))
    return redirect("rooms", request.garden.pk)


@require_POST
@in_garden
def put_back_room(request: GardenRequest, room_id: int) -> HttpResponse:
    """Restore a room."""
    room = request.garden.rooms.filter(pk=room_id, removed_at__isnull=False).first()
    if room is None:
        raise Http404
    done = flows.put_back_room(room)
    taken = _("Another room is now called {name}. Rename that one first.")
    messages.success(request, (_("{name} restored.") if done else taken).format(name=room.name))
    return redirect("rooms", request.garden.pk)


def _room_or_404(request: GardenRequest, room_id: int) -> Room:
    room = selectors.rooms_in(request.garden).filter(pk=room_id).first()
    if room is None:
        raise Http404
    return room
