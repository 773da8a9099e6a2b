"""Potatoes: which group, where and since when they chit, when they are planted, into what."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench.selectors import raised_on
from cloche.apps.forecasts.selectors import grounds_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared.fields import DayField, TypedNumber
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services.planting import BENCH_KINDS
from cloche.bridge.services.potatoes import groups

USUAL_TUB_L, PLANTED_D, AGO_D = 30.0, 35, 120


class PotatoForm(forms.Form):
    """All in one row."""

    group = forms.ChoiceField(label=lazy("Which"))
    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("Set out to chit in"), empty_label=None)
    set_out = DayField(label=lazy("since"))
    planted = DayField(label=lazy("Planted on"))
    litres = TypedNumber(label=lazy("A tub holds, litres"))

    def __init__(self, *args: Any, garden: Garden, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today
        self.fields["group"].choices = groups()  # type: ignore[attr-defined]
        self.fields["place"].queryset = raised_on(garden)  # type: ignore[attr-defined]

    @staticmethod
    def usual(garden: Garden, today: date) -> dict[str, Any]:
        """What it begins with."""
        places = [(place, ground) for place, ground in grounds_in(garden) if ground and place.kind in BENCH_KINDS]
        # The coolest: in the warmth of a mat they only grow long.
        place = min(places, key=lambda pair: pair[1].mean_in(0), default=(raised_on(garden).first(), None))[0]
        planted = today + timedelta(days=PLANTED_D)
        values = {"group": "potato_first_early", "place": place.pk if place else "", "set_out": today.isoformat()}
        return values | {"planted": planted.isoformat(), "litres": f"{USUAL_TUB_L:g}"}

    def clean_set_out(self) -> date:
        """A few months back at most: what lies ahead is not set out."""
        on: date = self.cleaned_data["set_out"]
        if not self.today - timedelta(days=AGO_D) <= on <= self.today + timedelta(days=AGO_D):
            raise forms.ValidationError(_("Within four months of today."))
        return on

    def clean_litres(self) -> float:
        """From a bucket to a barrel."""
        litres: float = self.cleaned_data["litres"]
        if not 5 <= litres <= 1000:
            raise forms.ValidationError(_("Between 5 and 1,000 litres."))
        return litres
