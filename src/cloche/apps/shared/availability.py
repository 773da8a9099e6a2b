"""Behaviour while the database is unavailable or writing is disabled."""

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
    """Return why nothing can be written at present, or an empty string."""
    if guard.is_full():
        return str(FULL)
    return "" if clock.is_believable() else str(CLOCK)


class PatienceMiddleware:
    """Middleware that answers within seconds while the database hangs.

    Comes before all that queries it; requests that need no database pass.
    """

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
        """Answer a request after looking the user up for the log, while the database can still be watched."""
        response = self.get_response(request)
        if response.status_code < 500 and hasattr(request, "session"):
            request.person_pk = request.user.pk  # type: ignore[attr-defined]
        return response


class ReadOnlyMiddleware:
    """Middleware that refuses writes while they are unsafe, and keeps private pages out of shared caches."""

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
    """Return the notice for every page while nothing can be written."""
    return {"not_now": why_not_now()}


def fault(request: HttpRequest) -> HttpResponse:
    """Answer a failed request, distinguishing an unavailable database from a fault of the page."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError) and is_away():
        log.warning("the database does not answer: %s", str(error).strip())
        return refusal(request, str(AWAY), 503)
    if isinstance(getattr(error, "__cause__", None), DiskFull):
        return refusal(request, str(FULL), 503)
    return refusal(request, str(FAULT), 500)


def refusal(request: HttpRequest, message: str, status: int) -> HttpResponse:
    """Answer with a message in the form the client expects: JSON for devices, a page without database or session for people."""
    response: HttpResponse
    if request.path.startswith(("/api/", "/readyz/")) or request.content_type == "application/json":
        response = JsonResponse({"detail": message, "message": message}, status=status)
    else:
        response = HttpResponse(render_to_string("refusal.html", {"message": message}), status=status)
    if status == 503:
        response["Retry-After"] = RETRY_S
    return response
