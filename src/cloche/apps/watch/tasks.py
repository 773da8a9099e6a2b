"""Mail, outside requests."""

from __future__ import annotations

from procrastinate.contrib.django import app

from cloche.apps.gardens import clock


@app.periodic(cron="*/10 * * * *")
@app.task(name="watch.mail_round", queueing_lock="mail-round")
def mail_round(timestamp: int = 0) -> int:
    """Send the day to those whose hour has come. Returns how many."""
    from cloche.apps.watch.flows.digest import send_due

    return send_due(clock.now())
