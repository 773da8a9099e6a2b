"""Today."""

from __future__ import annotations

from django.http import HttpResponse
from django.shortcuts import render

from cloche.apps.gardens import clock
from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.watch.pages import today_page


@in_garden
def today(request: GardenRequest) -> HttpResponse:
    """The first page of the day."""
    page = today_page(request.garden, units_of(request.user), clock.now())
    return render(request, "watch/today.html", {"page": page})
