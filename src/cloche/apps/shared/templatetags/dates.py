"""Template filters for dates in the reader's language."""

from django import template

from cloche.apps.shared import words

register = template.Library()
register.filter("day", words.day)
register.filter("day_with_year", words.day_with_year)
register.filter("weekday", words.weekday_this_year)
