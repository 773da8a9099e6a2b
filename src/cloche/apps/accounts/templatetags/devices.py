"""A browser by what it says of itself, in words a person knows."""

from django import template
from django.utils.translation import gettext as _

register = template.Library()
BROWSERS = (("Edg", "Edge"), ("OPR", "Opera"), ("Firefox", "Firefox"), ("Chrom", "Chrome"), ("Safari", "Safari"))
SYSTEMS = (
    ("iPhone", "iPhone"),
    ("iPad", "iPad"),
    ("Android", "Android"),
    ("Windows", "Windows"),
    ("Mac OS", "Mac"),
    ("Linux", "Linux"),
)
"""Marks in the order in which they tell: many browsers also name others."""


@register.filter
def device(user_agent: str) -> str:
    """Return a short name of browser and system, such as Chrome on Android."""
    browser, system = (next((name for mark, name in names if mark in user_agent), "") for names in (BROWSERS, SYSTEMS))
    if browser and system:
        return _("{browser} on {system}").format(browser=browser, system=system)
    return browser or system or user_agent[:40] or _("an unknown browser")
