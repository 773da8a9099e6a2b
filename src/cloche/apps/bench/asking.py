"""What would heat buy: which tray, and which crop or sowing."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.bench.selectors import raised_on
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import crops

OFTEN = ("pepper", "tomato", "eggplant")
"""What is most often asked about."""
LIES = "sown-"
"""What a choice of a sowing that lies there begins with."""


class AskForm(forms.Form):
    """A tray, and a crop to sow there or a sowing that lies there."""

    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("Tray"), empty_label=None)
    crop = forms.ChoiceField(label=lazy("For"))

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["place"].queryset = raised_on(garden)  # type: ignore[attr-defined]
        self.lying = {f"{LIES}{sowing.pk}": sowing for sowing in sowings_in(garden) if not sowing.finished}
        grown = [(crop.key, crop.name_plural) for crop in crops.of_garden(garden.crops, packets.values_in_use(garden))]
        places = self.fields["place"].queryset  # type: ignore[attr-defined]
        lying = [(key, self._name(sowing)) for key, sowing in self.lying.items() if sowing.place in places]
        choices: list[Any] = [(_("Sown today"), grown)]
        if lying:
            choices.append((_("On its way up"), lying))
        self.fields["crop"].choices = choices  # type: ignore[attr-defined]
        often = next((key for key, _name in grown if key in OFTEN), grown[0][0] if grown else None)
        self.initial.setdefault("crop", lying[0][0] if lying else often)
        if self.is_bound:
            # A link names the tray alone: of the rest it takes what is offered first.
            self.data = {"crop": self.initial["crop"]} | dict(self.data.items())

    @staticmethod
    def _name(sowing: Sowing) -> str:
        name = crops.crop(sowing.crop_key).name_plural
        return _("{name} in {place}, sown {day}").format(name=name, place=sowing.place.name, day=words.day(sowing.sown_on))

    def clean(self) -> dict[str, Any]:
        """A sowing lies in one tray."""
        data = super().clean() or {}
        lying = self.lying.get(data.get("crop", ""))
        if lying is not None:
            data["place"] = lying.place
        return data

    @property
    def what(self) -> tuple[str, Sowing | None]:
        """The crop's key, and the sowing if it lies already."""
        lying = self.lying.get(self.cleaned_data["crop"])
        return (lying.crop_key, lying) if lying else (self.cleaned_data["crop"], None)
