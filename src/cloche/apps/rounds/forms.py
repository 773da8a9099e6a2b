"""Form for one stop of a round, from a page or from a device that was offline."""

from __future__ import annotations

import base64
import binascii
from datetime import UTC, datetime, timedelta
from typing import Any, cast
from uuid import uuid4

from django import forms
from django.utils.dateparse import parse_datetime
from django.utils.translation import gettext as _

from cloche.apart.picture import NoPicture, small_jpeg
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.pages import round_choices
from cloche.apps.readings.flows.record import Seen
from cloche.apps.readings.forms import GRACE
from cloche.apps.readings.models import Visit
from cloche.apps.shared import clock
from cloche.apps.shared.clock import NoSuchTime, instant
from cloche.apps.shared.fields import LineField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services.readings import TRANSPLANT_DEPTH_M
from cloche.bridge.values import border
from cloche.bridge.values.units import Units, parse_air, parse_snow, parse_soil
from cloche_engine.soil.bed import AIRING

OLDEST = timedelta(days=400)
PHOTO_BYTES = 6_000_000
NUMBERS = ("temperature", "deeper", "air", "air_low", "air_high", "snow")


class StopForm(forms.Form):
    """Form for what was read and seen at a place.

    `at` is a time with its UTC offset, empty for now; `key` is the device's own; `airing` lists tasks done to a cover.
    """

    airing = AIRING
    key = forms.UUIDField(required=False)
    place = forms.ModelChoiceField(queryset=Place.objects.none(), widget=forms.HiddenInput)
    at = forms.CharField(required=False, widget=forms.HiddenInput)
    temperature = TypedNumber(required=False)
    deeper = TypedNumber(required=False)
    air = TypedNumber(required=False, label=lazy("Air inside the cover"))
    air_low = TypedNumber(required=False, label=lazy("Lowest since reset"))
    air_high = TypedNumber(required=False, label=lazy("Highest since reset"))
    moisture = forms.ChoiceField(
        required=False, label=lazy("Soil moisture by feel"), choices=[("", lazy("not checked")), *Visit.Moisture.choices]
    )
    snow = TypedNumber(required=False, label=lazy("Snow"))
    works = forms.MultipleChoiceField(
        required=False, label=lazy("Work done here"), choices=round_choices(), widget=forms.CheckboxSelectMultiple
    )
    losses = LineField(required=False, max_length=200, label=lazy("Survivors and losses"))
    note = LineField(required=False, max_length=200, label=lazy("Note"))
    photo = forms.CharField(required=False, widget=forms.HiddenInput)

    def __init__(self, *args: Any, garden: Garden, units: Units, ahead: timedelta = timedelta(0), **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.ahead, self.garden = ahead, garden
        place = cast(forms.ModelChoiceField, self.fields["place"])
        place.queryset = garden.places.all()
        place.error_messages["invalid_choice"] = _("This place is no longer in the garden. Restore it, or discard the reading.")
        for name in ("temperature", "deeper"):
            parse_with(self.fields[name], lambda text: parse_soil(text, units))
        for name in ("air", "air_low", "air_high"):
            parse_with(self.fields[name], lambda text: parse_air(text, units))
            self.fields[name].label = f"{self.fields[name].label}, {units.degree}"
        parse_with(self.fields["snow"], lambda text: parse_snow(text, units))
        self.fields["snow"].label = _("Snow depth ({length})").format(length=units.length)

    def clean_at(self) -> datetime:
        """Return the time corrected for the device's clock, rounded to minutes."""
        text = self.cleaned_data["at"]
        if not text:
            return clock.now().replace(second=0, microsecond=0)
        at = self._instant(text)
        if at > clock.now() + GRACE:
            raise forms.ValidationError(_("That time is in the future: the device’s clock runs ahead."), code="at")
        if at < clock.now() - OLDEST:
            raise forms.ValidationError(_("That is more than a year ago. Import such readings as a file."), code="at")
        return at.replace(second=0, microsecond=0)

    def _instant(self, text: str) -> datetime:
        """Parse a time: with an offset from the device's clock, without one in the garden's time zone."""
        try:
            at = parse_datetime(text)
        except ValueError:
            at = None
        if at is None:
            raise forms.ValidationError(_("That is not a time. Enter it like 2026-04-14T07:30."), code="at")
        try:
            border.day(at.date())
            return at.astimezone(UTC) - self.ahead if at.tzinfo else instant(at.date(), at.time(), self.garden.timezone)
        except (NoSuchTime, border.NotAllowed) as refusal:
            raise forms.ValidationError(str(refusal), code="at") from refusal

    def clean_photo(self) -> bytes | None:
        """Return the picture re-encoded as a small JPEG without its location data."""
        text = self.cleaned_data["photo"]
        return picture_in(text) if text else None

    def clean(self) -> dict[str, Any]:
        """Check that something was observed and that lows are not above highs."""
        data = super().clean() or {}
        low, high = data.get("air_low"), data.get("air_high")
        if low is not None and high is not None and low > high:
            self.add_error("air_high", _("The highest is below the lowest."))
        seen = any(data.get(n) is not None for n in NUMBERS) or any(
            data.get(n) for n in ("moisture", "works", "losses", "note", "photo")
        )
        if not seen and not self.errors:
            raise forms.ValidationError(_("Nothing has been entered for this place."), code="empty")
        return data

    def seen(self) -> Seen:
        """Return the validated content."""
        data = self.cleaned_data
        place = data["place"]
        pairs = ((place.seed_depth_m, data["temperature"]), (TRANSPLANT_DEPTH_M, data["deeper"]))
        return Seen(
            key=data["key"] or uuid4(),
            at=data["at"],
            soil=tuple((depth, value) for depth, value in pairs if value is not None),
            air_c=data["air"],
            air_low_c=data["air_low"],
            air_high_c=data["air_high"],
            moisture=data["moisture"],
            snow_m=data["snow"],
            note=data["note"].strip(),
            losses=data["losses"].strip(),
            works=tuple(data["works"]),
            photo=data["photo"],
        )


def picture_in(text: str) -> bytes:
    """Decode a data URL and re-encode the picture. Raises ValidationError."""
    try:
        data = base64.b64decode(text.partition(",")[2], validate=True)
        if len(data) > PHOTO_BYTES:
            raise forms.ValidationError(_("The picture is too large: at most 6 MB are accepted."), code="photo")
        return small_jpeg(data)
    except (binascii.Error, ValueError) as broken:
        sentence = str(broken) if isinstance(broken, NoPicture) else _("The picture cannot be read.")
        raise forms.ValidationError(sentence, code="photo") from broken
