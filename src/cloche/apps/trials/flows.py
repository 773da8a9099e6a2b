"""Save what was laid out and counted in germination trials, and hand what they taught to the packets."""

from __future__ import annotations

from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.seed import flows as seed
from cloche.apps.seed.models import Packet
from cloche.apps.shared import words
from cloche.apps.trials.forms import BatchForm, CountGrid, LayoutForm, SheetForm
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount


@transaction.atomic
def save(trial: GerminationTrial, form: BatchForm | LayoutForm | SheetForm | CountGrid) -> str:
    """Save a valid form of a trial and return what to tell the grower."""
    if isinstance(form, BatchForm):
        batch = form.save(commit=False)
        batch.trial = trial
        batch.save()
        return _("Batch added.")
    if isinstance(form, LayoutForm):
        batches = form.batches_for(trial)
        for batch in batches:
            batch.save()
        return _("{batches} laid out. Count them in the table below.").format(batches=_so_many(len(batches)))
    if isinstance(form, SheetForm):
        for cell in form.cells:
            there = trial.batches.filter(crop_key=cell.crop_key, warmth_c=cell.warmth_c, seeds=cell.seeds).first()
            batch = there or trial.batches.create(crop_key=cell.crop_key, warmth_c=cell.warmth_c, seeds=cell.seeds)
            _count(batch, form, cell.up)
        return _("Counts of {batches} saved.").format(batches=_so_many(len(form.cells)))
    for batch, up in form.counted:
        _count(batch, form, up)
    return _("Counts saved.")


def _so_many(batches: int) -> str:
    return words.count(batches, "batch", "batches")


def _count(batch: TrialBatch, form: SheetForm | CountGrid, up: int) -> None:
    TrialCount.objects.update_or_create(batch=batch, on=form.day, defaults={"up": up})


@transaction.atomic
def teach_pace(trial: GerminationTrial, crop_key: str, times: float) -> Packet:
    """Store how slow the seed of a trial was on its packet, or on the one in use, or on a new one."""
    tried = {batch.packet for batch in trial.batches.filter(crop_key=crop_key).select_related("packet")} - {None}
    own = tried.pop() if len(tried) == 1 else None
    in_use = trial.garden.packets.filter(crop_key=crop_key, in_use=True, removed_at__isnull=True).first()
    packet = own or in_use or Packet(garden=trial.garden, crop_key=crop_key, variety=trial.name)
    # Only the packet in use decides the windows.
    packet.values, packet.in_use = packet.values | {"pace": round(times, 2)}, True
    return seed.keep(packet)
