"""Views of sowings and packets."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.dateparse import parse_date
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.forms import ChoiceForm
from cloche.apps.seed.selectors import crop_or_404
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.sowings import flows as flow
from cloche.apps.sowings import pages, selectors
from cloche.apps.sowings.forms import CountForm, SowingForm
from cloche.apps.sowings.models import Count, Sowing
from cloche.bridge.services import crops


def _count_of_day(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> Count | None:
    """Return the count that would be undone."""
    day = parse_date(request.POST.get("on", "")) if request.method == "POST" else None
    if day is None:
        return None
    return Count.objects.filter(sowing=words["sowing_id"], sowing__place__garden=garden, on=day).first()


@in_garden
def sowings(request: GardenRequest) -> HttpResponse:
    """Show sowings and their progress."""
    return _list(request, None)


def _list(request: GardenRequest, refused: CountForm | None) -> HttpResponse:
    today = clock.today(request.garden.timezone)
    removed = Sowing.objects.filter(place__garden=request.garden, removed_at__isnull=False).order_by("-removed_at")[:5]
    page = pages.sowings_page(request.garden, today, request.GET.get("page", "1"))
    awaited = [(line, _count_form(line.sowing, today, refused)) for line in page.awaited]
    context = {"page": page, "awaited": awaited, "removed": _names(removed)}
    return render(request, "sowings/sowings.html", context, status=INVALID if refused else 200)


def _count_form(sowing: Sowing, today: date, refused: CountForm | None) -> CountForm:
    """Return an empty count form for today, or the one refused."""
    if refused is not None and refused.sowing.pk == sowing.pk:
        return refused
    return CountForm(sowing=sowing, today=today, initial={"on": today})


def _names(removed) -> list[tuple[int, str]]:  # type: ignore[no-untyped-def]
    return [
        (sowing.pk, _("{name} in {name2}").format(name=crops.crop(sowing.crop_key).name, name2=sowing.place.name))
        for sowing in removed.select_related("place")
    ]


@in_garden(writing=LOGS)
def new_sowing(request: GardenRequest) -> HttpResponse:
    """Add a sowing."""
    request.room = "sowings"  # type: ignore[attr-defined]
    today = clock.today(request.garden.timezone)
    given = {"place": "place", "crop_key": "crop", "seeds": "seeds"}
    initial = {name: request.GET.get(key) for name, key in given.items()} | {"sown_on": today}
    bound = request.POST if request.method == "POST" else None
    form = SowingForm(bound, garden=request.garden, units=units_of(request.user), today=today, initial=initial)
    if form.is_valid():
        sowing = flow.sow(form.save(), request.user)
        name = crops.crop(sowing.crop_key).name
        messages.success(
            request, _("{name} in {name2} saved. Working out its forecast…").format(name=name, name2=sowing.place.name)
        )
        return redirect("sowings", request.garden.pk)
    return render(request, "sowings/new_sowing.html", {"form": form}, status=INVALID if form.errors else 200)


@in_garden(writing=LOGS, own=row_of("sowings.Sowing", "sowing_id"))
def edit_sowing(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Edit a sowing."""
    request.room = "sowings"  # type: ignore[attr-defined]
    sowing, today = _sowing(request, sowing_id), clock.today(request.garden.timezone)
    bound = request.POST if request.method == "POST" else None
    form = SowingForm(bound, instance=sowing, garden=request.garden, units=units_of(request.user), today=today)
    if form.is_valid():
        changed = flow.correct(form.save())
        text = _("{name} in {place} corrected. Updating its forecast…")
        messages.success(request, text.format(name=crops.crop(changed.crop_key).name, place=changed.place.name))
        return redirect("sowings", request.garden.pk)
    context = {"form": form, "sowing": sowing}
    return render(request, "sowings/new_sowing.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS)
def count(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Store a count of seedlings."""
    sowing = _sowing(request, sowing_id)
    form = CountForm(request.POST, sowing=sowing, today=clock.today(request.garden.timezone))
    if not form.is_valid():
        return _list(request, form)
    flow.count(sowing, form.cleaned_data["on"], form.cleaned_data["up"])
    messages.success(
        request, _("Count of {cleaned_data} saved. The forecast learns from it.").format(cleaned_data=form.cleaned_data["up"])
    )
    return redirect("sowings", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=_count_of_day)
def remove_count(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Remove a count."""
    sowing, today = _sowing(request, sowing_id), clock.today(request.garden.timezone)
    form = CountForm({"on": request.POST.get("on"), "up": 0}, sowing=sowing, today=today)
    if not form.is_valid() or not flow.remove_count(form.sowing, form.cleaned_data["on"]):
        raise Http404
    messages.success(request, _("Count removed."))
    return redirect("sowings", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("sowings.Sowing", "sowing_id"))
def finish(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Mark a sowing as finished, or reopen it."""
    sowing = _sowing(request, sowing_id)
    flow.finish(sowing, "again" not in request.POST)
    return redirect("sowings", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("sowings.Sowing", "sowing_id"))
def remove(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Remove a sowing."""
    flow.remove(_sowing(request, sowing_id))
    messages.success(request, _("Sowing removed. You can restore it below."))
    return redirect("sowings", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("sowings.Sowing", "sowing_id"))
def put_back(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Restore a sowing."""
    sowing = Sowing.objects.filter(place__in=request.garden.places.all(), pk=sowing_id, removed_at__isnull=False).first()
    if sowing is None:
        raise Http404
    flow.put_back(sowing)
    return redirect("sowings", request.garden.pk)


def _sowing(request: GardenRequest, sowing_id: int) -> Sowing:
    sowing = selectors.sowings_in(request.garden).filter(pk=sowing_id).first()
    if sowing is None:
        raise Http404
    return sowing


@in_garden
def seed(request: GardenRequest, crop_key: str) -> HttpResponse:
    """Show the packets of a crop."""
    request.room = "sowings"  # type: ignore[attr-defined]
    crop, today = crop_or_404(crop_key), clock.today(request.garden.timezone)
    choice = packets.choices_of(request.garden).get(crop_key)
    initial = {"sowing_rule": choice.sowing_rule, "method": choice.method} if choice else {}
    page = pages.seed_page(request.garden, crop, today)
    context = {"page": page, "crop": crop, "choice": ChoiceForm(garden=request.garden, initial=initial)}
    return render(request, "sowings/seed.html", context)
