"""Health endpoints and status pages."""

from __future__ import annotations

import os
from dataclasses import asdict

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_POST

from cloche.apps.gardens.access import OWNS, GardenRequest, in_garden
from cloche.apps.gardens.selectors import keeper_of_computer
from cloche.apps.shared import clock
from cloche.apps.upkeep import health
from cloche.apps.upkeep.computer import computer_page
from cloche.apps.upkeep.flows import alerts
from cloche.apps.upkeep.pages import runs_page
from cloche.apps.work import turns


@require_GET
def alive(request: HttpRequest) -> JsonResponse:
    """Answer that this process runs, without querying the database, whose absence is no reason to restart it."""
    return JsonResponse({"ok": True})


@require_GET
def ready(request: HttpRequest) -> JsonResponse:
    """Answer whether the installation is usable, with figures; 503 if not."""
    results = health.checks()
    well = health.is_ready(results)
    facts = {check["name"]: check["facts"] | {"well": check["well"]} for check in map(asdict, results)}
    return JsonResponse({"ready": well, "checks": facts}, status=200 if well else 503)


@in_garden(writing=OWNS)
def how_it_runs(request: GardenRequest) -> HttpResponse:
    """Show the system status to the owner of a garden."""
    if not request.membership.may(OWNS):
        raise Http404
    request.room = "garden"  # type: ignore[attr-defined]
    context = {"page": runs_page(request.garden, clock.now()), "keeps": request.user == keeper_of_computer()}
    return render(request, "upkeep/runs.html", context)


@in_garden(writing=OWNS)
def computer(request: GardenRequest) -> HttpResponse:
    """Show the resources each garden uses to the operator."""
    if request.user != keeper_of_computer():
        raise Http404
    request.room = "garden"  # type: ignore[attr-defined]
    page = computer_page(turns.database_now().date(), os.cpu_count() or 1)
    return render(request, "upkeep/computer.html", {"page": page})


@require_POST
@in_garden(writing=OWNS)
def try_again(request: GardenRequest, failure_id: int) -> HttpResponse:
    """Retry failed work now."""
    if not alerts.try_now(request.garden, failure_id):
        raise Http404
    messages.success(request, _("Trying again now."))
    return redirect("how_it_runs", request.garden.pk)
