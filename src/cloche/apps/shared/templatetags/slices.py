"""Places drawn as slices of ground, and the colours of their ground. A page of forty shows the same forty until the hour or the
forecast moves on."""

from __future__ import annotations

from collections.abc import Hashable, Iterable
from functools import lru_cache

from django import template
from django.template.loader import render_to_string
from django.utils.safestring import SafeString, mark_safe

from cloche.drawing.slice import Slice, Stop

register = template.Library()

ALL_OF_IT = 212
MOST_KEPT = 1000


@register.simple_tag(name="slice")
def drawn(
    cut: Slice | None,
    key: Hashable,
    number: str = "",
    air: Hashable = None,
    inside: str = "",
    height: int = ALL_OF_IT,
) -> SafeString:
    """Draw a cross-section of ground: {% slice cut key number air %}.

    `key` is unique on the page, `number` the soil temperature at the probe, `air` the low and high under the cover, `inside`
    the current air temperature there, and `height` how much is shown.
    """
    return _drawn(cut, key, number, air, inside, height)


@lru_cache(maxsize=MOST_KEPT)
def _drawn(cut: Slice | None, key: Hashable, number: str, air: Hashable, inside: str, height: int) -> SafeString:
    given = {"cut": cut, "key": key, "number": number, "air": air, "inside": inside, "height": height}
    return mark_safe(render_to_string("elements/slice.html", given))  # noqa: S308


@register.filter
def gradient(stops: Iterable[Stop]) -> SafeString:
    """Render all stops of a ribbon in one call: {{ ribbon.stops|gradient }}.

    A page of sixty ribbons has thousands of stops, which took longer than all the rest in a template loop.
    """
    return mark_safe("".join(f'<stop offset="{offset}" stop-color="{colour}"/>' for offset, colour in stops))  # noqa: S308
