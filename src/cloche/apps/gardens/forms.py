"""Forms of people, sites and places."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, cast

from django import forms
from django.conf import settings
from django.contrib.auth.forms import AuthenticationForm, UsernameField
from django.contrib.auth.password_validation import validate_password
from django.urls import reverse
from django.utils.translation import get_language
from django.utils.translation import gettext as _

from cloche.apps.gardens.language import usual_units
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.gardens.selectors import zone_words
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services.site import height_at
from cloche.bridge.values.units import Units, parse_air, parse_height
from cloche_engine.errors import OutOfRange

MONTHS = (
    lazy("Jan"),
    lazy("Feb"),
    lazy("Mar"),
    lazy("Apr"),
    lazy("May"),
    lazy("Jun"),
    lazy("Jul"),
    lazy("Aug"),
    lazy("Sep"),
    lazy("Oct"),
    lazy("Nov"),
    lazy("Dec"),
)


class SignInForm(AuthenticationForm):
    """Name and password."""

    error_messages = {
        "invalid_login": lazy("That name and password do not match. Passwords are case-sensitive."),
        "inactive": lazy("This account has been closed."),
    }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["username"].label = _("Name or email address")


class FirstPersonForm(forms.ModelForm):
    """The first account of a new installation, with one password field that can be shown."""

    password = forms.CharField(
        label=lazy("Password"),
        strip=False,
        widget=forms.PasswordInput(attrs={"autocomplete": "new-password"}),
        help_text=lazy("At least eight characters, not only digits."),
    )

    class Meta:
        model = User
        fields = ["username"]
        field_classes = {"username": UsernameField}
        labels = {"username": lazy("Your name")}
        help_texts = {"username": lazy("You use it to sign in. Spaces are allowed.")}

    def clean_password(self) -> str:
        """Apply the usual rules for passwords."""
        password: str = self.cleaned_data["password"]
        validate_password(password, User(username=self.cleaned_data.get("username", "")))
        return password

    def save(self, commit: bool = True) -> User:
        """With the units that are usual where the browser's language is spoken."""
        person: User = super().save(commit=False)
        person.set_password(self.cleaned_data["password"])
        person.temperature_unit, person.length_unit = usual_units(get_language())
        person.save()
        return person


class UnitsForm(forms.ModelForm):
    """A person's units."""

    class Meta:
        model = User
        fields = ["temperature_unit", "length_unit", "language"]
        labels = {
            "temperature_unit": lazy("Temperature unit"),
            "length_unit": lazy("Units"),
            "language": lazy("Language"),
        }
        help_texts = {"language": ""}
        widgets = {"temperature_unit": forms.RadioSelect, "length_unit": forms.RadioSelect}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["language"].choices = [("", _("same as my browser")), *settings.LANGUAGES]  # type: ignore[attr-defined]


class GardenForm(forms.ModelForm):
    """The location of a garden."""

    height = TypedNumber(label=lazy("Height above sea level"))

    class Meta:
        model = Garden
        fields = ["name", "height", "latitude_deg", "longitude_deg", "timezone_name"]
        labels = {
            "name": lazy("Garden name"),
            "latitude_deg": lazy("Latitude"),
            "longitude_deg": lazy("Longitude"),
            "timezone_name": lazy("Time zone"),
        }
        help_texts = {
            "latitude_deg": lazy("In degrees; south is negative. Sets the sun and the length of the day."),
            "longitude_deg": lazy("In degrees; west is negative."),
        }

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        # Five hundred zones would be half of the page: they come when somebody turns to the field.
        ask = {"hx-get": reverse("zones"), "hx-trigger": "focus once", "hx-target": "#zones", "hx-swap": "innerHTML"}
        self.fields["timezone_name"].widget = forms.TextInput(attrs={"list": "zones", "autocomplete": "off", **ask})
        height = self.fields["height"]
        parse_with(height, lambda text: parse_height(text, units))
        height.label = _("Height above sea level ({unit})").format(unit=units.height)
        height.help_text = _("Higher ground is colder and has later frosts. The nearest hundred is close enough.")
        if self.instance.pk:
            self.initial.setdefault("height", f"{round(units.height_from_m(self.instance.elevation_m)):g}")

    def height_m(self) -> float | None:
        """What was typed; None where it was left alone, so that it stays what it was to the metre."""
        return cast(float, self.cleaned_data["height"]) if "height" in self.changed_data else None

    def save(self, commit: bool = True) -> Garden:
        """Carry the height over; the flow saves."""
        height_m = self.height_m()
        if height_m is not None:
            self.instance.elevation_m = height_m
        return cast(Garden, super().save(commit=commit))


