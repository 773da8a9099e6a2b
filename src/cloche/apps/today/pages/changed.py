"""What is different from yesterday: windows that moved, what was read, sown and answered."""

from __future__ import annotations

from datetime import date, datetime

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.models import WindowChange
from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Reading
from cloche.apps.shared import words
from cloche.apps.today.models import Answer
from cloche.apps.windows.pages.season import frosts_changed
from cloche.bridge.services import crops

MOST = 5


def changed_since(garden: Garden, since: datetime, today: date) -> list[str]:
    """Sentences: frost dates that come from another source, then windows."""
    frosts = windows.frosts_of(garden)
    announced = frosts_changed(frosts, today) if frosts else ""
    moved = [announced] if announced else []
    moved += [_moved(change, today) for change in windows.moved_since(garden, since)]
    text, rest = moved[:MOST], len(moved) - MOST
    if rest > 0:
        text.append(_("{windows} moved.").format(windows=words.count(rest, "more window", "more windows")))
    read = Reading.objects.current().filter(place__garden=garden, taken_at__gte=since).values("place").distinct().count()
    if read:
        text.append(_("{sentence} read.").format(sentence=words.sentence(words.count(read, "place", "places"))))
    done = Answer.objects.filter(garden=garden, choice=Answer.Choice.DONE, undone_at__isnull=True, at__gte=since).count()
    if done:
        text.append(_("{sentence} done.").format(sentence=words.sentence(words.count(done, "job", "jobs"))))
    return text


def _moved(change: WindowChange, today: date) -> str:
    name = _("{sentence} in {name}").format(
        sentence=words.sentence(crops.crop(change.crop_key).name_plural), name=change.place.name
    )
    if change.before is None and change.after is not None:
        return _("{name}: a window opens {when}.").format(name=name, when=_when(change.after, today))
    if change.after is None:
        return _("{name}: the window is gone.").format(name=name)
    if change.before is None:
        return _("{name}: worked out.").format(name=name)
    days = abs((change.after - change.before).days)
    way = _("sooner") if change.after < change.before else _("later")
    return f"{name}: {_when(change.after, today)}, {words.count(days, 'day', 'days')} {way}."


def _when(on: date, today: date) -> str:
    return _("now") if on <= today else _("from {day}").format(day=words.day(on, today))
