"""Views of germination trials."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.seed import flows as seed
from cloche.apps.shared import clock
from cloche.apps.shared.http import INVALID
from cloche.apps.trials import flows
from cloche.apps.trials.forms import NewTrialForm, TrialForms
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.trials.pages import learned_of, trial_page
from cloche.bridge.services import crops


@in_garden(writing=LOGS)
def germination_trials(request: GardenRequest) -> HttpResponse:
    """List trials and add a new one."""
    request.room = "sowings"  # type: ignore[attr-defined]
    form = NewTrialForm(request.POST or None, today=clock.today(request.garden.timezone))
    if form.is_valid():
        trial = form.save(commit=False)
        trial.garden = request.garden
        trial.save()
        return redirect("germination_trial", request.garden.pk, trial.pk)
    trials = request.garden.germination_trials.all()
    return render(request, "trials/trials.html", {"form": form, "trials": trials}, status=INVALID if form.errors else 200)


@in_garden(writing=LOGS)
def germination_trial(request: GardenRequest, germination_id: int) -> HttpResponse:
    """Show a trial, lay out its batches and enter counts."""
    request.room = "sowings"  # type: ignore[attr-defined]
    trial, units, today = _trial(request, germination_id), units_of(request.user), clock.today(request.garden.timezone)
    forms = TrialForms.of(request.POST if request.method == "POST" else None, trial, units, today)
    posted = forms.posted
    if posted is not None and posted.is_valid():
        messages.success(request, flows.save(trial, posted))
        return redirect("germination_trial", request.garden.pk, trial.pk)
    page = trial_page(trial, units, today)
    context: dict[str, Any] = {"trial": trial, "page": page, "forms": forms, "rows": page.rows_with(forms.grid)}
    return render(request, "trials/trial.html", context, status=INVALID if posted else 200)


@require_POST
@in_garden(writing=LOGS, own=row_of("trials.TrialCount", "count_id"))
def remove_trial_count(request: GardenRequest, germination_id: int, count_id: int) -> HttpResponse:
    """Remove a count."""
    trial = _trial(request, germination_id)
    gone, _rows = TrialCount.objects.filter(batch__trial=trial, pk=count_id).delete()
    if not gone:
        raise Http404
    messages.success(request, _("Count removed."))
    return redirect("germination_trial", request.garden.pk, trial.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("trials.TrialBatch", "batch_id"))
def remove_batch(request: GardenRequest, germination_id: int, batch_id: int) -> HttpResponse:
    """Remove a batch with its counts."""
    _batch(request, germination_id, batch_id).delete()
    messages.success(request, _("Removed."))
    return redirect("germination_trial", request.garden.pk, germination_id)


@require_POST
@in_garden
def teach_packet(request: GardenRequest, germination_id: int, batch_id: int) -> HttpResponse:
    """Store a batch's result as the germination test of its packet."""
    batch = _batch(request, germination_id, batch_id)
    packet, up = batch.packet, max((count.up for count in batch.counts.all()), default=0)
    if packet is None or not up:
        raise Http404
    packet.tested_of, packet.tested_up = batch.seeds, up
    seed.keep(packet)
    messages.success(request, _("The packet’s test result is now {up} of {seeds}.").format(up=up, seeds=batch.seeds))
    return redirect("germination_trial", request.garden.pk, germination_id)


@require_POST
@in_garden
def teach_pace(request: GardenRequest, germination_id: int, crop_key: str) -> HttpResponse:
    """Let the windows of a crop go by how slow its seed was in a trial."""
    trial = _trial(request, germination_id)
    learned = next((line for line in learned_of(trial, units_of(request.user)) if line.crop_key == crop_key), None)
    if learned is None or learned.pace is None:
        raise Http404
    packet = flows.teach_pace(trial, crop_key, learned.pace.times)
    text = _("Sowing windows for {name} now use the speed measured in this trial. You can change or remove it on the packet.")
    messages.success(request, text.format(name=crops.crop(packet.crop_key).name_plural))
    return redirect("germination_trial", request.garden.pk, germination_id)


@require_POST
@in_garden
def end_germination(request: GardenRequest, germination_id: int) -> HttpResponse:
    """End a trial, or reopen it."""
    trial = _trial(request, germination_id)
    trial.ended_on = None if "again" in request.POST else clock.today(request.garden.timezone)
    trial.save()
    return redirect("germination_trial", request.garden.pk, trial.pk)


def _trial(request: GardenRequest, germination_id: int) -> GerminationTrial:
    trial = GerminationTrial.objects.filter(garden=request.garden, pk=germination_id).first()
    if trial is None:
        raise Http404
    return trial


def _batch(request: GardenRequest, germination_id: int, batch_id: int) -> TrialBatch:
    batch = TrialBatch.objects.filter(trial=_trial(request, germination_id), pk=batch_id).select_related("packet").first()
    if batch is None:
        raise Http404
    return batch
