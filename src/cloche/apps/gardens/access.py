"""Who may see and change a garden, and what a page offers to whom."""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import partial, wraps
from typing import Any
from urllib.parse import urlsplit

from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponseBase
from django.shortcuts import render
from django.urls import Resolver404, resolve

from cloche.apps.gardens.language import speak_for
from cloche.apps.gardens.models import Garden, Membership, User

Own = Callable[[HttpRequest, Garden, dict[str, Any]], Any]
"""From a request in a garden and the words of its address, the row that would be changed; None where there is none."""
MAY_GROW = Membership.Role.GROWER
MARK = " data-not-yours hidden"
ONLY_FORMS = ("new_", "edit_", "put_on", "add_", "set_")
"""How the names of addresses begin at which there is nothing but a form."""
_TAGS = re.compile(rb"<(form|a|button)\b[^>]*>", re.IGNORECASE)
_ADDRESS = re.compile(r'\b(?:action|hx-post|href|formaction)="([^"]*)"')
_SENDS = re.compile(r'method="post"|hx-post=|formaction=', re.IGNORECASE)


def row_of(label: str, word: str) -> Own:
    """Return the row of a model whose number is in the address."""

    def find(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> Any:
        return apps.get_model(label)._base_manager.filter(pk=words[word]).first()

    return find


def wrote(person: User, row: Any) -> bool:
    """Return whether a person entered a row, by its author or else by its history."""
    for name in ("entered_by_id", "by_id", "made_by_id"):
        if hasattr(row, name):
            return bool(getattr(row, name) == person.pk)
    first = row.history.filter(history_type="+").order_by("history_id").first()
    return first is not None and first.history_user_id == person.pk


def may_send(request: HttpRequest, membership: Membership, view: Any, words: dict[str, Any]) -> bool:
    """Return whether a member may submit anything to a view."""
    if not membership.may(view.writing):
        return False
    if view.own is None or membership.may(MAY_GROW):
        return True
    row = view.own(request, membership.garden, words)
    return row is None or wrote(membership.user, row)


def fitted(request: HttpRequest, membership: Membership, response: HttpResponseBase) -> HttpResponseBase:
    """Remove forms, and links to forms, that the reader may not use."""
    whole = getattr(response, "content", None)
    if membership.may(MAY_GROW) or whole is None or "text/html" not in response.get("Content-Type", ""):
        return response

    def marked(match: re.Match[bytes]) -> bytes:
        tag = match.group().decode()
        if not _is_refused(request, membership, tag):
            return match.group()
        return (tag[:-1].rstrip("/") + MARK + ">").encode()

    response.content = _TAGS.sub(marked, whole)  # type: ignore[attr-defined]
    return response


def _is_refused(request: HttpRequest, membership: Membership, tag: str) -> bool:
    sends, address = bool(_SENDS.search(tag)), _ADDRESS.search(tag)
    if tag.startswith("<form") and not sends:
        return False
    path = urlsplit(address.group(1).replace("&amp;", "&")).path if address else ""
    if not sends and not path:
        return False
    try:
        match = resolve(path or request.path)
    except Resolver404:
        return False
    if not hasattr(match.func, "writing") or match.kwargs.get("garden_id") != membership.garden_id:
        return False
    if not sends and not (match.url_name or "").startswith(ONLY_FORMS):
        return False
    return not may_send(request, membership, match.func, match.kwargs)


class GardenRequest(HttpRequest):
    """A request inside a garden with `garden`, `membership` and a signed-in `user`."""

    garden: Garden
    membership: Membership
    user: User


View = Callable[..., HttpResponseBase]
READING = ("GET", "HEAD", "OPTIONS")
OWNS, GROWS, LOGS, READS = Membership.Role
"""What one must be at least to change people, to change the garden, to log, to send anything at all."""


def in_garden(view: View | None = None, *, writing: str = GROWS, own: Own | None = None) -> Any:
    """Require sign-in and membership and set request.garden. Others receive 404, which reveals nothing.

    writing: the least role that may send anything there; own: the row that is changed there, which helpers may only change
    where they entered it. Others get 403 with a sentence, and nothing is changed. Pages are fitted to it (see `rights`).
    """
    if view is None:
        return partial(in_garden, writing=writing, own=own)

    @login_required
    @wraps(view)
    def wrapped(request: Any, garden_id: int, *args: Any, **kwargs: Any) -> HttpResponseBase:
        membership = request.user.memberships.select_related("garden").filter(garden_id=garden_id).first()
        if membership is None:
            raise Http404
        request.garden, request.membership = membership.garden, membership
        speak_for(membership.garden)
        if request.session.get("garden_id") != garden_id:
            request.session["garden_id"] = garden_id
        membership.user = request.user
        words = kwargs | {"garden_id": garden_id}
        if request.method not in READING and not may_send(request, membership, wrapped, words):
            others = membership.may(writing)
            return render(request, "not_yours.html", {"role": membership.get_role_display(), "others": others}, status=403)
        return fitted(request, membership, view(request, *args, **kwargs))

    wrapped.writing, wrapped.own = writing, own  # type: ignore[attr-defined]
    return wrapped
