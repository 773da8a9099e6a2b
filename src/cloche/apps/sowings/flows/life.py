"""What happens to a sowing after it was sown: seen, potted, moved, hardened, planted out."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.sowings.models import Step

MOVES = (Step.Kind.MOVED, Step.Kind.BROUGHT_IN, Step.Kind.PUT_OUT, Step.Kind.PLANTED)
"""What leads from one place to another."""


class NotTheLast(ValueError):
    """Only the last of several moves can be taken back: the others lead on from it."""


@transaction.atomic
def take_step(step: Step) -> Step:
    """Write it down; where it leads elsewhere the sowing stands there from then on."""
    sowing = step.sowing
    if step.place is not None and step.place != sowing.place:
        step.left = sowing.place
        sowing.sown_in = sowing.sown_in or sowing.place
        sowing.place = step.place
    if step.cell_m is not None:
        sowing.cell_m = step.cell_m
    step.save()
    sowing.save(update_fields=["place", "sown_in", "cell_m"])
    _note({step.left, sowing.place})
    return step


@transaction.atomic
def take_back(step: Step) -> None:
    """As if it had never been. Raises NotTheLast where a later move leads on from it."""
    sowing = step.sowing
    moves = [step for step in sowing.steps.all() if step.left_id is not None]
    if step.left is not None:
        if moves[-1].pk != step.pk:
            raise NotTheLast
        sowing.place = step.left
        if len(moves) == 1:
            sowing.sown_in = None
    here = step.place
    step.delete()
    potted = [step.cell_m for step in sowing.steps.all() if step.cell_m is not None]
    sowing.cell_m = potted[-1] if potted else sowing.cell_m
    sowing.save(update_fields=["place", "sown_in", "cell_m"])
    _note({here, sowing.place})


def _note(places: set[Place | None]) -> None:
    for place in places:
        if place is not None:
            note_change_at(place)
