"""Views of the round, of stops sent by devices, and of offline support."""

from __future__ import annotations

import json
import zlib
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib import messages
from django.contrib.staticfiles.storage import staticfiles_storage
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_GET, require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.readings.flows.record import take_visit_back
from cloche.apps.readings.models import Visit
from cloche.apps.rounds import pages, sending
from cloche.apps.rounds.forms import StopForm
from cloche.apps.shared import clock
from cloche.apps.shared.clock import asked_instant
from cloche.apps.shared.http import INVALID
from cloche.bridge.values import border

SHELL = (
    *(f"css/{name}.css" for name in ("look", "drawings", "desk", "pages", "round", "bench", "plan", "years")),
    *(f"js/{name}.js" for name in ("sentences", "device", "sending", "waiting", "keys", "drawings", "early")),
    *(f"js/round/{name}.js" for name in ("expecting", "entry", "tools", "refused", "round")),
    "img/cloche.svg",
    "vendor/bootstrap-5.3.8/bootstrap.css",
    "vendor/htmx-2.0.11/htmx.min.js",
    "vendor/idb-8.0.3/umd.js",
    "fonts/literata-latin-wght-normal.woff2",
    "fonts/atkinson-hyperlegible-next-latin-wght-normal.woff2",
)
DRIFT = timedelta(minutes=2)
WORKER = Path(settings.PACKAGE) / "static" / "js" / "worker.js"


def _visit(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> Visit | None:
    """Return the stop that is to be undone, or None."""
    return Visit.objects.filter(key=words["visit_key"], place__garden=garden).first()


@in_garden(writing=LOGS)
def round_(request: GardenRequest) -> HttpResponse:
    """Show the places in walking order; without scripts the whole table is sent at once."""
    units = units_of(request.user)
    bound = request.POST if request.method == "POST" else None
    places = list(request.garden.places.all())
    forms = {p.pk: StopForm(bound, garden=request.garden, units=units, prefix=str(p.pk), initial={"place": p}) for p in places}
    filled = [form for form in forms.values() if bound and form.has_changed() and not _empty(form)]
    if filled and all(form.is_valid() for form in filled) and sending.take_table(filled, request.user):
        messages.success(request, _("{len} of {len2} places saved.").format(len=len(filled), len2=len(places)))
        return redirect("round", request.garden.pk)
    if bound is not None and not filled:
        messages.error(request, "Nothing is written down yet: every place was left empty.")
    page = pages.round_page(request.garden, request.user, units, clock.now())
    for form in forms.values():
        if form not in filled:
            form.is_bound = False
    # A place that somebody makes in this moment stands on the page the next time.
    rows = [{"stop": stop, "form": forms[stop.place.pk]} for stop in page.stops if stop.place.pk in forms]
    return render(request, "rounds/round.html", {"page": page, "rows": rows, "units": units}, status=INVALID if filled else 200)


def _empty(form: StopForm) -> bool:
    form.is_valid()
    return form.has_error("__all__", "empty")


@require_POST
@in_garden(writing=LOGS)
def send(request: GardenRequest) -> JsonResponse:
    """Receive stops from a device and answer each one."""
    try:
        body = border.read_json(request.body, sending.MOST_BYTES)
        stops = body["stops"]
    except (border.NotAllowed, KeyError, TypeError):
        return JsonResponse({"message": _("Send {“sent_at”: …, “stops”: […]} as JSON.")}, status=400)
    if not isinstance(stops, list) or len(stops) > sending.MOST_STOPS:
        return JsonResponse(
            {"message": _("Send a list of at most {most_stops} stops.").format(most_stops=sending.MOST_STOPS)}, status=400
        )
    if body.get("person", request.user.username) != request.user.username:
        # The page was kept from somebody else's visit: what they read is theirs, and waits for them.
        return JsonResponse(
            {"message": _("You are signed in as {username}.").format(username=request.user.username)}, status=403
        )
    ahead = _ahead(body.get("sent_at"))
    return JsonResponse({"results": [sending.take(request.garden, request.user, stop, ahead) for stop in stops]})


def _ahead(sent_at: Any) -> timedelta:
    """Return how far the device's clock is ahead of ours; small differences count as zero."""
    instant = asked_instant(sent_at)
    if instant is None:
        return timedelta(0)
    ahead = instant - clock.now()
    return ahead if abs(ahead) > DRIFT else timedelta(0)


@require_POST
@in_garden(writing=LOGS, own=_visit)
def take_back(request: GardenRequest, visit_key: Any) -> HttpResponse:
    """Undo a stop."""
    visit = Visit.objects.filter(key=visit_key, place__garden=request.garden).first()
    if visit is None:
        raise Http404
    take_visit_back(visit)
    return JsonResponse({"key": str(visit.key), "state": "taken back"})


@require_GET
@in_garden
def summary(request: GardenRequest) -> HttpResponse:
    """Show the result of a round, polling while places are calculated."""
    since = asked_instant(request.GET.get("since"))
    if since is None:
        since = pages.half_began(clock.now().astimezone(request.garden.timezone))
    facts = pages.summary(request.garden, since, clock.now())
    return render(request, "rounds/_summary.html", {"summary": facts, "garden": request.garden, "since": since.isoformat()})


@require_GET
@in_garden
def photo(request: GardenRequest, visit_key: Any) -> HttpResponse:
    """Return the picture of a stop."""
    visit = Visit.objects.filter(key=visit_key, place__garden=request.garden, photo__isnull=False).first()
    if visit is None or visit.photo is None:
        raise Http404
    return HttpResponse(bytes(visit.photo), content_type="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})


@require_GET
@never_cache
def service_worker(request: HttpRequest) -> HttpResponse:
    """Return the service worker, served from the root so that its scope is the whole site."""
    return HttpResponse(worker_script(), content_type="text/javascript; charset=utf-8")


def worker_script() -> str:
    """Return the worker's script with its list of cached files; a change of files changes its version."""
    shell = json.dumps([staticfiles_storage.url(name) for name in SHELL])
    version = f"{zlib.crc32(shell.encode()):08x}"
    return f'const SHELL = {shell};\nconst VERSION = "{version}";\n{WORKER.read_text(encoding="utf-8")}'


@require_GET
def manifest(request: HttpRequest) -> JsonResponse:
    """Return the web app manifest."""
    icons = [_icon(192, "", "any"), _icon(512, "", "any"), _icon(512, "-maskable", "maskable")]
    about = {
        "name": "Cloche",
        "short_name": "Cloche",
        "description": _("When to sow each crop, from the temperature of your own soil."),
    }
    about |= {"start_url": "/", "scope": "/", "display": "standalone", "lang": "en-GB"}
    about |= {"background_color": "#f5f1e8", "theme_color": "#2f5d50"}
    return JsonResponse(about | {"icons": icons}, content_type="application/manifest+json")


def _icon(px: int, kind: str, purpose: str) -> dict[str, str]:
    src = staticfiles_storage.url(f"img/cloche-{px}{kind}.png")
    return {"src": src, "sizes": f"{px}x{px}", "type": "image/png", "purpose": purpose}


@require_GET
def no_signal(request: HttpRequest) -> HttpResponse:
    """Return the offline page that the device shows in place of pages that need a connection."""
    return render(request, "rounds/no_signal.html")
