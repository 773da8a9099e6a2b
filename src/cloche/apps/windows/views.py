"""Views of ground temperatures, windows and seasons."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.db.models import prefetch_related_objects
from django.http import HttpResponse, HttpResponseBase, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.access import READS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.readings.files.export import stream
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.selectors import crop_or_404
from cloche.apps.shared import clock
from cloche.apps.sowings.selectors import usual_rate
from cloche.apps.windows import feed as feeds
from cloche.apps.windows.models import CalendarLink
from cloche.apps.windows.pages import crop as crop_pages
from cloche.apps.windows.pages import ground as ground_pages
from cloche.apps.windows.pages import limit_words as rule_pages
from cloche.apps.windows.pages import place as place_pages
from cloche.apps.windows.pages import planting as planting_pages
from cloche.apps.windows.pages import season as pages
from cloche.apps.windows.pages import seed as seed_pages
from cloche.apps.windows.pages import sowing as hedge_pages
from cloche.apps.windows.pages import sowing as sowing_pages
from cloche.apps.windows.pages import wakes as wakes_pages
from cloche.apps.windows.pages import year_sheet as year_pages
from cloche.apps.windows.pages.ground import warmth_in
from cloche.bridge.services import crops
from cloche_engine.crops import catalogue
from cloche_engine.crops.grown import with_values
from cloche_engine.places.kinds import BENCHES


@in_garden
def ground(request: GardenRequest) -> HttpResponse:
    """Show the ground temperature of all places."""
    grounds = selectors.grounds_in(request.garden)
    now = clock.now()
    warm = warmth_in(request.garden, grounds, now)
    lines = ground_pages.lines(request.garden, grounds, warm, units_of(request.user), now)
    return render(request, "windows/ground.html", {"lines": lines})


@in_garden
def place(request: GardenRequest, place_id: int) -> HttpResponse:
    """Show one place."""
    request.room = "ground"  # type: ignore[attr-defined]
    place_shown = place_or_404(request, place_id)
    prefetch_related_objects([place_shown], "cover_periods")
    units, now = units_of(request.user), clock.now()
    today = clock.today(request.garden.timezone)
    context = {
        "place": place_shown,
        "part": place_pages.ground_part(place_shown, units, now, request.GET.get("also", "")),
        "crops": place_pages.crop_part(place_shown, today),
        "units": units,
    }
    return render(request, "windows/place.html", context)


@in_garden
def place_ground(request: GardenRequest, place_id: int) -> HttpResponse:
    """Return the charts of a place, refreshed after new readings."""
    place_shown = place_or_404(request, place_id)
    units = units_of(request.user)
    context = {
        "place": place_shown,
        "part": place_pages.ground_part(place_shown, units, clock.now(), request.GET.get("also", "")),
        "crops": place_pages.crop_part(place_shown, clock.today(request.garden.timezone)),
        "units": units,
    }
    return render(request, "windows/_ground_and_outlook.html", context)


@in_garden
def what_wakes(request: GardenRequest) -> HttpResponse:
    """Show crops against the temperatures of the beds."""
    page = wakes_pages.wakes_page(request.garden, units_of(request.user), clock.now(), wakes_pages.WakesQuery.of(request.GET))
    template = "windows/_wakes.html" if request.htmx else "windows/what_wakes.html"  # type: ignore[attr-defined]
    return render(request, template, {"page": page})


@in_garden
def crop_in_place(request: GardenRequest, place_id: int, crop_key: str) -> HttpResponse:
    """Show when a crop goes in and the prospect for a chosen day."""
    request.room = "windows"  # type: ignore[attr-defined]
    place, plain = place_or_404(request, place_id), crop_or_404(crop_key)
    crop = with_values(plain, packets.values_in_use(request.garden).get(crop_key))
    methods = selectors.methods_of(place, crop_key)
    context: dict[str, Any] = {"place": place, "crop": crop, "slider_days": crop_pages.SLIDER_D}
    if not methods:
        context["grown"] = crop_key in {crop.key for crop in crops.of_garden(request.garden.crops)}
        return render(request, "windows/crop.html", context)
    outlook = next((row for row in methods if row.method == request.GET.get("method")), methods[0])
    context |= {"outlook": outlook, "methods": [(row, row is outlook) for row in methods]}
    context |= _day_part(request, place, crop, outlook)
    if request.htmx:  # type: ignore[attr-defined]
        return render(request, "windows/_sowing.html" if outlook.sown else "windows/_planting.html", context)
    context |= _current_part(request, place, crop, outlook)
    if outlook.sown and not crop.winter:
        context["hedge"] = _hedge(request, crop, context["rate"])
    return render(request, "windows/crop.html", context)


def _day_part(request: GardenRequest, place: Place, crop: catalogue.Crop, outlook: CropOutlook) -> dict[str, Any]:
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    offset = sowing_pages.chosen_offset(request.GET.get("in", ""), request.GET.get("sow", ""), outlook, today)
    wanted = sowing_pages.HarvestForm(request.GET if "harvest_by" in request.GET else None)
    harvest = sowing_pages.harvest_by(wanted, crop, outlook, today) if wanted.is_valid() else None
    if harvest is not None and harvest.offset is not None:
        offset = harvest.offset
    wanted_harvest = {"harvest": harvest, "harvest_form": None if crop.life.perennial or place.kind in BENCHES else wanted}
    if not outlook.sown:
        benches = planting_pages.benches(request.garden, units)
        bench = planting_pages.chosen_bench(benches, request.GET)
        page = planting_pages.planting_page(crop, place, outlook, bench, units, today, offset)
        return wanted_harvest | {
            "planting": page,
            "benches": [(each, each is bench) for each in benches],
            "offset": page.offset,
        }
    sown = sowing_pages.sowing(crop, outlook, units, today, offset, place.kind in BENCHES)
    rate = usual_rate(request.garden, crop.key, today)
    seed = seed_pages.seed_part(crop, sown.share, request.GET, units, rate)
    return wanted_harvest | {"sowing": sown, "seed": seed, "offset": sown.offset, "rate": rate}


def _current_part(request: GardenRequest, place: Place, crop: catalogue.Crop, outlook: CropOutlook) -> dict[str, Any]:
    garden, units, today = request.garden, units_of(request.user), clock.today(request.garden.timezone)
    sowing_rule = packets.sowing_rule_for(garden, packets.choices_of(garden).get(crop.key))
    seeds = packets.packets_of(garden, crop.key)
    in_use = next((seed for seed in seeds if seed.in_use), None)
    return {
        "page": crop_pages.crop_page(place, outlook, crop, units, today, sowing_rule, in_use.values if in_use else ()),
        "sowing_rules": rule_pages.sowing_rule_rows(outlook, sowing_rule, units, today, in_use.price if in_use else None),
        "elsewhere": place_pages.lines_elsewhere(place, crop.key, today),
        "winter_kinds": place_pages.lines_of(place, crops.winter_kinds_of(crop.key), today),
        "together": rule_pages.together(outlook, today),
        "packet": in_use,
    }


@in_garden
def hedge(request: GardenRequest, place_id: int, crop_key: str) -> HttpResponse:
    """Return the split of a packet over days and places."""
    place, plain = place_or_404(request, place_id), crop_or_404(crop_key)
    crop = with_values(plain, packets.values_in_use(request.garden).get(crop_key))
    if not request.htmx:  # type: ignore[attr-defined]
        here = reverse("crop_in_place", args=[request.garden.pk, place.pk, crop_key])
        return redirect(f"{here}?{request.GET.urlencode()}")
    rate = usual_rate(request.garden, crop.key, clock.today(request.garden.timezone))
    context = {"place": place, "crop": crop, "hedge": _hedge(request, crop, rate)}
    return render(request, "windows/_hedge.html", context)


def _hedge(request: GardenRequest, crop: catalogue.Crop, viable: float) -> hedge_pages.HedgePart:
    today = clock.today(request.garden.timezone)
    rows = selectors.sown_everywhere(request.garden, crop.key)
    return hedge_pages.hedge_part(crop, rows, request.GET, viable, today, None)


@in_garden
def season(request: GardenRequest) -> HttpResponse:
    """Show every crop in the place where it can go in first."""
    page = pages.season_page(request.garden, clock.today(request.garden.timezone), units_of(request.user))
    link = CalendarLink.objects.filter(membership=request.membership).first()
    url = request.build_absolute_uri(reverse("feed", args=[link.token])) if link else ""
    return render(request, "windows/season.html", {"page": page, "link": link, "feed_url": url})


@in_garden
def year_sheet(request: GardenRequest) -> HttpResponse:
    """Show the printable year sheet."""
    request.room = "windows"  # type: ignore[attr-defined]
    page = year_pages.year_sheet_page(request.garden, clock.today(request.garden.timezone), units_of(request.user))
    return render(request, "windows/year_sheet.html", {"page": page})


@in_garden
def windows_csv(request: GardenRequest) -> HttpResponseBase:
    """Download all windows as CSV."""
    response = StreamingHttpResponse(stream(pages.table(request.garden)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="windows.csv"'
    return response


@require_POST
@in_garden(writing=READS)
def make_feed(request: GardenRequest) -> HttpResponse:
    """Create a secret calendar link."""
    feeds.link_of(request.membership)
    messages.success(request, _("The address is below. Anyone who has it can read this garden’s windows."))
    return redirect("windows", request.garden.pk)


@require_POST
@in_garden(writing=READS)
def revoke_feed(request: GardenRequest) -> HttpResponse:
    """Delete the calendar link."""
    feeds.revoke(request.membership)
    messages.success(request, _("Address ended. Calendars that subscribed to it will find nothing there."))
    return redirect("windows", request.garden.pk)
