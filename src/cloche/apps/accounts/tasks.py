"""What the queue calls for accounts."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.accounts import flows, letters


@app.task(name=letters.LETTER)
def letter(email: str, subject: str, text: str) -> None:
    """Send one letter once."""
    letters.hand_over(email, subject, text)


@app.task(name=flows.FORGOTTEN)
def forgotten_password(email: str, base: str) -> None:
    """Send the link for a new password."""
    flows.write(email, base)
