"""Counts that several processes share, for programs that watch: how many requests were answered how, and how long it took."""

from __future__ import annotations

from functools import cache
from typing import Any

from django.conf import settings

SECONDS = (0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0)
METHODS = {"GET", "HEAD", "POST", "OPTIONS"}


@cache
def _counters() -> tuple[Any, Any] | None:
    """None where nobody asks. The library chooses how it keeps them when it is first imported: by then the folder is named in
    the environment (scripts/serve.sh)."""
    if not settings.CLOCHE_METRICS_PORT:
        return None
    from prometheus_client import Counter, Histogram

    requests = Counter("cloche_requests", "Requests answered", ["method", "page", "status"])
    return requests, Histogram("cloche_request_seconds", "Time until a request was answered", ["page"], buckets=SECONDS)


def answered(method: str, page: str, status: int, took_s: float) -> None:
    """One more request. page: the name of its address, of which there are only so many; empty for none of ours."""
    counters = _counters()
    if counters is not None:
        counters[0].labels(method if method in METHODS else "other", page or "none", str(status)).inc()
        counters[1].labels(page or "none").observe(took_s)
