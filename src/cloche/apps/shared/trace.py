"""Request numbers in log records and response headers."""

from __future__ import annotations

import logging
import secrets
import time
from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponseBase

from cloche.apps.shared import words

NUMBER: ContextVar[str] = ContextVar("request_id", default="-")
log = logging.getLogger("cloche.requests")


class WithRequest(logging.Filter):
    """Log filter that adds the number of the current request, or a dash."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Add the number and let every record pass."""
        record.request_id = NUMBER.get()
        return True


class RequestIdMiddleware:
    """Middleware that numbers, logs and counts requests.

    Logs the URL pattern rather than the URL, which may contain a secret.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        mark, begun = NUMBER.set(secrets.token_hex(8)), time.perf_counter()
        try:
            response = self.get_response(request)
            response["X-Request-ID"] = NUMBER.get()
            _note(request, response, time.perf_counter() - begun)
        finally:
            NUMBER.reset(mark)
        return response


def _note(request: HttpRequest, response: HttpResponseBase, took_s: float) -> None:
    match = request.resolver_match
    route = match.route if match is not None else ""
    words.answered(request.method or "", match.view_name if match is not None else "", response.status_code, took_s)
    log.info(
        "answered",
        extra={
            "method": request.method,
            "route": route,
            "status": response.status_code,
            "ms": round(1000 * took_s),
            "person": getattr(request, "person_pk", None),
        },
    )
