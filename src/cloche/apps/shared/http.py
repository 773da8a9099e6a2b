"""What views answer with."""

INVALID = 422
"""The form comes back with what is wrong at its fields; nothing was stored [RFC 9110, 15.5.21]."""
