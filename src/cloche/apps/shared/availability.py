"""When nothing may be written, and what every page and device is told meanwhile."""

from __future__ import annotations

import logging
import sys
from collections.abc import Callable

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, HttpResponseBase, JsonResponse
from django.template.loader import render_to_string
from django.utils.cache import patch_cache_control
from psycopg.errors import DiskFull

from cloche.apps.shared import clock, known_browser
from cloche.apps.shared.words import lazy
from cloche.apps.work import guard
from cloche.apps.work.guard import is_away
from cloche.apps.work.patience import PATIENCE, awaited

log = logging.getLogger("cloche.web")
READING = ("GET", "HEAD", "OPTIONS")
ALWAYS = ("/sign-in/", "/sign-out/")
"""Who they are people may say even then: without that they could not read either."""
RETRY_S = "30"
FULL = lazy("The disk of this computer is full. You can read everything, but nothing can be saved until there is free space.")
CLOCK = lazy(
    "The clock of this computer is wrong, so entries cannot be dated. You can read everything, but nothing can be saved."
)
AWAY = lazy("The database of this computer is not responding. It is being restarted; try again in a moment.")
FAULT = lazy("Something went wrong. This is a fault in Cloche. No stored data has been lost.")


def why_not_now() -> str:
    """A sentence that says why nothing can be written at present; empty where it can."""
    if guard.is_full():
        return str(FULL)
    return "" if clock.is_believable() else str(CLOCK)


class PatienceMiddleware:
    """Answers with a sentence, within seconds, while the database hangs. Stands before all that asks the database; what needs
    none is let through."""

    WITHOUT = ("/healthz/",)

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if request.path in self.WITHOUT:
            request.COOKIES = {}  # nobody's session is looked up to say that the web is alive
            return self.get_response(request)
        if PATIENCE.is_resting():
            return refusal(request, str(AWAY), 503)
        response, cut = awaited(lambda: self._answered(request))
        if not cut and response.status_code < 500:
            PATIENCE.recovered()
        return response  # type: ignore[no-any-return]

    def _answered(self, request: HttpRequest) -> HttpResponseBase:
        """With who asked, for the log: it is looked up here, for whoever asks the database after this is watched by nobody."""
        response = self.get_response(request)
        if response.status_code < 500 and hasattr(request, "session"):
            request.person_pk = request.user.pk  # type: ignore[attr-defined]
        return response


class ReadOnlyMiddleware:
    """Turns writing away while it cannot be done safely, and keeps private pages out of every store but the person's own."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        why = why_not_now() if request.method not in READING and request.path not in ALWAYS else ""
        response = refusal(request, why, 503) if why else self.get_response(request)
        if not response.has_header("Cache-Control"):
            patch_cache_control(response, private=True, no_store=True)
        known_browser.remember(request, response)
        return response


def notices(request: HttpRequest) -> dict[str, str]:
    """For every page: why nothing can be written, if it cannot."""
    return {"not_now": why_not_now()}


def fault(request: HttpRequest) -> HttpResponse:
    """What Django shows when a page failed: a database that is away is not a fault of the page."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError) and is_away():
        log.warning("the database does not answer: %s", str(error).strip())
        return refusal(request, str(AWAY), 503)
    if isinstance(getattr(error, "__cause__", None), DiskFull):
        return refusal(request, str(FULL), 503)
    return refusal(request, str(FAULT), 500)


def refusal(request: HttpRequest, message: str, status: int) -> HttpResponse:
    """A sentence as what asked can read it: a device JSON, a person a page that needs neither database nor session."""
    response: HttpResponse
    if request.path.startswith(("/api/", "/readyz/")) or request.content_type == "application/json":
        response = JsonResponse({"detail": message, "message": message}, status=status)
    else:
        response = HttpResponse(render_to_string("refusal.html", {"message": message}), status=status)
    if status == 503:
        response["Retry-After"] = RETRY_S
    return response
