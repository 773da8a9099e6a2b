"""Browsers that somebody has signed in with before.

Wrong tries are counted by name and address. A browser that is known counts as an address of its own: whoever guesses from
elsewhere, or from behind the same proxy, cannot lock a person out of the browser they always use. Large files are taken
from known browsers only, and that is seen from the cookie alone, before anything of the file is received.
"""

from __future__ import annotations

import hashlib
import ipaddress
import secrets
from http.cookies import CookieError, SimpleCookie

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponseBase

COOKIE, SALT = "cloche-known", "cloche.known"
GOOD_FOR_S = 400 * 24 * 3600
_OWN = 0xFD << 120
"""Unique local addresses [RFC4193]: none of them comes from outside."""


def remember(request: HttpRequest, response: HttpResponseBase) -> None:
    """Mark the browser of somebody who is signed in, unless it is marked as theirs already."""
    user = request.user if request.session.accessed else None
    if user is None or not user.is_authenticated:
        return
    if name_in(request.COOKIES.get(COOKIE, "")) == user.get_username():
        return
    cookie = signing.dumps([user.get_username(), secrets.token_urlsafe(12)], salt=SALT)
    response.set_cookie(
        COOKIE, cookie, max_age=GOOD_FOR_S, httponly=True, samesite="Lax", secure=settings.SESSION_COOKIE_SECURE
    )


def name_in(cookie: str) -> str:
    """Whose browser a cookie says it is; empty where it says nothing that we wrote."""
    try:
        name, _ = signing.loads(cookie, salt=SALT, max_age=GOOD_FOR_S)
    except (signing.BadSignature, ValueError, TypeError):
        return ""
    return str(name)


def is_known(cookies: str) -> bool:
    """Whether a request's Cookie heading comes from a browser that somebody has signed in with."""
    try:
        found = SimpleCookie(cookies).get(COOKIE)
    except CookieError:
        return False
    return found is not None and name_in(found.value) != ""


def address(request: HttpRequest, name: str) -> str:
    """Where a try to sign in under a name comes from: the person's own browser, else its address."""
    cookie = request.COOKIES.get(COOKIE, "")
    if request.method == "POST" and name_in(cookie) and name_in(cookie) == name:
        return str(ipaddress.IPv6Address(_OWN | int.from_bytes(hashlib.sha256(cookie.encode()).digest()[:15], "big")))
    return str(request.META.get("REMOTE_ADDR", "")) or "127.0.0.1"
