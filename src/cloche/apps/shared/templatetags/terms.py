"""Words that open where they are used."""

from __future__ import annotations

from typing import Any

from django import template

from cloche.apps.shared.terms import explained

register = template.Library()


@register.inclusion_tag("elements/terms.html")
def terms(*keys: str) -> dict[str, Any]:
    """{% terms "window" "half" %}: a line of words, each of which opens its meaning. Once a page."""
    return {"terms": explained(*keys)}
