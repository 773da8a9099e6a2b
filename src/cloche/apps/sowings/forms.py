"""Forms for sowings and counts."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.selectors import hot_core
from cloche.apps.seed import selectors as packets
from cloche.apps.seed.models import Packet
from cloche.apps.shared import words
from cloche.apps.shared.fields import DATE, DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import MOST_SEEDS, Sowing
from cloche.bridge.services import crops
from cloche.bridge.services.hotbeds import TOO_HOT_C
from cloche.bridge.values.units import Units, parse_depth
from cloche_engine.crops.grown import with_values

LONG_AGO_D = 400


class SowingForm(forms.ModelForm):
    """Form for a sowing: place, crop, day, number and depth."""

    depth = TypedNumber(label=lazy("Depth"), required=False)

    class Meta:
        model = Sowing
        fields = ["place", "crop_key", "sown_on", "seeds"]
        labels = {"place": lazy("Place"), "sown_on": lazy("Date"), "seeds": lazy("Number of seeds, if counted")}
        help_texts = {"seeds": lazy("Cloche can then say how many to expect, and learns from your counts.")}
        widgets = {"sown_on": DATE}

    def __init__(self, *args: Any, garden: Garden, units: Units, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden, self.today = garden, today
        self.fields["place"].queryset = garden.places.all()  # type: ignore[attr-defined]
        self.fields["place"].empty_label = None  # type: ignore[attr-defined]
        grown = crops.of_garden(garden.crops)
        known = {crop.key for crop in grown}
        others = [(crop.key, crop.name) for crop in crops.crops() if crop.key not in known]
        choices: list[Any] = [(crop.key, crop.name) for crop in grown]
        if others:
            choices.append((_("Not grown here so far"), others))
        self.fields["crop_key"] = forms.ChoiceField(label=_("Crop"), choices=choices)
        self.fields["depth"].label = _("Depth ({length})").format(length=units.length)
        self.fields["depth"].help_text = _("Leave empty for the usual depth of the crop.")
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.hot = self._hot_place(units)
        if self.hot:
            self.fields["anyway"] = forms.BooleanField(label=_("Sow into it all the same"), required=False)
        if self.instance.pk:
            self.initial.setdefault("depth", f"{round(units.length_from_m(self.instance.depth_m), 2):g}")

    def _hot_place(self, units: Units) -> str:
        """Return why the hotbed that was chosen is too hot to sow into; nothing for another place or an older sowing."""
        chosen = str(self.data.get("place", "")) if self.is_bound and not self.instance.pk else ""
        place = self.garden.places.filter(pk=int(chosen), kind="hotbed").first() if chosen.isdecimal() else None
        core = hot_core(place, self.today) if place is not None else None
        if core is None:
            return ""
        return _(
            "Its core was at {core} on {day}: the heap is in its first hot phase, and seed in it would die. "
            "Set trays on it, or wait until the soil is below {limit} at seed depth."
        ).format(
            core=units.temperature_text(core.core_c or 0.0, 0),
            day=words.day(core.on, self.today),
            limit=units.temperature_text(TOO_HOT_C, 0),
        )

    def clean(self) -> dict[str, Any]:
        """Refuse a hotbed in its first hot phase unless the grower insists."""
        data = super().clean() or {}
        if self.hot and not data.get("anyway"):
            self.add_error("place", self.hot)
        return data

    def clean_sown_on(self) -> date:
        """Refuse days in the future or long ago."""
        on: date = self.cleaned_data["sown_on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future. Save the step once it is done."))
        if on < self.today - timedelta(days=LONG_AGO_D):
            raise forms.ValidationError(_("Enter a date within the last year."))
        counted = self.instance.counts.order_by("on").first() if self.instance.pk else None
        if counted is not None and on >= counted.on:
            day = words.day(counted.on, self.today)
            raise forms.ValidationError(_("Seedlings were counted on {day}, so it must have been sown before.").format(day=day))
        return on

    def save(self, commit: bool = True) -> Sowing:
        """Build the sowing, unsaved.

        Uses the packet in use unless an existing sowing of the same crop is corrected; an untouched depth stays exact.
        """
        sowing: Sowing = super().save(commit=False)
        corrected = sowing.pk and "crop_key" not in self.changed_data
        if corrected and "depth" not in self.changed_data:
            return sowing
        if not corrected:
            sowing.packet = Packet.objects.filter(
                garden=self.garden, crop_key=sowing.crop_key, in_use=True, removed_at__isnull=True
            ).first()
        usual = with_values(crops.crop(sowing.crop_key), packets.values_in_use(self.garden).get(sowing.crop_key))
        depth = self.cleaned_data.get("depth")
        sowing.depth_m = usual.sowing_depth_m if depth is None else depth
        return sowing


class CountForm(forms.Form):
    """Form for the number of seedlings up on a day."""

    up = forms.IntegerField(
        label=lazy("Seedlings up"),
        min_value=0,
        max_value=MOST_SEEDS,
        widget=forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"}),
    )
    on = DayField(label=lazy("Date"))

    def __init__(self, *args: Any, sowing: Sowing, today: date, **kwargs: Any) -> None:
        # Several stand on one page.
        super().__init__(*args, **{"auto_id": f"id_%s-{sowing.pk}"} | kwargs)
        self.sowing, self.today = sowing, today

    def clean_on(self) -> date:
        """Require a day between sowing and today."""
        on: date = self.cleaned_data["on"]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future."))
        if on <= self.sowing.sown_on:
            raise forms.ValidationError(_("That date is before the sowing."))
        return on

    def clean_up(self) -> int:
        """Refuse more seedlings than seeds."""
        up: int = self.cleaned_data["up"]
        if self.sowing.seeds is not None and up > self.sowing.seeds:
            raise forms.ValidationError(_("Enter at most {seeds}, the number sown.").format(seeds=self.sowing.seeds))
        return up
