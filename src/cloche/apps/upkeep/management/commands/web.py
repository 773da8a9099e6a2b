"""Serve pages and devices, until told to stop: on a socket that is open already, which any number may share, or on an address.

A request reaches a thread only when all of it has been received: slow senders hold none. How large it may be is decided by
its address, from its heading.
"""

from __future__ import annotations

import signal
import socket
import sys
from argparse import ArgumentTypeError
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.core.wsgi import get_wsgi_application
from waitress import create_server
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser

from cloche.apps.shared import http, known_browser
from cloche.apps.upkeep.ahead import read_ahead

THREADS, CONNECTIONS, SILENCE_S, SWITCH_S = 4, 900, 60, 0.0005
KEPT_BYTES = 600_000_000
"""An answer up to this is taken from its thread at once, on disk beyond a megabyte, however slowly it is fetched."""


class _Narrowed:
    """Server settings with another limit on the size of a request body."""

    def __init__(self, settings_of_server: Any, most: int) -> None:
        self._of_server, self.max_request_body_size = settings_of_server, most

    def __getattr__(self, name: str) -> Any:
        return getattr(self._of_server, name)


class Parser(HTTPRequestParser):
    """Request parser that sets the body limit once the URL is known and before anything is stored."""

    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        most = http.most_bytes(self.path, known_browser.is_known(self.headers.get("COOKIE", "")))
        self.adj: Any = _Narrowed(self.adj, most)


class Channel(HTTPChannel):
    """Connection that reads requests within these limits."""

    parser_class = Parser


class Command(BaseCommand):
    """Serve requests: `web --fd N` or `web --listen HOST:PORT`."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        where = parser.add_mutually_exclusive_group(required=True)
        where.add_argument("--fd", type=int, help="Number of the listening socket, as inherited.")
        where.add_argument("--listen", type=_address, metavar="HOST:PORT", help="Where to listen; [::]:8000 for every address.")

    def handle(self, *args: Any, fd: int | None, listen: tuple[str, int] | None, **options: Any) -> None:
        # A page that comes back from the database must not wait its turn behind a thread that computes.
        sys.setswitchinterval(SWITCH_S)
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        application = get_wsgi_application()
        read_ahead()
        server = create_server(
            application,
            sockets=[_listening(*listen) if listen else socket.socket(fileno=fd)],
            threads=THREADS,
            connection_limit=CONNECTIONS,
            channel_timeout=SILENCE_S,
            cleanup_interval=10,
            asyncore_use_poll=True,
            outbuf_high_watermark=KEPT_BYTES,
            ident=None,
            clear_untrusted_proxy_headers=True,
            **_proxy(),
        )
        server.channel_class = Channel
        server.run()


def _address(text: str) -> tuple[str, int]:
    host, _colon, port = text.rpartition(":")
    if not host or not port.isdecimal() or not 0 < int(port) < 65_536:
        raise ArgumentTypeError(f"“{text}” is not a host and a port, such as 0.0.0.0:8000")
    return host.strip("[]"), int(port)


def _listening(host: str, port: int) -> socket.socket:
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    return socket.create_server((host, port), family=family, backlog=512, dualstack_ipv6=host == "::")


def _proxy() -> dict[str, Any]:
    """Return proxy settings: only a configured proxy is trusted to name the client."""
    if not settings.CLOCHE_PROXY:
        return {}
    headings = {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"}
    return {"trusted_proxy": settings.CLOCHE_PROXY, "trusted_proxy_count": 1, "trusted_proxy_headers": headings}
