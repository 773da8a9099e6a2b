"""Restoring what was changed or removed, and permanent deletion."""

from __future__ import annotations

import logging
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from django.apps import apps
from django.db import IntegrityError, connection, models, transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.plants.models import Planting
from cloche.apps.readings.models import Reading
from cloche.apps.records.kinds import KINDS
from cloche.apps.shared import words
from cloche.apps.shared.history import before_it
from cloche.apps.sowings.models import Sowing


class NotBrought(ValueError):
    """Raised where a change cannot be undone; the message gives the reason."""


def bring_back(garden: Garden, key: str, history_id: int) -> Any:
    """Undo one change: the record returns to its earlier state, and a removed one is restored. Raises NotBrought or KeyError.

    Going back is a change like any other, and can itself be gone back on.
    """
    kind = KINDS[key]
    history = kind.model.history  # type: ignore[attr-defined]
    row = history.filter(history_id=history_id, **{kind.inside: garden.pk}).first()
    if row is None:
        raise KeyError(history_id)
    before = row if row.history_type == "-" else before_it(row)
    if before is None:
        raise NotBrought(_("There is no earlier version to restore."))
    stood = before.instance
    for name in kept_apart(kind.model):
        setattr(stood, name, _now(kind.model, stood.pk, name))
    try:
        with transaction.atomic():
            stood.save()
            kind.changed(stood)
    except IntegrityError as taken:
        raise NotBrought(_("Something else has been recorded in its place since. Remove that first.")) from taken
    return stood


def kept_apart(model: Any) -> list[str]:
    """Return fields that the history does not record and an undo leaves alone."""
    held = {field.name for field in model.history.model._meta.fields}
    return [field.name for field in model._meta.concrete_fields if field.name not in held]


def _now(model: Any, pk: int, name: str) -> Any:
    value = model._base_manager.filter(pk=pk).values_list(name, flat=True).first()
    return model._meta.get_field(name).get_default() if value is None else value


log = logging.getLogger("cloche.security")


class OthersAreIn(ValueError):
    """Raised where deleting an account would leave other people in a garden without an owner."""


@dataclass(frozen=True)
class Leaving:
    """What happens to a person's gardens when the account is deleted.

    `alone` are deleted with it, `left` continue without the person, and `to_hand_over` need another owner first.
    """

    alone: list[Garden]
    left: list[Garden]
    to_hand_over: list[Garden]


def holds(garden: Garden) -> str:
    """Describe how much a garden contains."""
    counts = (
        (Reading.objects.filter(place__garden=garden).count(), "reading", "readings"),
        (Sowing.objects.filter(place__garden=garden).count(), "sowing", "sowings"),
        (Planting.objects.filter(place__garden=garden).count(), "planting", "plantings"),
    )
    return words.listed([words.count(number, singular, many) for number, singular, many in counts if number]) or _(
        "nothing yet"
    )


@transaction.atomic
def erase_garden(garden: Garden, by: User) -> None:
    """Delete every row of a garden with its history, leaving no record of the deletion."""
    log.warning("garden %s is erased by person %s", garden.pk, by.pk)
    # Constraints are looked at when all is done, so that no order of tables is needed; but a path must still be there.
    for model, path in sorted(_inside(), key=lambda pair: -pair[1].count("__")):
        _rows(model).filter(**{path: garden.pk})._raw_delete(connection.alias)
    Garden._base_manager.filter(pk=garden.pk)._raw_delete(connection.alias)  # type: ignore[attr-defined]


def _rows(model: type[models.Model]) -> Any:
    return model._base_manager.all()


def _inside() -> Iterator[tuple[type[models.Model], str]]:
    """Yield every table that belongs to a garden, in any app, with each path to the garden."""
    known: dict[type[models.Model], list[str]] = {Garden: [""]}
    waiting: list[type[models.Model]] = [Garden]
    everything = apps.get_models(include_auto_created=True)
    while waiting:
        parent = waiting.pop(0)
        for model in everything:
            for field in model._meta.concrete_fields:
                if model is parent or field.related_model is not parent or not _belongs(field):
                    continue
                if model not in known:
                    waiting.append(model)
                ways = [f"{field.name}__{way}" if way else field.name for way in known[parent]]
                new = [way for way in ways if way not in known.setdefault(model, [])]
                known[model] += new
                yield from ((model, way) for way in new)


def _belongs(field: Any) -> bool:
    """Return whether rows with this foreign key are deleted with their target.

    History tables have no rule of their own and follow their record.
    """
    rule = getattr(field.remote_field, "on_delete", None)
    return rule is models.CASCADE or (rule is models.DO_NOTHING and field.model.__name__.startswith("Historical"))


def leaving(person: User) -> Leaving:
    """Return what would happen to a person's gardens."""
    alone, left, to_hand_over = [], [], []
    for membership in person.memberships.select_related("garden"):
        others = membership.garden.memberships.exclude(user=person)
        if not others.exists():
            alone.append(membership.garden)
        elif membership.role == Membership.Role.OWNER and not others.filter(role=Membership.Role.OWNER).exists():
            to_hand_over.append(membership.garden)
        else:
            left.append(membership.garden)
    return Leaving(alone, left, to_hand_over)


@transaction.atomic
def erase_account(person: User) -> None:
    """Delete a person and the gardens nobody else uses.

    Their entries in other gardens stay without a name. Raises OthersAreIn.
    """
    list(Garden.objects.select_for_update().filter(memberships__user=person).only("pk").order_by("pk"))
    gardens = leaving(person)
    if gardens.to_hand_over:
        raise OthersAreIn(
            _("First hand over {names}.").format(names=words.listed([garden.name for garden in gardens.to_hand_over]))
        )
    for garden in gardens.alone:
        erase_garden(garden, person)
    log.warning("account %s is erased", person.pk)
    person.delete()
