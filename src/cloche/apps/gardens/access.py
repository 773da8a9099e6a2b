"""Who may see what. Every address of a garden passes here; a garden one does not belong to does not exist."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, wraps
from typing import Any

from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponseBase
from django.shortcuts import render

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.gardens.rights import Own, fitted, may_send
from cloche.apps.gardens.speech import speak_for


class GardenRequest(HttpRequest):
    """A request inside a garden: `garden` and `membership` are set, `user` is signed in."""

    garden: Garden
    membership: Membership
    user: User


View = Callable[..., HttpResponseBase]
READING = ("GET", "HEAD", "OPTIONS")
OWNS, GROWS, LOGS, READS = Membership.Role
"""What one must be at least to change people, to change the garden, to log, to send anything at all."""


def in_garden(view: View | None = None, *, writing: str = GROWS, own: Own | None = None) -> Any:
    """Sign-in and membership; sets request.garden. Strangers get 404, so that they learn nothing.

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
