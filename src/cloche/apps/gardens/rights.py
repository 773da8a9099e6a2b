"""Who may change what: one table, held at the addresses, from which both the refusals and the pages follow.

Each view says which role may send something there (`in_garden(writing=…)`) and, where it changes what is there already, which
row that is (`own=…`): helpers add entries and correct their own, nothing of others. Templates show forms and links to forms to
everybody alike; before a page goes out, what its reader would be refused is taken off it here.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any
from urllib.parse import urlsplit

from django.apps import apps
from django.http import HttpRequest, HttpResponseBase
from django.urls import Resolver404, resolve

from cloche.apps.gardens.models import Garden, Membership, User

Own = Callable[[HttpRequest, Garden, dict[str, Any]], Any]
"""From a request in a garden and the words of its address, the row that would be changed; None where there is none."""
GROWS = Membership.Role.GROWER
MARK = " data-not-yours hidden"
ONLY_FORMS = ("new_", "edit_", "put_on", "add_", "set_")
"""How the names of addresses begin at which there is nothing but a form."""
_TAGS = re.compile(rb"<(form|a|button)\b[^>]*>", re.IGNORECASE)
_ADDRESS = re.compile(r'\b(?:action|hx-post|href|formaction)="([^"]*)"')
_SENDS = re.compile(r'method="post"|hx-post=|formaction=', re.IGNORECASE)


def row_of(label: str, word: str) -> Own:
    """The row of a model whose number stands in the address."""

    def find(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> Any:
        return apps.get_model(label)._base_manager.filter(pk=words[word]).first()

    return find


def wrote(person: User, row: Any) -> bool:
    """Whether somebody entered a row themselves: as it says, else as its history does."""
    for name in ("entered_by_id", "by_id", "made_by_id"):
        if hasattr(row, name):
            return bool(getattr(row, name) == person.pk)
    first = row.history.filter(history_type="+").order_by("history_id").first()
    return first is not None and first.history_user_id == person.pk


def may_send(request: HttpRequest, membership: Membership, view: Any, words: dict[str, Any]) -> bool:
    """Whether a member may send anything to a view at an address with these words."""
    if not membership.may(view.writing):
        return False
    if view.own is None or membership.may(GROWS):
        return True
    row = view.own(request, membership.garden, words)
    return row is None or wrote(membership.user, row)


def fitted(request: HttpRequest, membership: Membership, response: HttpResponseBase) -> HttpResponseBase:
    """A page without the forms, and the links to forms, that its reader would be refused."""
    whole = getattr(response, "content", None)
    if membership.may(GROWS) or whole is None or "text/html" not in response.get("Content-Type", ""):
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
