"""The season's windows: the page, the table and the calendar feed."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse, HttpResponseBase, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import READS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.readings.files.export import stream
from cloche.apps.shared import clock
from cloche.apps.windows import feed as feeds
from cloche.apps.windows.models import CalendarLink
from cloche.apps.windows.pages import season as pages
from cloche.apps.windows.pages import year_sheet as year_pages


@in_garden
def season(request: GardenRequest) -> HttpResponse:
    """Every crop, where it can go in first."""
    page = pages.season_page(request.garden, clock.today(request.garden.timezone), units_of(request.user))
    link = CalendarLink.objects.filter(membership=request.membership).first()
    url = request.build_absolute_uri(reverse("feed", args=[link.token])) if link else ""
    return render(request, "windows/season.html", {"page": page, "link": link, "feed_url": url})


@in_garden
def year_sheet(request: GardenRequest) -> HttpResponse:
    """Month by month what to do, to be printed."""
    request.room = "windows"  # type: ignore[attr-defined]
    page = year_pages.year_sheet_page(request.garden, clock.today(request.garden.timezone), units_of(request.user))
    return render(request, "windows/year_sheet.html", {"page": page})


@in_garden
def windows_csv(request: GardenRequest) -> HttpResponseBase:
    """All windows as a file."""
    response = StreamingHttpResponse(stream(pages.table(request.garden)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="windows.csv"'
    return response


@require_POST
@in_garden(writing=READS)
def make_feed(request: GardenRequest) -> HttpResponse:
    """A secret address for this person's calendar."""
    feeds.link_of(request.membership)
    messages.success(request, _("The address is below; whoever has it can read this garden’s windows."))
    return redirect("windows", request.garden.pk)


@require_POST
@in_garden(writing=READS)
def revoke_feed(request: GardenRequest) -> HttpResponse:
    """End it."""
    feeds.revoke(request.membership)
    messages.success(request, _("The address is ended; calendars that subscribed to it find nothing there."))
    return redirect("windows", request.garden.pk)
