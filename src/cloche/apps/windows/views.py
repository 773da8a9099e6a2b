"""The ground of each place, what wakes, and a crop in a place."""

from __future__ import annotations

from django.contrib import messages
from django.db.models import prefetch_related_objects
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from cloche.apps.gardens import clock, packets
from cloche.apps.gardens.access import GardenRequest, in_garden, place_or_404
from cloche.apps.gardens.models import Place
from cloche.apps.gardens.selectors import units_of
from cloche.apps.windows import selectors
from cloche.apps.windows.pages import crop as crop_pages
from cloche.apps.windows.pages import ground as ground_pages
from cloche.apps.windows.pages import place as place_pages
from cloche.apps.windows.pages import seed as seed_pages
from cloche.apps.windows.pages import wakes as wakes_pages
from cloche.bridge import crops


@in_garden
def ground(request: GardenRequest) -> HttpResponse:
    """All places, one line each."""
    grounds = selectors.grounds_in(request.garden)
    lines = ground_pages.lines(request.garden, grounds, units_of(request.user), clock.now())
    return render(request, "windows/ground.html", {"lines": lines})


@in_garden
def place(request: GardenRequest, place_id: int) -> HttpResponse:
    """One place."""
    request.room = "ground"  # type: ignore[attr-defined]
    found = place_or_404(request, place_id)
    prefetch_related_objects([found], "cover_periods")
    units, now = units_of(request.user), clock.now()
    today = clock.today(request.garden.timezone)
    context = {
        "place": found,
        "part": place_pages.ground_part(found, units, now, request.GET.get("also", "")),
        "crops": place_pages.crop_part(found, today),
        "units": units,
    }
    return render(request, "windows/place.html", context)


@in_garden
def place_ground(request: GardenRequest, place_id: int) -> HttpResponse:
    """The drawn part of a place alone, as it changes under new readings."""
    found = place_or_404(request, place_id)
    units = units_of(request.user)
    context = {
        "place": found,
        "part": place_pages.ground_part(found, units, clock.now(), request.GET.get("also", "")),
        "crops": place_pages.crop_part(found, clock.today(request.garden.timezone)),
        "units": units,
    }
    return render(request, "windows/_ground_and_outlook.html", context)


@in_garden
def what_wakes(request: GardenRequest) -> HttpResponse:
    """Crops against beds."""
    wanted = request.GET.get("place", "")
    place_id = int(wanted) if wanted.isdigit() else None
    page = wakes_pages.wakes_page(request.garden, units_of(request.user), clock.now(), place_id)
    return render(request, "windows/what_wakes.html", {"page": page, "units": units_of(request.user)})


@in_garden
def crop_in_place(request: GardenRequest, place_id: int, crop_key: str) -> HttpResponse:
    """When to sow a crop here, and what would come of a chosen day."""
    return _crop_response(request, place_or_404(request, place_id), _crop_or_404(crop_key))


@require_POST
@in_garden
def packet(request: GardenRequest, place_id: int, crop_key: str) -> HttpResponse:
    """What the packet says, kept for the garden."""
    found, crop = place_or_404(request, place_id), _crop_or_404(crop_key)
    form = packets.PacketForm(request.POST, crop=crop, units=units_of(request.user))
    if not form.is_valid():
        return _crop_response(request, found, crop, refused=form)
    packets.keep(request.garden, crop_key, form.packet)
    said = "goes by its packet" if form.packet != crops.Packet() else "goes by the table again"
    messages.success(request, f"{crop.name} {said} in {request.garden.name}.")
    return redirect("crop_in_place", request.garden.pk, found.pk, crop_key)


def _crop_or_404(crop_key: str) -> crops.Crop:
    try:
        return crops.crop(crop_key)
    except crops.UnknownCrop as unknown:
        raise Http404 from unknown


def _crop_response(
    request: GardenRequest, place: Place, crop: crops.Crop, refused: packets.PacketForm | None = None
) -> HttpResponse:
    request.room = "ground"  # type: ignore[attr-defined]
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    outlook = selectors.outlook_of(place, crop.key)
    context = {"place": place, "crop": crop, "units": units, "slider_days": crop_pages.SLIDER_D}
    if outlook is not None:
        offset = crop_pages.chosen_offset(request.GET.get("in", ""), request.GET.get("sow", ""), outlook, today)
        context["sowing"] = sowing = crop_pages.sowing(outlook, units, today, offset)
        context["seed"] = seed_pages.seed_part(crop, sowing.share, request.GET, units)
        if request.htmx:  # type: ignore[attr-defined]
            return render(request, "windows/_sowing.html", context)
        said = packets.packets_of(request.garden).get(crop.key)
        context["page"] = crop_pages.crop_page(place, outlook, units, today, said)
        context["packet"] = refused or packets.PacketForm(crop=crop, units=units, initial=packets.packet_initial(said, units))
    return render(request, "windows/crop.html", context, status=422 if refused else 200)
