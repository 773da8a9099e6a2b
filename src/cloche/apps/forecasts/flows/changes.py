"""What a new forecast moved."""

from __future__ import annotations

from datetime import date, timedelta

from cloche.apps.forecasts.models import WindowChange
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.bridge.values.stored import CropDays, Window

LEAST_D = 2
KEPT = timedelta(days=40)


def keep_changes(place: Place, crops: list[CropDays], today: date) -> None:
    """Note every window that opened, shut or moved by two days or more, before the old ones are replaced."""
    known = place.outlooks.filter(better=True).values_list("crop_key", "method", "windows")
    before = {(crop_key, method): windows for crop_key, method, windows in known}
    rows = []
    for crop in crops:
        if not crop.better or (crop.crop_key, crop.method) not in before:
            continue
        was, now = (_first(windows, today) for windows in (before[crop.crop_key, crop.method], crop.windows))
        if was != now and (was is None or now is None or abs((was - now).days) >= LEAST_D):
            rows.append(
                WindowChange(place=place, crop_key=crop.crop_key, method=crop.method, at=clock.now(), before=was, after=now)
            )
    WindowChange.objects.filter(place=place, at__lt=clock.now() - KEPT).delete()
    WindowChange.objects.bulk_create(rows)


def _first(windows: list[Window], today: date) -> date | None:
    # A window that is open counts from today: that another day has passed is no change.
    return max(windows[0].earliest, today) if windows else None
