"""How a garden grows a crop: packets and choices."""

from __future__ import annotations

from django.http import HttpResponse
from django.shortcuts import render

from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.access import crop_or_404
from cloche.apps.seed.forms import ChoiceForm
from cloche.apps.shared import clock
from cloche.apps.sowings.pages import seed as pages


@in_garden
def seed(request: GardenRequest, crop_key: str) -> HttpResponse:
    """The packets of a crop."""
    request.room = "sowings"  # type: ignore[attr-defined]
    crop, today = crop_or_404(crop_key), clock.today(request.garden.timezone)
    choice = packets.choices_of(request.garden).get(crop_key)
    initial = {"sowing_rule": choice.sowing_rule, "method": choice.method} if choice else {}
    page = pages.seed_page(request.garden, crop, today)
    context = {"page": page, "crop": crop, "choice": ChoiceForm(garden=request.garden, initial=initial)}
    return render(request, "sowings/seed.html", context)
