"""Covers: what one would buy, and those that the garden owns."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlencode

from django.contrib import messages
from django.http import Http404, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.covers import flows as flow
from cloche.apps.covers import flows as season_flow
from cloche.apps.covers import selectors
from cloche.apps.covers.forms import AskForm, BegunForm, BuildingForm, DamageForm, OwnCoverForm, PutOnForm, SeasonForm
from cloche.apps.covers.pages import compare as season_pages
from cloche.apps.covers.pages.compare import where_most
from cloche.apps.covers.pages.inventory import building_page, damage_lines, learned_lines, own_lines
from cloche.apps.covers.pages.whatif import Question, usual_crops, waiting_page, what_if_page
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Cover, CoverDamage, CoverPeriod, Place
from cloche.apps.places.selectors import place_or_404
from cloche.apps.places.views import kept
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID, is_piece
from cloche.apps.sowings import flows
from cloche.apps.work.turns import ENGINE, WAITS, turn


@in_garden
def covers(request: GardenRequest) -> HttpResponse:
    """Compare covers for a bed. A complete question is answered at once, otherwise the page fetches the answer."""
    today = clock.today(request.garden.timezone)
    first = selectors.coverable(request.garden).first()
    usual = {"on": today.isoformat(), "warm": 14, "crop": "", "also": ""}
    bound = usual | request.GET.dict() if "place" in request.GET else None
    form = AskForm(bound, garden=request.garden, today=today, initial=usual | {"place": first})
    context = {"form": form, "places": first is not None, "tab": "covers", "page": None}
    if form.is_valid():
        query = Question(*(form.cleaned_data[name] for name in ("place", "crop", "on", "warm", "also")))
        with turn(ENGINE) as mine:
            context["page"] = what_if_page(query, units_of(request.user), today) if mine else waiting_page(WAITS)
        context["place"] = query.place
    partial = is_piece(request)
    template = "covers/_buys.html" if partial else "covers/covers.html"
    return render(request, template, context, status=INVALID if form.errors else 200)


@in_garden
def season_moved(request: GardenRequest) -> HttpResponse:
    """Compare the windows of a bed's crops under several covers. The page asks the queue again until it is done."""
    request.room = "covers"  # type: ignore[attr-defined]
    garden, today = request.garden, clock.today(request.garden.timezone)
    beds, offered = season_flow.beds(garden), season_flow.offered(garden)
    if not beds:
        return render(request, "covers/season.html", {"tab": "season", "place": None})
    form = SeasonForm(_query(request, beds[0], offered), garden=garden, offered=offered)
    context: dict[str, Any] = {"tab": "season", "form": form, "place": beds[0]}
    chosen = form.cleaned_data if form.is_valid() else {}
    place = next((bed for bed in beds if bed == chosen.get("place")), beds[0])
    crops, covers = chosen.get("crop", []), chosen.get("cover", [])
    context |= {"place": place, "page": season_pages.season_moved(place, crops, covers, today), "picks": _picks(form)}
    context["query"] = urlencode({"place": place.pk, "crop": crops, "cover": covers}, doseq=True)
    template = "covers/_season.html" if request.htmx else "covers/season.html"  # type: ignore[attr-defined]
    return render(request, template, context, status=INVALID if form.errors else 200)


def _query(request: GardenRequest, bed: Place, offered: list[tuple[str, str]]) -> QueryDict:
    """Return the question, or the garden's first crops under its own or the most common covers."""
    if "crop" in request.GET or "cover" in request.GET:
        return request.GET
    own = [key for key, _unused in offered if key.startswith(season_flow.OWN)]
    usual = QueryDict(mutable=True)
    usual["place"] = request.GET.get("place", str(bed.pk))
    usual.setlist("crop", list(usual_crops(request.garden)))
    usual.setlist("cover", own[:3] or ["fleece", "film_tunnel", "glass_frame"])
    return usual


def _picks(form: SeasonForm) -> list[dict[str, Any]]:
    """Return the two lists with their selection in words."""
    picks = []
    for name in ("crop", "cover"):
        bound = form[name]
        ticked = [text for key, text in form.fields[name].choices if key in (bound.value() or [])]  # type: ignore[attr-defined]
        picks.append({"bound": bound, "label": bound.label, "chosen": words.listed(ticked, 3) or "none"})
    return picks


@in_garden
def compare(request: GardenRequest, own_id: int) -> HttpResponse:
    """Compare the beds for one cover. The page asks the queue again until it is done."""
    request.room = "covers"  # type: ignore[attr-defined]
    page = where_most(_own(request, own_id), units_of(request.user), clock.today(request.garden.timezone))
    template = "covers/_compared.html" if request.htmx else "covers/compare.html"  # type: ignore[attr-defined]
    return render(request, template, {"page": page, "tab": "own_covers"})


