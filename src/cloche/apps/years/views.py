"""Views of the comparison of years, and of signs in nature."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.forecasts.status import ask_for_earlier
from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden, row_of
from cloche.apps.gardens.selectors import units_of
from cloche.apps.shared import clock
from cloche.apps.shared.fields import DATE
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import lazy
from cloche.apps.years.models import Sign
from cloche.apps.years.pages import years_page
from cloche_engine.places.kinds import BENCHES


class SignForm(forms.ModelForm):
    """Form for a sign and its day."""

    class Meta:
        model = Sign
        fields = ["name", "on"]
        labels = {"name": lazy("First sign seen"), "on": lazy("Date")}
        widgets = {"on": DATE}

    def __init__(self, *args: Any, today: Any, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "sign_%s"} | kwargs))
        self.today = today
        self.fields["on"].initial = today

    def clean_on(self) -> Any:
        """Refuse days in the future."""
        if self.cleaned_data["on"] > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        return self.cleaned_data["on"]


@in_garden
def years(request: GardenRequest) -> HttpResponse:
    """Show the years of a place, by default the first."""
    return _years(request, SignForm(today=clock.today(request.garden.timezone)))


def _years(request: GardenRequest, form: SignForm) -> HttpResponse:
    request.room = "years"  # type: ignore[attr-defined]
    garden, today = request.garden, clock.today(request.garden.timezone)
    places = [place for place in garden.places.all() if place.kind not in BENCHES]
    context: dict[str, Any] = {"form": form, "places": places, "page": None}
    if places:
        wanted = request.GET.get("place", "")
        place = next((place for place in places if str(place.pk) == wanted), places[0])
        context |= {"place": place, "waits": ask_for_earlier(place, today)}
        context["page"] = years_page(place, request.GET.get("crop", ""), units_of(request.user), today)
    return render(request, "years/years.html", context, status=INVALID if form.errors else 200)


@require_POST
@in_garden(writing=LOGS)
def add_sign(request: GardenRequest) -> HttpResponse:
    """Add a sign."""
    form = SignForm(request.POST, today=clock.today(request.garden.timezone))
    if not form.is_valid():
        return _years(request, form)
    sign = form.save(commit=False)
    sign.garden = request.garden
    sign.save()
    messages.success(request, _("Saved: {name}.").format(name=sign.name))
    return redirect("years", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=row_of("years.Sign", "sign_id"))
def remove_sign(request: GardenRequest, sign_id: int) -> HttpResponse:
    """Remove a sign."""
    gone, _rows = Sign.objects.filter(garden=request.garden, pk=sign_id).delete()
    if not gone:
        raise Http404
    messages.success(request, _("Removed."))
    return redirect("years", request.garden.pk)
