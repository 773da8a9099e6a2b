"""Today, the week, the sheet, answers, the mail and the calendar."""

from __future__ import annotations

from datetime import datetime

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.utils.translation import override
from django.views.decorators.http import require_GET, require_POST

from cloche.apps.accounts.flows import wish
from cloche.apps.gardens.access import LOGS, READS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.language import language_of
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.flows import OnAnotherBed
from cloche.apps.shared import clock, words
from cloche.apps.shared.http import INVALID
from cloche.apps.today import flows as flow
from cloche.apps.today import selectors
from cloche.apps.today.flows import stop_sending, want
from cloche.apps.today.forms import DigestForm
from cloche.apps.today.models import Answer, DigestWish
from cloche.apps.today.pages import ahead
from cloche.apps.today.pages.ahead import after_page
from cloche.apps.today.pages.today import day_lines, today_page
from cloche.apps.windows import feed as feeds


@in_garden
def today(request: GardenRequest) -> HttpResponse:
    """The first page of the day."""
    page = today_page(request.garden, units_of(request.user), clock.now())
    return render(request, "today/today.html", {"page": page})


@require_POST
@in_garden(writing=LOGS)
def answer(request: GardenRequest) -> HttpResponse:
    """Done, later, not here."""
    units, now = units_of(request.user), clock.now()
    wanted = request.POST.get("job", "")
    job = next((job for job in selectors.jobs_in(request.garden, units, now) if job.key == wanted), None)
    choice = request.POST.get("choice", "")
    if job is None or choice not in Answer.Choice.values:
        raise Http404
    flow.answer(request.garden, job, choice, request.user)
    return _jobs(request)


@require_POST
@in_garden(writing=LOGS, own=row_of("today.Answer", "answer_id"))
def take_back_answer(request: GardenRequest, answer_id: int) -> HttpResponse:
    """Undo an answer."""
    try:
        if flow.take_back(request.garden, answer_id) is None:
            raise Http404
    except OnAnotherBed as taken:
        return _jobs(request, str(taken))
    return _jobs(request)


def _jobs(request: GardenRequest, refused: str = "") -> HttpResponse:
    if not request.headers.get("HX-Request"):
        if refused:
            messages.error(request, refused)
        return redirect("today", request.garden.pk)
    day = day_lines(request.garden, units_of(request.user), clock.now())
    return render(request, "today/_jobs.html", {"day": day, "refused": refused})


@in_garden
def after(request: GardenRequest) -> HttpResponse:
    """What the last nights' frost did to each sowing."""
    request.room = "today"  # type: ignore[attr-defined]
    page = after_page(request.garden, units_of(request.user), clock.today(request.garden.timezone))
    return render(request, "today/after.html", {"page": page})


@in_garden
def week(request: GardenRequest) -> HttpResponse:
    """Seven days, to look at or to print and hang up."""
    wished = DigestWish.objects.filter(membership=request.membership).first()
    return _week(request, DigestForm(initial={"email": request.user.email, "hour": wished.hour if wished else 6}), wished)


def _week(request: GardenRequest, form: DigestForm, wished: DigestWish | None) -> HttpResponse:
    request.room = "today"  # type: ignore[attr-defined]
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    context = {"days": ahead.week(request.garden, units, today), "form": form, "wish": wished}
    context["day"] = day_lines(request.garden, units, clock.now())
    return render(request, "today/week.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=READS)
def digest(request: GardenRequest) -> HttpResponse:
    """Have the day sent, or no longer."""
    form = DigestForm(request.POST)
    if "stop" in request.POST:
        stop_sending(request.membership)
        messages.success(request, _("Emails stopped."))
    elif form.is_valid():
        email, hour = form.cleaned_data["email"], words.hour(form.cleaned_data["hour"])
        at_once = wish(request, request.user, email)
        want(request.membership, form.cleaned_data["hour"])
        text = (
            _("The day’s jobs are emailed to {email} at {hour}.")
            if at_once
            else _(
                "We have emailed {email}. Once you have opened the link in that email, the day’s jobs will be "
                "sent there at {hour}."
            )
        )
        messages.success(request, text.format(email=email, hour=hour))
    else:
        return _week(request, form, None)
    return redirect("week", request.garden.pk)


@require_GET
def feed(request: HttpRequest, token: str) -> HttpResponse:
    """What a calendar reads, without signing in; only while its person belongs to the garden."""
    link = feeds.link_behind(token)
    if link is None:
        raise Http404
    with override(language_of(link.membership.user)):
        return _feed(link.membership.garden, clock.now())


def _feed(garden: Garden, now: datetime) -> HttpResponse:
    coming = ahead.due_in(garden, now.astimezone(garden.timezone).date())
    more = [(due.uid, due.on, words.sentence(due.text), due.why) for due in coming if due.kind != "window"]
    return HttpResponse(feeds.calendar(garden, now, more), content_type="text/calendar; charset=utf-8")
