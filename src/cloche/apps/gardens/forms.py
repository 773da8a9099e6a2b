"""Forms of people, sites and places."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.shared.fields import TypedNumber
from cloche.bridge.services.zones import zone_words
from cloche.bridge.values import border
from cloche.bridge.values.units import Units, parse_air
from cloche.core.errors import OutOfRange

MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


class SignInForm(AuthenticationForm):
    """Name and password."""

    error_messages = {
        "invalid_login": "That name and password do not go together. Capital letters count in the password.",
        "inactive": "This account has been closed.",
    }


class FirstPersonForm(BaseUserCreationForm):
    """The first account of a new installation."""

    class Meta:
        model = User
        fields = ["username", "temperature_unit", "length_unit"]
        labels = {"username": "Your name here"}
        help_texts = {"username": "What you will sign in with."}


class UnitsForm(forms.ModelForm):
    """A person's scales."""

    class Meta:
        model = User
        fields = ["temperature_unit", "length_unit"]
        labels = {"temperature_unit": "Temperatures in", "length_unit": "Lengths in"}
        widgets = {"temperature_unit": forms.RadioSelect, "length_unit": forms.RadioSelect}


class GardenForm(forms.ModelForm):
    """Where the ground lies."""

    class Meta:
        model = Garden
        fields = ["name", "latitude_deg", "longitude_deg", "elevation_m", "timezone_name"]
        labels = {
            "name": "Name of the garden",
            "latitude_deg": "Latitude",
            "longitude_deg": "Longitude",
            "elevation_m": "Height above the sea, m",
            "timezone_name": "Time zone",
        }
        help_texts = {
            "latitude_deg": "Degrees; south is negative. Gives the sun and the length of the day.",
            "longitude_deg": "Degrees; west is negative.",
        }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["timezone_name"].widget = forms.Select(choices=_zones())


class SiteForm(GardenForm):
    """The site, and how its people go about sowing."""

    class Meta(GardenForm.Meta):
        fields = [
            *GardenForm.Meta.fields,
            "sowing_rule",
            "uncover_rule",
            "away_from_h",
            "away_to_h",
            "watered",
            "names",
            "zone",
        ]
        labels = GardenForm.Meta.labels | {
            "sowing_rule": "You sow",
            "uncover_rule": "You take covers off",
            "away_from_h": "Nobody is there from, hour",
            "away_to_h": "to",
            "watered": "Seed beds are kept moist",
            "names": "Names of crops",
            "zone": "Winter-hardiness zone, if you like",
        }
        help_texts = GardenForm.Meta.help_texts | {
            "sowing_rule": "Decides every window; what the other ways would cost stands with every crop.",
            "away_from_h": "On most days, by the clock. Then one opening is told that is right for all of it.",
            "watered": "Where they are not, seed waits for rain in dry soil.",
            "zone": "It says only how cold a usual winter’s coldest night is. No window goes by it.",
        }

    def clean_zone(self) -> str:
        """A zone, or none."""
        zone: str = self.cleaned_data["zone"].strip().lower()
        if zone:
            try:
                zone_words(zone, Units())
            except OutOfRange as refusal:
                raise forms.ValidationError(str(refusal), code="zone") from refusal
        return zone


def _zones() -> list[tuple[str, str]]:
    return [(name, name.replace("_", " ")) for name in border.zones()]


class NormalsForm(forms.Form):
    """Twelve mean lows and highs of the air; all or none."""

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units = units
        for side in ("low", "high"):
            for index, month in enumerate(MONTHS):
                label = f"{month}, mean {side}"
                self.fields[f"{side}_{index}"] = TypedNumber(parse=self._parse, required=False, label=label)

    def _parse(self, text: str) -> float:
        return parse_air(text, self.units)

    def clean(self) -> dict[str, Any]:
        """Either every month or none, and no low above its high."""
        data = super().clean() or {}
        given = [name for name in self.fields if data.get(name) is not None]
        if not self.errors and given and len(given) < 24:
            raise forms.ValidationError("Give all twelve months, lows and highs, or leave all of them empty.")
        for index, month in enumerate(MONTHS):
            low, high = data.get(f"low_{index}"), data.get(f"high_{index}")
            if low is not None and high is not None and low > high:
                self.add_error(f"high_{index}", f"{month}: the high is below the low.")
        return data

    def months(self) -> list[dict[str, Any]]:
        """Rows for the template: month with its two bound fields."""
        return [{"name": m, "low": self[f"low_{i}"], "high": self[f"high_{i}"]} for i, m in enumerate(MONTHS)]

    def typed(self, side: str) -> list[float] | None:
        """Twelve values [°C] of one side, or None when left empty."""
        values = [self.cleaned_data.get(f"{side}_{i}") for i in range(12)]
        return None if None in values else values  # type: ignore[return-value]


class RoleForm(forms.Form):
    """What somebody may do."""

    ROLES = Membership.Role.choices
    role = forms.ChoiceField(label="They come as", choices=ROLES, initial=Membership.Role.GROWER)
