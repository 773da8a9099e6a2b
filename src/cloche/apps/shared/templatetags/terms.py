"""Template tags for explained terms."""

from __future__ import annotations

from typing import Any

from django import template

from cloche.apps.shared.terms import explained

register = template.Library()


@register.inclusion_tag("elements/terms.html")
def terms(*keys: str) -> dict[str, Any]:
    """Render a line of terms that open their definitions: {% terms "window" "half" %}. Use once a page."""
    return {"terms": explained(*keys)}
