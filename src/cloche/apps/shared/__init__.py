"""Shared tools of all apps: time, wording, form fields and request checks. Has no models."""
