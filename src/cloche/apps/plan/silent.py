"""Diagnosis of a row that has not emerged, from what is found when it is dug up."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from django import forms
from django.http import Http404, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.gardens.access import GardenRequest, in_garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.shared import clock, words
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.words import lazy
from cloche.apps.sowings import selectors as sowings
from cloche.apps.sowings.models import Sowing
from cloche.bridge.services import beds as service
from cloche.bridge.services import crops
from cloche.bridge.services.beds import Advice, Cause, Dug
from cloche.bridge.values.units import Units, parse_depth

MOST_FOUND = 200
CAUSES = {
    Cause.COLD: lazy("too cold: the seed is sound and waiting"),
    Cause.COMING: lazy("germinating: the seed has swollen and is firm"),
    Cause.DRY: lazy("too dry: the seed has not absorbed water"),
    Cause.CRUST: lazy("a crust that seedlings cannot lift"),
    Cause.DEEP: lazy("too deep: seedlings run out of strength before they reach the light"),
    Cause.ROTTEN: lazy("rotten: it was cold and wet for too long"),
    Cause.EATEN: lazy("eaten by mice, birds or slugs"),
    Cause.OLD: lazy("dead seed: it was warm and moist for long enough, but nothing came up"),
    Cause.UNKNOWN: lazy("the cause is not clear from this"),
}
ADVICE = {
    Advice.WAIT: lazy("Wait. A cover would speed it up."),
    Advice.WATER: lazy("Water the row well once and keep it moist, then wait."),
    Advice.BREAK: lazy("Break the crust with a hand fork beside the row, water gently, and keep it moist."),
    Advice.AGAIN: lazy("Sow again."),
    Advice.LOOK: lazy("Dig up another hand’s length elsewhere in the row."),
}
AGAIN_HOW = {
    Cause.DEEP: lazy("Sow no deeper than {depth}."),
    Cause.ROTTEN: lazy("Wait until the soil stays above {minimum}. If seed is scarce, start it indoors."),
    Cause.EATEN: lazy("Sow under fleece or mesh, or raise plants indoors."),
    Cause.OLD: lazy("Use another packet. Test ten seeds of this one on damp paper first."),
}


class DugForm(forms.Form):
    """Form for what was found along a hand's length of the row."""

    sound = forms.IntegerField(label=lazy("Hard and sound, as sown"), min_value=0, max_value=MOST_FOUND, required=False)
    swollen = forms.IntegerField(
        label=lazy("Swollen and firm, or sprouting"), min_value=0, max_value=MOST_FOUND, required=False
    )
    rotten = forms.IntegerField(label=lazy("Soft, rotten or mouldy"), min_value=0, max_value=MOST_FOUND, required=False)
    eaten = forms.IntegerField(label=lazy("Empty husks, or no seeds"), min_value=0, max_value=MOST_FOUND, required=False)
    depth = TypedNumber(required=False)
    dry = forms.BooleanField(label=lazy("The soil around the seeds is dry"), required=False)
    crusted = forms.BooleanField(label=lazy("The surface is crusted"), required=False)

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for name in ("sound", "swollen", "rotten", "eaten"):
            self.fields[name].widget = forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"})
        self.fields["depth"].label = _("Depth of the seeds ({length})").format(length=units.length)
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))

    @property
    def dug(self) -> Dug:
        """Return what was found."""
        data = self.cleaned_data
        numbers = {name: data[name] or 0 for name in ("sound", "swollen", "rotten", "eaten")}
        return Dug(**numbers, dry=data["dry"], crusted=data["crusted"], depth_m=data["depth"])


@dataclass(frozen=True)
class SilentPage:
    """Context of plan/silent.html; `causes` holds the likeliest first and is empty before the form is sent."""

    headline: str
    soil: str
    causes: list[str]
    advice: str
    teaches: str


@in_garden
def silent(request: GardenRequest, sowing_id: int) -> HttpResponse:
    """Show the form and the diagnosis."""
    request.room = "sowings"  # type: ignore[attr-defined]
    sowing = sowings.sowings_in(request.garden).filter(pk=sowing_id).first()
    if sowing is None:
        raise Http404
    units, today = units_of(request.user), clock.today(request.garden.timezone)
    form = DugForm(request.GET or None, units=units)
    page = silent_page(sowing, form.dug if form.is_valid() else None, units, today)
    context = {"form": form, "page": page, "sowing": sowing}
    return render(request, "plan/silent.html", context, status=INVALID if form.errors else 200)


def silent_page(sowing: Sowing, dug: Dug | None, units: Units, today: date) -> SilentPage:
    """Build the diagnosis page from the soil's history and the findings."""
    crop, days = crops.crop(sowing.crop_key), max((today - sowing.sown_on).days, 1)
    soil = forecasts.daily_soil(sowing.place, forecasts.ground_of(sowing.place), sowing.sown_on, days)
    known = [value for value in soil if value is not None]
    name = _("{name} in {place}").format(name=words.sentence(crop.name_plural), place=sowing.place.name)
    if known:
        mean, low, least = (units.temperature_text(v) for v in (sum(known) / len(known), min(known), crop.minimum_c))
        course = _("The soil has averaged {mean} since {day}, with {low} on its coldest day. This crop needs {least}.").format(
            mean=mean, day=words.day(sowing.sown_on, today), low=low, least=least
        )
    else:
        course = _("No soil temperatures are known since {day}.").format(day=words.day(sowing.sown_on, today))
    if dug is None:
        return SilentPage(_("{name}: dig up a hand’s length of the row.").format(name=name), course, [], "", "")
    alive = sowings.viability(sowing.packet, today, []).rate if sowing.packet else 1.0
    finding = service.finding(sowing.crop_key, dug, soil, alive)
    causes = [str(CAUSES[cause]) for cause in finding.causes]
    advice = str(ADVICE[finding.advice])
    if finding.advice is Advice.AGAIN and (how := AGAIN_HOW.get(finding.causes[0])):
        depth, least = units.length_text(crop.sowing_depth_m), units.temperature_text(crop.minimum_c, 0)
        advice += " " + str(how).format(depth=depth, minimum=least)
    teaches = (
        _("Enter a count of 0 and close the sowing: this failure says something about the seed.")
        if finding.teaches
        else _("Close the sowing without a count: this failure says nothing about the seed.")
    )
    return SilentPage(_("{name}: {cause}.").format(name=name, cause=causes[0]), course, causes[1:], advice, teaches)
