"""Browsers that somebody has signed in with before.

Wrong tries are counted by name and address. A browser that is known counts as an address of its own: whoever guesses from
elsewhere, or from behind the same proxy, cannot lock a person out of the browser they always use. Large files are taken
from browsers only in which somebody is signed in, and that is seen from the cookie alone, before anything of the file is
received: it says so for some hours, is renewed while the person is there, and is taken back when they sign out, when their
password ends the session, and when the account is erased.
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
SIGNED_IN_S, RENEWED_S = 12 * 3600, 3600
"""For how long a cookie alone vouches for somebody who is signed in, and the age at which it is written anew."""
IN, OUT = "in", "out"
_OWN = 0xFD << 120
"""Unique local addresses [RFC4193]: none of them comes from outside."""


def remember(request: HttpRequest, response: HttpResponseBase) -> None:
    """Set the cookie that marks the browser of a signed-in person, unless it is set already."""
    cookie = request.COOKIES.get(COOKIE, "")
    user = request.user if request.session.accessed else None
    if user is None:
        return
    if not user.is_authenticated:
        if is_signed_in(cookie):
            _set(response, [*_read(cookie, GOOD_FOR_S)[:2], OUT])
        return
    if name_in(cookie) == user.get_username() and is_signed_in(cookie, RENEWED_S):
        return
    # Its middle part stays: by it wrong tries of this browser are counted.
    own = _read(cookie, GOOD_FOR_S)[1] if name_in(cookie) == user.get_username() else secrets.token_urlsafe(12)
    _set(response, [user.get_username(), own, IN])


def _set(response: HttpResponseBase, words: list[str]) -> None:
    cookie = signing.dumps(words, salt=SALT)
    response.set_cookie(
        COOKIE, cookie, max_age=GOOD_FOR_S, httponly=True, samesite="Lax", secure=settings.SESSION_COOKIE_SECURE
    )


def _read(cookie: str, good_for_s: int) -> list[str]:
    """Return name, browser identifier and sign-in state from a cookie, or empty strings if it was not written by us."""
    try:
        words = [str(word) for word in signing.loads(cookie, salt=SALT, max_age=good_for_s)]
    except (signing.BadSignature, ValueError, TypeError):
        return ["", "", ""]
    return [*words, "", "", ""][:3]


def name_in(cookie: str) -> str:
    """Return the user name in a cookie, or an empty string."""
    return _read(cookie, GOOD_FOR_S)[0]


def is_signed_in(cookie: str, good_for_s: int = SIGNED_IN_S) -> bool:
    """Return whether the cookie was written recently while somebody was signed in."""
    return _read(cookie, good_for_s)[2] == IN


def is_known(cookies: str) -> bool:
    """Return whether a request's cookies come from a browser in which somebody is signed in."""
    try:
        cookie = SimpleCookie(cookies).get(COOKIE)
    except CookieError:
        return False
    return cookie is not None and is_signed_in(cookie.value)


def address(request: HttpRequest, name: str) -> str:
    """Return where a sign-in attempt comes from: the person's known browser, or else the IP address."""
    cookie = request.COOKIES.get(COOKIE, "")
    if request.method == "POST" and name_in(cookie) and name_in(cookie) == name:
        name, own, _signed_in = _read(cookie, GOOD_FOR_S)
        browser = hashlib.sha256(f"{name}:{own}".encode()).digest()[:15]
        return str(ipaddress.IPv6Address(_OWN | int.from_bytes(browser, "big")))
    return str(request.META.get("REMOTE_ADDR", "")) or "127.0.0.1"
