"""Forms for readings and for the columns of an imported file."""

from __future__ import annotations

from datetime import timedelta
from typing import Any, cast

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings.files import mapping as maps
from cloche.apps.readings.flows.record import TEXTS, Measured
from cloche.apps.readings.models import Reading
from cloche.apps.shared import clock
from cloche.apps.shared.clock import NoSuchTime, came_twice, instant
from cloche.apps.shared.fields import DayField, LineField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.values.units import Units, parse_depth, parse_soil

GRACE = timedelta(minutes=5)
TIME = forms.TimeInput(attrs={"type": "time"}, format="%H:%M")


class ReadingForm(forms.Form):
    """Form for one reading, with date, time and depth prefilled."""

    temperature = TypedNumber(label=lazy("Soil temperature"))
    day = DayField(label=lazy("Date"))
    time = forms.TimeField(label=lazy("Time"), widget=TIME)
    depth = TypedNumber(label=lazy("Depth"))

    def __init__(self, *args: Any, place: Place, units: Units, reading: Reading | None = None, **kwargs: Any) -> None:
        self.place, self.units = place, units
        kwargs["initial"] = _filled(reading, units, place) if reading else _empty(units, place)
        super().__init__(*args, **kwargs)
        for name, text in TEXTS.items():
            self.fields[name] = LineField(label=text.label, required=False, max_length=text.most)
        parse_with(self.fields["temperature"], lambda text: parse_soil(text, units))
        self.fields["temperature"].label = _("Soil ({degree})").format(degree=units.degree)
        self.fields["temperature"].widget.attrs |= {"class": "big-digits", "placeholder": "–"}
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = _("Depth ({length})").format(length=units.length)

    def clean(self) -> dict[str, Any]:
        """Convert local date and time to an instant that exists and is not in the future."""
        data = super().clean() or {}
        day, at = data.get("day"), data.get("time")
        if day is None or at is None:
            return data
        timezone = self.place.garden.timezone
        try:
            data["taken_at"] = instant(day, at, timezone)
        except NoSuchTime as refusal:
            self.add_error("time", str(refusal))
            return data
        if data["taken_at"] > clock.now() + GRACE:
            self.add_error("day", _("That time is in the future. Enter readings after you take them."))
        data["twice"] = came_twice(day, at, timezone)
        return data

    def measured(self) -> Measured:
        """Return the validated reading."""
        data = self.cleaned_data
        texts = {name: data[name].strip() for name in TEXTS}
        return Measured(data["taken_at"], round(data["depth"], 4), data["temperature"], **texts)

    def texts(self) -> list[forms.BoundField]:
        """Return the bound text fields."""
        return [self[name] for name in TEXTS]


def _empty(units: Units, place: Place) -> dict[str, Any]:
    local = clock.now().astimezone(place.garden.timezone)
    depth = f"{round(units.length_from_m(place.seed_depth_m), 1):g}"
    return {"day": local.date(), "time": local.time().replace(second=0, microsecond=0), "depth": depth}


def _filled(reading: Reading, units: Units, place: Place) -> dict[str, Any]:
    local = reading.taken_at.astimezone(place.garden.timezone)
    return {
        "temperature": f"{units.temperature_from_c(reading.temperature_c):.1f}",
        "day": local.date(),
        "time": local.time(),
        "depth": f"{round(units.length_from_m(reading.depth_m), 1):g}",
    } | {name: getattr(reading, name) for name in TEXTS}


class FileForm(forms.Form):
    """Form for a file and its kind."""

    kind = forms.ChoiceField(
        label=lazy("Contents"),
        choices=[("readings", lazy("soil readings")), ("weather", lazy("daily weather"))],
        widget=forms.RadioSelect,
        initial="readings",
    )
    file = forms.FileField(label=lazy("File (CSV, xlsx or ods)"), error_messages={"empty": lazy("The file is empty.")})


class MappingForm(forms.Form):
    """Form for the roles of the columns and settings of all rows."""

    temperature_unit = forms.ChoiceField(label=lazy("Unit of temperature"), choices=[("C", "°C"), ("F", "°F")])
    length_unit = forms.ChoiceField(label=lazy("Unit of depth"), choices=[("cm", "cm"), ("in", lazy("inches"))])
    date_order = forms.ChoiceField(
        label=lazy("Date format"),
        choices=[("iso", lazy("year-month-day")), ("dmy", lazy("day.month.year")), ("mdy", lazy("month/day/year"))],
    )
    clock = forms.ChoiceField(
        label=lazy("Time zone of times"),
        choices=[
            ("local", lazy("garden time, with daylight saving")),
            ("standard", lazy("standard time all year")),
            ("utc", lazy("UTC")),
        ],
    )
    place = forms.ModelChoiceField(
        label=lazy("Place of all readings"),
        queryset=Place.objects.none(),
        required=False,
        empty_label=lazy("from the place column"),
    )
    depth = TypedNumber(label=lazy("Depth if the file gives none"), required=False)

    def __init__(self, *args: Any, garden: Garden, header: list[str], kind: str, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.kind, self.header = kind, header
        cast(forms.ModelChoiceField, self.fields["place"]).queryset = garden.places.all()
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = _("Depth if the file gives none ({length})").format(length=units.length)
        self.fields["depth"].help_text = _("Leave empty for the place’s seed depth.")
        roles = maps.WEATHER_ROLES if kind == "weather" else maps.READING_ROLES
        for index, name in enumerate(header):
            label = name or _("column {index}").format(index=index + 1)
            self.fields[f"column_{index}"] = forms.ChoiceField(label=label, choices=list(roles.items()), required=False)
        if kind == "weather":
            for name in ("length_unit", "clock", "place", "depth"):
                del self.fields[name]

    def clean(self) -> dict[str, Any]:
        """Require the roles without which no row can be read."""
        data = super().clean() or {}
        if not self.errors:
            for lack in maps.missing_roles(self.kind, self.mapping()):
                self.add_error(None, lack)
        return data

    def mapping(self) -> maps.Mapping:
        """Return the mapping."""
        data = self.cleaned_data
        place = data.get("place")
        return maps.Mapping(
            roles=[data.get(f"column_{index}", "") for index in range(len(self.header))],
            temperature_unit=data["temperature_unit"],
            length_unit=data.get("length_unit", "cm"),
            date_order=data["date_order"],
            clock=data.get("clock", "local"),
            place_id=place.pk if place else None,
            depth_m=data.get("depth"),
        )


def mapping_initial(mapping: maps.Mapping, units: Units) -> dict[str, Any]:
    """Return the form's initial values for a mapping."""
    columns = {f"column_{index}": role for index, role in enumerate(mapping.roles)}
    return columns | {
        "temperature_unit": mapping.temperature_unit,
        "length_unit": mapping.length_unit,
        "date_order": mapping.date_order,
        "clock": mapping.clock,
        "place": mapping.place_id,
        "depth": "" if mapping.depth_m is None else f"{units.length_from_m(mapping.depth_m):g}",
    }
