"""What is different from yesterday: windows that moved, what was read, sown and answered."""

from __future__ import annotations

from datetime import date, datetime

from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.models import WindowChange
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.apps.today.models import Answer
from cloche.bridge.services import crops

MOST = 5


def changed_since(garden: Garden, since: datetime, today: date) -> list[str]:
    """Sentences, windows first."""
    moved = [_moved(change, today) for change in windows.moved_since(garden, since)]
    text = moved[:MOST] + (
        [f"{words.count(len(moved) - MOST, 'more window', 'more windows')} moved."] if len(moved) > MOST else []
    )
    read = Reading.objects.current().filter(place__garden=garden, taken_at__gte=since).values("place").distinct().count()
    if read:
        text.append(f"{words.sentence(words.count(read, 'place'))} read.")
    done = Answer.objects.filter(garden=garden, choice=Answer.Choice.DONE, undone_at__isnull=True, at__gte=since).count()
    if done:
        text.append(f"{words.sentence(words.count(done, 'job'))} done.")
    return text


def _moved(change: WindowChange, today: date) -> str:
    name = f"{words.sentence(crops.crop(change.crop_key).name_plural)} in {change.place.name}"
    if change.before is None and change.after is not None:
        return f"{name}: a window opens {_when(change.after, today)}."
    if change.after is None:
        return f"{name}: the window is gone."
    if change.before is None:
        return f"{name}: worked out."
    days = abs((change.after - change.before).days)
    way = "sooner" if change.after < change.before else "later"
    return f"{name}: {_when(change.after, today)}, {words.count(days, 'day')} {way}."


def _when(on: date, today: date) -> str:
    return "now" if on <= today else f"from {words.day(on, today)}"