class NewGardenForm(GardenForm):
    """A garden whose point has been chosen. Its elevation is optional, because the map already gives one."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        height = self.fields["height"]
        height.required = False
        height.label = _("{label} (if you know it)").format(label=height.label)

    def height_m(self) -> float | None:
        """What was typed, or the height of the ground about the point."""
        typed = cast("float | None", self.cleaned_data.get("height"))
        return height_at(self.instance.latitude_deg, self.instance.longitude_deg) if typed is None else typed


class SiteForm(GardenForm):
    """The site and the garden's habits of sowing."""

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
            "sowing_rule": lazy("Sowing rule"),
            "uncover_rule": lazy("Covers come off"),
            "away_from_h": lazy("Nobody there from (hour)"),
            "away_to_h": lazy("until (hour)"),
            "watered": lazy("Seedbeds are kept moist"),
            "names": lazy("Crop names"),
            "zone": lazy("Winter hardiness zone (optional)"),
        }
        help_texts = GardenForm.Meta.help_texts | {
            "sowing_rule": lazy("This rule sets every window. Each crop’s page shows what the other rules would cost."),
            "away_from_h": lazy("On most days, by the clock. You then get one opening that is right for all those hours."),
            "watered": lazy("Without water, seed in dry soil waits for rain."),
            "zone": lazy("It describes only the coldest night of a usual winter. No window depends on it."),
        }

    def clean_zone(self) -> str:
        """Accept a hardiness zone or nothing."""
        zone: str = self.cleaned_data["zone"].strip().lower()
        if zone:
            try:
                zone_words(zone, Units())
            except OutOfRange as refusal:
                raise forms.ValidationError(str(refusal), code="zone") from refusal
        return zone


class NormalsForm(forms.Form):
    """Mean low and high of the air for all twelve months, or none."""

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units = units
        for side in ("low", "high"):
            for index, month in enumerate(MONTHS):
                label = _("{month}, mean {side}").format(month=month, side=side)
                self.fields[f"{side}_{index}"] = TypedNumber(parse=self._parse, required=False, label=label)

    def _parse(self, text: str) -> float:
        return parse_air(text, self.units)

    def clean(self) -> dict[str, Any]:
        """Accept all months or none, with no low above its high."""
        data = super().clean() or {}
        given = [name for name in self.fields if data.get(name) is not None]
        if not self.errors and given and len(given) < 24:
            raise forms.ValidationError(_("Enter all twelve months, lows and highs, or leave them all empty."))
        for index, month in enumerate(MONTHS):
            low, high = data.get(f"low_{index}"), data.get(f"high_{index}")
            if low is not None and high is not None and low > high:
                self.add_error(f"high_{index}", _("{month}: the high is below the low.").format(month=month))
        return data

    def months(self) -> list[dict[str, Any]]:
        """Return rows for the template: a month and its two bound fields."""
        return [{"name": m, "low": self[f"low_{i}"], "high": self[f"high_{i}"]} for i, m in enumerate(MONTHS)]

    def typed(self, side: str) -> list[float] | None:
        """Return twelve values of one side, None if left empty [°C]."""
        values = [self.cleaned_data.get(f"{side}_{i}") for i in range(12)]
        return None if None in values else values  # type: ignore[return-value]


class RoleForm(forms.Form):
    """A role."""

    ROLES = Membership.Role.choices
    role = forms.ChoiceField(label=lazy("Role"), choices=ROLES, initial=Membership.Role.GROWER)


class HandOverForm(forms.Form):
    """The new owner, and the further role of the old one."""

    STAYS = (
        *((role, label) for role, label in Membership.Role.choices if role != Membership.Role.OWNER),
        ("", lazy("I leave the garden")),
    )
    to = forms.TypedChoiceField(label=lazy("New owner"), coerce=int)
    role = forms.ChoiceField(label=lazy("Your new role"), choices=STAYS, required=False, initial=Membership.Role.GROWER)

    def __init__(self, *args: Any, others: Iterable[User], **kwargs: Any) -> None:
        super().__init__(*args, **{"auto_id": "hand_over_%s"} | kwargs)
        self.fields["to"].choices = [(person.pk, person.username) for person in others]  # type: ignore[attr-defined]
