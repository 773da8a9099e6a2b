"""Stops sent by a device: each one is saved, recognised, in conflict or refused with a reason; none is lost."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.readings.flows.record import AlreadyThere, KeyTaken, record_visit
from cloche.apps.rounds.forms import StopForm
from cloche.bridge.values.units import Units

MOST_STOPS, MOST_BYTES = 200, 12_000_000


def take(garden: Garden, person: User, stop: Any, ahead: timedelta = timedelta(0)) -> dict[str, Any]:
    """Try to save one stop.

    Returns its key, its outcome (kept, known, conflict or refused) and a message for the person.
    """
    if not isinstance(stop, dict):
        return {"key": "", "state": "refused", "message": _("That is not a stop of a round.")}
    key = str(stop.get("key", ""))
    form = StopForm(_typed(stop), garden=garden, units=_units(stop, person), ahead=ahead)
    if not form.is_valid():
        message = " ".join(str(e) for errors in form.errors.values() for e in errors)
        return {"key": key, "state": "refused", "message": message, "errors": dict(form.errors)}
    place = form.cleaned_data["place"]
    try:
        visit, new = record_visit(place, form.seen(), person, replace=stop.get("replace") is True)
    except AlreadyThere as twin:
        return {"key": key, "state": "conflict", "message": _disagree(twin, person)}
    except KeyTaken:
        return {"key": key, "state": "refused", "message": _("This number already belongs to a reading of another garden.")}
    return {"key": key, "state": "kept" if new else "known", "visit": visit.pk}


def take_table(forms: list[StopForm], person: User) -> bool:
    """Save all stops of a table or none, reporting the one that fails; return whether they were saved."""
    here = forms[0]
    try:
        with transaction.atomic():
            for here in forms:
                record_visit(here.cleaned_data["place"], here.seen(), person)
    except AlreadyThere as twin:
        here.add_error(None, _disagree(twin, person))
        return False
    return True


def _disagree(twin: AlreadyThere, person: User) -> str:
    theirs = units_of(person).temperature_text(twin.existing.temperature_c)
    by = twin.existing.entered_by.username if twin.existing.entered_by else "somebody"
    return _("{by} recorded {theirs} for the same minute and depth. Choose one of the two.").format(by=by, theirs=theirs)


def _typed(stop: dict[str, Any]) -> dict[str, Any]:
    """Convert a stop to form data: strings and lists of strings without NUL characters."""
    given = {name: value for name, value in stop.items() if value is not None}
    return {name: [_plain(v) for v in value] if isinstance(value, list) else _plain(value) for name, value in given.items()}


def _plain(value: Any) -> str:
    return str(value).replace("\x00", "")


def _units(stop: dict[str, Any], person: User) -> Units:
    """Return the units in which a stop was typed; the person may have changed them since."""
    own = units_of(person)
    degree, length = stop.get("degree"), stop.get("length")
    return Units(
        temperature=degree if degree in ("C", "F") else own.temperature, length=length if length in ("cm", "in") else own.length
    )