@in_garden(writing=LOGS)
def put_on(request: GardenRequest, place_id: int) -> HttpResponse:
    """Put a cover on from a date on, and plan sowings under it."""
    request.room = "covers"  # type: ignore[attr-defined]
    place, units = place_or_404(request, place_id), units_of(request.user)
    query = {name: request.GET[name] for name in ("cover", "first", "crop", "sow_on", "both") if name in request.GET}
    initial = {"opens": CoverPeriod.Opens.ABOVE} | query
    form = PutOnForm(request.POST or None, instance=CoverPeriod(place=place), units=units, place=place, initial=initial)
    if form.is_valid() and kept(form):
        if form.cleaned_data["crop"]:
            flows.intend(place, form.cleaned_data["crop"], form.cleaned_data["sow_on"], request.user)
        messages.success(
            request,
            _("Saved for {name}. Today will remind you on the right day, and the forecast includes it.").format(
                name=place.name
            ),
        )
        return redirect("place", request.garden.pk, place.pk)
    return render(request, "covers/put_on.html", {"form": form, "place": place}, status=INVALID if form.errors else 200)


@in_garden
def own_covers(request: GardenRequest) -> HttpResponse:
    """Show the garden's own covers."""
    return _inventory(request, _begun(request))


@in_garden
def edit_own(request: GardenRequest, own_id: int) -> HttpResponse:
    """Edit a cover."""
    return _inventory(request, _own(request, own_id))


@in_garden
def build_cover(request: GardenRequest) -> HttpResponse:
    """Calculate how to build a cover for given plants."""
    request.room = "covers"  # type: ignore[attr-defined]
    units = units_of(request.user)
    form = BuildingForm(request.GET, units=units)
    page = building_page(form.built(), request.garden.latitude_deg, units) if form.is_valid() else None
    context = {"form": form, "page": page, "tab": "build_cover"}
    partial = is_piece(request)
    status = INVALID if page is None else 200
    return render(request, "covers/_building.html" if partial else "covers/building.html", context, status=status)


def _begun(request: GardenRequest) -> Cover:
    """Return a new cover with the measurements from a link."""
    form = BegunForm(request.GET)
    begun = form.cleaned_data if form.is_valid() else {}
    return Cover(garden=request.garden, **{name: value for name, value in begun.items() if value})


@require_POST
@in_garden
def note_damage(request: GardenRequest, own_id: int) -> HttpResponse:
    """Record damage to a cover."""
    cover = _own(request, own_id)
    form = DamageForm(request.POST, today=clock.today(request.garden.timezone), instance=CoverDamage(cover=cover))
    if not form.is_valid():
        return _inventory(request, cover, form)
    form.save()
    messages.success(request, _("Saved."))
    return redirect("edit_own", request.garden.pk, cover.pk)


@require_POST
@in_garden
def remove_damage(request: GardenRequest, own_id: int, damage_id: int) -> HttpResponse:
    """Delete a record of damage."""
    gone, _rows = CoverDamage.objects.filter(cover=_own(request, own_id), pk=damage_id).delete()
    if not gone:
        raise Http404
    messages.success(request, _("Removed."))
    return redirect("edit_own", request.garden.pk, own_id)


def _inventory(request: GardenRequest, cover: Cover, damage: DamageForm | None = None) -> HttpResponse:
    request.room = "covers"  # type: ignore[attr-defined]
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    bound = None if damage else request.POST or None
    form = OwnCoverForm(bound, instance=cover, garden=request.garden, units=units, today=today)
    if form.is_valid():
        flow.save_own(form.save())
        messages.success(request, _("{name} added.").format(name=cover.name))
        return redirect("own_covers", request.garden.pk)
    removed = request.garden.covers.filter(removed_at__isnull=False).order_by("-removed_at")[:5]
    lines = own_lines(request.garden, units, today)
    context = {"form": form, "lines": lines, "cover": cover, "removed": removed, "tab": "own_covers"}
    context["learned"] = learned_lines(request.garden)
    if cover.pk:
        context |= {"damage": damage or DamageForm(today=today), "happened": damage_lines(cover, units, today)}
    refused = form.errors or (damage is not None and damage.errors)
    return render(request, "covers/own.html", context, status=INVALID if refused else 200)


@require_POST
@in_garden
def remove_own(request: GardenRequest, own_id: int) -> HttpResponse:
    """Remove a cover."""
    cover = _own(request, own_id)
    flow.remove_own(cover)
    messages.success(
        request,
        _("{name} removed. Where it was used stays on record. You can restore it below.").format(name=cover.name),
    )
    return redirect("own_covers", request.garden.pk)


@require_POST
@in_garden
def put_back_own(request: GardenRequest, own_id: int) -> HttpResponse:
    """Restore a cover."""
    cover = request.garden.covers.filter(pk=own_id, removed_at__isnull=False).first()
    if cover is None:
        raise Http404
    done = flow.put_back_own(cover)
    messages.success(
        request,
        _("{name} restored.").format(name=cover.name)
        if done
        else _("Another cover is now called {name}. Rename that one first.").format(name=cover.name),
    )
    return redirect("own_covers", request.garden.pk)


def _own(request: GardenRequest, own_id: int) -> Cover:
    cover = request.garden.covers.filter(pk=own_id, removed_at__isnull=True).first()
    if cover is None:
        raise Http404
    return cover
