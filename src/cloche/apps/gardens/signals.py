"""What other rooms may want to know of."""

from django.dispatch import Signal

site_changed = Signal()
"""A garden's site is not what it was: sent with `garden`, inside the transaction that changed it."""
