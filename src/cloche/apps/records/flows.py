"""Bringing a record back to what it was."""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError, transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.records.kinds import KINDS
from cloche.apps.shared.history import before_it


class NotBrought(ValueError):
    """It cannot be brought back; the message says why."""


def bring_back(garden: Garden, key: str, history_id: int) -> Any:
    """Undo one change: the record stands again as it did before it; a removed one as it was. Raises NotBrought or KeyError.

    Going back is a change like any other, and can itself be gone back on.
    """
    kind = KINDS[key]
    history = kind.model.history  # type: ignore[attr-defined]
    row = history.filter(history_id=history_id, **{kind.inside: garden.pk}).first()
    if row is None:
        raise KeyError(history_id)
    before = row if row.history_type == "-" else before_it(row)
    if before is None:
        raise NotBrought(_("There is nothing before it to go back to."))
    stood = before.instance
    for name in kept_apart(kind.model):
        setattr(stood, name, _now(kind.model, stood.pk, name))
    try:
        with transaction.atomic():
            stood.save()
            kind.changed(stood)
    except IntegrityError as taken:
        raise NotBrought(_("Something else has been written down in its place since; remove that first.")) from taken
    return stood


def kept_apart(model: Any) -> list[str]:
    """Fields that history does not keep: they stay as they are."""
    held = {field.name for field in model.history.model._meta.fields}
    return [field.name for field in model._meta.concrete_fields if field.name not in held]


def _now(model: Any, pk: int, name: str) -> Any:
    value = model._base_manager.filter(pk=pk).values_list(name, flat=True).first()
    return model._meta.get_field(name).get_default() if value is None else value
