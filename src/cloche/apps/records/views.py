"""Views of the history, doubtful readings, archives and deletion."""

from __future__ import annotations

import re
from typing import Any

from django import forms
from django.conf import settings
from django.contrib import messages
from django.contrib.auth import logout
from django.contrib.auth.decorators import login_required
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_POST

from cloche.apps.accounts.forms import EraseAccountForm
from cloche.apps.gardens.access import OWNS, GardenRequest, in_garden
from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.records import flagged, flows, incoming
from cloche.apps.records import history as past
from cloche.apps.records.archive.write import write_archive
from cloche.apps.shared import clock
from cloche.apps.shared.availability import refusal
from cloche.apps.shared.clock import asked_instant
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import lazy
from cloche.apps.work.turns import ARCHIVE, turn


class ArchiveForm(forms.Form):
    """Form for uploading an archive."""

    file = forms.FileField(label=lazy("Garden file (zip)"), error_messages={"empty": lazy("The file is empty.")})

    def clean_file(self) -> Any:
        """Refuse a file that is too large."""
        file, limit = self.cleaned_data["file"], settings.CLOCHE_ARCHIVE_LIMIT_BYTES
        if file.size > limit:
            raise forms.ValidationError(
                _("The file has {size} MB; at most {limit} are accepted.").format(
                    size=f"{file.size / 1000000.0:.0f}", limit=f"{limit / 1000000.0:.0f}"
                ),
                code="large",
            )
        return file


MOST_NUMBERS, NUMBER = 600, re.compile(r"-?[0-9]{1,18}")


@require_GET
@in_garden
def history(request: GardenRequest) -> HttpResponse:
    """Show what was changed and by whom, with a way to undo it."""
    request.room = "files"  # type: ignore[attr-defined]
    removed = "removed" in request.GET
    before = asked_instant(request.GET.get("before"))
    entries = past.changes(request.garden, units_of(request.user), clock.now(), before, removed)
    context = {
        "changes": entries,
        "removed": removed,
        "older": entries[-1].at.isoformat() if len(entries) == past.SHOWN else "",
    }
    return render(request, "records/history.html", context)


@require_POST
@in_garden
def restore(request: GardenRequest, kind: str, history_id: int) -> HttpResponse:
    """Undo one change."""
    try:
        flows.bring_back(request.garden, kind, history_id)
        messages.success(request, _("Restored. This change is in the history, too."))
    except KeyError as unknown:
        raise Http404 from unknown
    except flows.NotBrought as why:
        messages.error(request, str(why))
    return redirect("history", request.garden.pk)


@in_garden
def flags(request: GardenRequest) -> HttpResponse:
    """Show doubtful readings and store the grower's judgement."""
    request.room = "files"  # type: ignore[attr-defined]
    if request.method == "POST":
        return _word(request)
    page = flagged.flag_page(request.garden, units_of(request.user), clock.now())
    return render(request, "records/flags.html", {"page": page})


def _word(request: GardenRequest) -> HttpResponse:
    review = request.POST.get("review", "")
    numbers = [int(n) for n in request.POST.get("numbers", "").split(",") if NUMBER.fullmatch(n)][:MOST_NUMBERS]
    if review not in flagged.REVIEWS or not flagged.give_word(request.garden, numbers, review):
        raise Http404
    text = {
        "right": _("Confirmed. Cloche will not ask about it again."),
        "left_out": _("Left out. Updating the forecast…"),
    }
    messages.success(request, text.get(review, "It is open again."))
    return redirect("flags", request.garden.pk)


@require_GET
@in_garden
def archive_out(request: GardenRequest) -> FileResponse | HttpResponse:
    """Download the whole garden as one file; one is written at a time, since it may hold years of logger data."""
    name = f"cloche-garden-{clock.today(request.garden.timezone).isoformat()}.zip"
    with turn(ARCHIVE) as mine:
        if not mine:
            return refusal(request, _("Another garden is being exported at the moment. Try again shortly."), 503)
        return FileResponse(write_archive(request.garden, clock.now()), as_attachment=True, filename=name)


@login_required
def archive_in(request: HttpRequest) -> HttpResponse:
    """Upload an archive as a new garden; a worker reads it while a page shows the progress."""
    form = ArchiveForm(request.POST or None, request.FILES or None)
    if form.is_valid():
        try:
            archive = incoming.receive(request.user, form.cleaned_data["file"])  # type: ignore[arg-type]
            return redirect("archive_coming", archive.pk)
        except incoming.TooMany as why:
            form.add_error("file", str(why))
    return render(request, "records/archive_in.html", {"form": form}, status=INVALID if form.errors else 200)


@require_GET
@login_required
def archive_coming(request: HttpRequest, archive_id: int) -> HttpResponse:
    """Show the progress of reading, then redirect to the garden or show the error."""
    archive = request.user.incoming_archives.filter(pk=archive_id).first()  # type: ignore[union-attr]
    if archive is None:
        raise Http404
    if archive.garden is not None:
        messages.success(request, _("{name} imported, with everything in the file.").format(name=archive.garden.name))
        there = redirect("today", archive.garden.pk)
        archive.delete()
        return HttpResponse(headers={"HX-Redirect": there["Location"]}) if request.htmx else there  # type: ignore[attr-defined]
    share = round(100 * archive.done / archive.total) if archive.total else 0
    template = "records/_archive_coming.html" if request.htmx else "records/archive_coming.html"  # type: ignore[attr-defined]
    return render(request, template, {"archive": archive, "share": share})


class EraseGardenForm(forms.Form):
    """Form that asks for the garden's name before it is deleted."""

    name = forms.CharField(label=lazy("Enter its name to confirm"), max_length=80)

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        self.fields["name"].widget.attrs["autocomplete"] = "off"

    def clean_name(self) -> str:
        """Require the garden's exact name."""
        name: str = self.cleaned_data["name"]
        if name.strip() != self.garden.name.strip():
            raise forms.ValidationError(_("Enter its name: {name}.").format(name=self.garden.name), code="name")
        return name


@in_garden(writing=OWNS)
def erase_garden(request: GardenRequest) -> HttpResponse:
    """Delete a garden on request of an owner."""
    request.room = "garden"  # type: ignore[attr-defined]
    if not request.membership.may(OWNS):
        return render(request, "not_yours.html", {"role": request.membership.get_role_display()}, status=403)
    form = EraseGardenForm(request.POST or None, garden=request.garden)
    if form.is_valid():
        name = request.garden.name
        flows.erase_garden(request.garden, request.user)
        messages.success(request, _("{name} deleted.").format(name=name))
        return redirect("home")
    context = {"form": form, "holds": flows.holds(request.garden)}
    return render(request, "records/erase_garden.html", context, status=INVALID if form.errors else 200)


@login_required
def erase_account(request: HttpRequest) -> HttpResponse:
    """Delete one's own account."""
    person: User = request.user  # type: ignore[assignment]
    form = EraseAccountForm(request.POST or None, person=person)
    if form.is_valid():
        try:
            flows.erase_account(person)
        except flows.OthersAreIn as why:
            form.add_error(None, str(why))
        else:
            logout(request)
            return redirect("sign_in")
    context = {"form": form, "leaving": flows.leaving(person)}
    return render(request, "records/erase_account.html", context, status=INVALID if form.errors else 200)
