"""Forms of heat, lamps, rooms and where a tray stands."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime, timedelta
from typing import Any

from django import forms
from django.db.models import Q
from django.utils.translation import gettext as _

from cloche.apps.bench.selectors import hotbeds_for
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, HotbedTray, Lamp, Place, Room, RoomAir
from cloche.apps.shared import clock, words
from cloche.apps.shared.fields import DATE, DayField, ShownAs, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.services.trays import COLD_TAP_C
from cloche.bridge.values.clocks import parse_spans, spans_text
from cloche.bridge.values.units import Units, parse_air, parse_any_length, parse_depth, parse_number, parse_soil
from cloche_engine.errors import OutOfRange
from cloche_engine.places.kinds import INDOORS

SHADES = [(0.0, lazy("nothing")), (0.3, lazy("a curtain or bare trees")), (0.6, lazy("trees or a roof for half the day"))]
SHADES.append((0.85, lazy("a wall or house in front of it")))
AWAY = [(0.1, lazy("on the sill")), (0.4, lazy("an arm’s length into the room")), (1.0, lazy("one step into the room"))]
AWAY.append((2.0, lazy("deep in the room")))
AIR_AGO_D = 60


def typed(form: forms.BaseForm, name: str, parse: Callable[[str], float], label: str, value: float | None) -> None:
    """Set up a number field in the reader's unit with its stored value."""
    parse_with(form.fields[name], parse)
    form.fields[name].label = label
    if value is not None:
        form.initial.setdefault(name, f"{round(value, 2):g}")


class SpansField(forms.CharField):
    """Hours of the day, such as 5:30–9, 16–21."""

    def clean(self, value: Any) -> list[list[float]]:
        """Validate the fields together."""
        text = super().clean(value)
        if not text:
            return []
        try:
            return [list(span) for span in parse_spans(text)]
        except OutOfRange as refusal:
            raise forms.ValidationError(str(refusal)) from refusal


class HeatForm(ShownAs, forms.ModelForm):
    """A heat source with its dates and its control."""

    shown_as = {"length_m": "length", "width_m": "width", "lift_k": "lift", "start_c": "start", "stop_c": "stop"}
    shown_as |= {"over_m": "over", "under_m": "under"}

    watts = TypedNumber(label=lazy("Power on the label (W)"), required=False)
    cable_m = TypedNumber(required=False)
    cable_w_m = TypedNumber(required=False)
    length = TypedNumber(required=False)
    width = TypedNumber(required=False)
    lift = TypedNumber(required=False)
    start = TypedNumber(required=False)
    stop = TypedNumber(required=False)
    over = TypedNumber(required=False)
    under = TypedNumber(required=False)
    spans = SpansField(label=lazy("Hours of heat"), required=False)

    class Meta:
        model = HeatPeriod
        fields = ["source", "first", "last", "control", "probe", "filling", "filling_wet"]
        labels = {
            "source": lazy("Heat source"),
            "first": lazy("First day"),
            "last": lazy("Last day"),
            "control": lazy("Control"),
            "probe": lazy("Position of the probe"),
            "filling": lazy("Material around the cable"),
            "filling_wet": lazy("The layer is kept moist"),
        }
        help_texts = {"last": lazy("Leave empty while it is still there.")}
        widgets = {"first": DATE, "last": DATE}

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.place, self.units, instance = place, units, self.instance
        length, degree = units.length, units.degree
        typed(self, "watts", parse_number, _("Power on the label (W)"), instance.watts)
        typed(self, "cable_m", parse_number, _("Length of cable (m)"), instance.cable_m)
        typed(self, "cable_w_m", parse_number, _("Watts per metre"), instance.cable_w_m)
        lift = _("Or measured lift over the room ({degree})").format(degree=degree)
        typed(self, "lift", parse_number, lift, None)
        if instance.lift_k is not None:
            self.initial.setdefault("lift", f"{units.difference_from_k(instance.lift_k):.1f}")
        for name in ("length", "width"):
            label = _("Length ({length})") if name == "length" else _("Width ({length})")
            value = units.length_from_m(getattr(instance, f"{name}_m"))
            typed(self, name, lambda text: parse_any_length(text, units), label.format(length=length), value)
        for name, label in (("start", _("On below ({degree})")), ("stop", _("Off above ({degree})"))):
            value = units.temperature_from_c(getattr(instance, f"{name}_c"))
            typed(self, name, lambda text: parse_soil(text, units), label.format(degree=degree), round(value, 1))
        for name, label in (
            ("over", _("Thickness above the cable ({length})")),
            ("under", _("Thickness below the cable ({length})")),
        ):
            value = units.length_from_m(getattr(instance, f"{name}_m"))
            typed(self, name, lambda text: parse_depth(text, units), label.format(length=length), value)
        self.fields["spans"].help_text = _("For example 6–22, or 5:30–9, 16–21. Standard time, without daylight saving.")
        if instance.spans:
            self.initial.setdefault("spans", spans_text(instance.spans))

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        instance = self.instance
        for name, field in (("watts", "watts"), ("cable_m", "cable_m"), ("cable_w_m", "cable_w_m")):
            setattr(instance, field, data.get(name))
        lift = data.get("lift")
        instance.lift_k = None if lift is None else lift / self.units.difference_from_k(1.0)
        for name, field in (("length", "length_m"), ("width", "width_m"), ("start", "start_c"), ("stop", "stop_c")):
            if data.get(name) is not None:
                setattr(instance, field, data[name])
        for name in ("over", "under"):
            setattr(instance, f"{name}_m", data.get(name) or 0.0)
        instance.spans = data.get("spans") or []
        if data.get("control") == HeatPeriod.Control.TIMER and not instance.spans and "spans" not in self.errors:
            self.add_error("spans", _("Enter the hours when it is on, for example 6–22."))
        refused_by(self, {"watts": "watts", "cable_m": "cable_m", "cable_w_m": "cable_w_m"} | self.shown_as)
        return data


class LampForm(forms.ModelForm):
    """A lamp and its hours."""

    watts = TypedNumber()
    ppfd = TypedNumber(required=False)
    length = TypedNumber()
    width = TypedNumber()
    away = TypedNumber()
    spans = SpansField(label=lazy("Hours of light"))

    class Meta:
        model = Lamp
        fields = ["kind", "first", "last"]
        labels = {"kind": lazy("Lamp"), "first": lazy("First day"), "last": lazy("Last day")}
        help_texts = {"last": lazy("Leave empty while it is still there.")}
        widgets = {"first": DATE, "last": DATE}

    def __init__(self, *args: Any, units: Units, place: Place, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.place, instance, length = place, self.instance, units.length
        typed(self, "watts", parse_number, _("Power at the plug (W)"), instance.watts)
        typed(self, "ppfd", parse_number, _("Or measured at the leaves: PPFD (µmol/m²s)"), instance.ppfd)
        for name, label in (("length", _("Length lit ({length})")), ("width", _("Width lit ({length})"))):
            value = units.length_from_m(getattr(instance, f"{name}_m"))
            typed(self, name, lambda text: parse_any_length(text, units), label.format(length=length), value)
        label = _("Height above the leaves ({length})").format(length=length)
        typed(self, "away", lambda text: parse_depth(text, units), label, units.length_from_m(instance.away_m))
        self.fields["away"].help_text = _("About 8 cm or 3 in above cool-season seedlings; raise it as they grow.")
        self.fields["spans"].help_text = _("For example 6–20, or 5:30–9, 16–21 around daylight. Plants need a dark night.")
        self.initial.setdefault("spans", spans_text(instance.spans) if instance.spans else "6–20")

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        instance = self.instance
        instance.ppfd = data.get("ppfd")
        for name, field in (("watts", "watts"), ("length", "length_m"), ("width", "width_m"), ("away", "away_m")):
            if data.get(name) is not None:
                setattr(instance, field, data[name])
        instance.spans = data.get("spans") or instance.spans
        refused_by(self, {"watts": "watts", "ppfd": "ppfd", "length_m": "length", "width_m": "width", "away_m": "away"})
        return data


def refused_by(form: forms.ModelForm, shown_as: dict[str, str]) -> None:
    """Show the model's errors at the fields under which the numbers are typed."""
    for field, shown in shown_as.items():
        value = getattr(form.instance, field)
        if value is None or shown in form.errors:
            continue
        try:
            form.instance._meta.get_field(field).clean(value, form.instance)
        except forms.ValidationError as refusal:
            form.add_error(shown, refusal.messages)


class RoomForm(forms.ModelForm):
    """A room and its temperatures."""

    night_c = TypedNumber(required=False)
    day_c = TypedNumber(required=False)

    class Meta:
        model = Room
        fields = ["name", "kind"]
        labels = {"name": lazy("Name"), "kind": lazy("Kind")}

    def __init__(self, *args: Any, units: Units, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        for name, label in (("night_c", _("Coldest night ({degree})")), ("day_c", _("Warmest daytime temperature ({degree})"))):
            stored = getattr(self.instance, name)
            value = None if stored is None else units.temperature_from_c(stored)
            typed(self, name, lambda text: parse_air(text, units), label.format(degree=units.degree), value)
        self.fields["night_c"].help_text = _("Leave both empty if you do not know. Readings of its air will show.")

    def clean_name(self) -> str:
        """Refuse a name that the garden already uses."""
        name = self.cleaned_data["name"].strip()
        others = self.garden.rooms.filter(name__iexact=name, removed_at__isnull=True).exclude(pk=self.instance.pk)
        if others.exists():
            raise forms.ValidationError(_("There is already a room called {name}.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        self.instance.night_c, self.instance.day_c = data.get("night_c"), data.get("day_c")
        return data


class AirForm(forms.Form):
    """An air reading in a room."""

    what = forms.ChoiceField(label=lazy("Air temperature"), choices=RoomAir.What.choices)
    temperature = TypedNumber()
    day = DayField(label=lazy("Date"))
    hour = forms.TimeField(label=lazy("Time"), widget=forms.TimeInput(attrs={"type": "time"}, format="%H:%M"))

    def __init__(self, *args: Any, units: Units, room: Room, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "air_%s"} | kwargs))
        self.room = room
        typed(self, "temperature", lambda text: parse_air(text, units), _("Temperature ({d})").format(d=units.degree), None)
        local = clock.now().astimezone(room.garden.timezone)
        self.fields["day"].initial, self.fields["hour"].initial = local.date(), local.time().replace(second=0, microsecond=0)

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        if data.get("day") and data.get("hour"):
            at = datetime.combine(data["day"], data["hour"], tzinfo=self.room.garden.timezone)
            if at > clock.now() + timedelta(minutes=1):
                self.add_error("day", _("That time is in the future."))
            elif at < clock.now() - timedelta(days=AIR_AGO_D):
                self.add_error("day", _("That was more than two months ago, too long ago to affect the forecast."))
            data["at"] = at
        return data

    def air(self) -> RoomAir:
        """Return the unsaved reading. A minimum or maximum covers the day before it."""
        data = self.cleaned_data
        since = None if data["what"] == RoomAir.What.NOW else data["at"] - timedelta(days=1)
        return RoomAir(room=self.room, what=data["what"], at=data["at"], since=since, temperature_c=data["temperature"])


class StandsForm(forms.ModelForm):
    """The room and window of a tray, or the house it stands in."""

    window_shade = forms.TypedChoiceField(label=lazy("Outside the window"), choices=SHADES, coerce=float)
    window_away_m = forms.TypedChoiceField(label=lazy("Distance from the window"), choices=AWAY, coerce=float)

    class Meta:
        model = Place
        fields = ["within", "room", "window_aspect_deg"]
        labels = {"within": lazy("House"), "room": lazy("Room"), "window_aspect_deg": lazy("Window faces")}

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        outside = _("none: it stands in a room") if self.instance.kind in INDOORS else _("none: in the open")
        self.fields["within"].choices = [("", outside), *Place.House.choices]  # type: ignore[attr-defined]
        self.fields["within"].help_text = _("In a house, trays get its air and daylight, and the room and window do not count.")
        self.fields["room"].queryset = garden.rooms.filter(removed_at__isnull=True)  # type: ignore[attr-defined]
        self.fields["room"].empty_label = _("a usual room")  # type: ignore[attr-defined]
        window: Any = self.fields["window_aspect_deg"]
        window.choices = [("", _("no useful window")), *list(window.choices)[1:]]
        for name, choices in (("window_shade", SHADES), ("window_away_m", AWAY)):
            stored = getattr(self.instance, name)
            self.initial[name] = min((value for value, _unused in choices), key=lambda value: abs(value - stored))

    def save(self, commit: bool = True) -> Place:
        """Copy the values to the place; the flow saves it."""
        place: Place = super().save(commit=False)
        place.window_shade = self.cleaned_data["window_shade"]
        place.window_away_m = self.cleaned_data["window_away_m"]
        return place


WATER_C = (0.0, 45.0)


class WaterForm(forms.Form):
    """Temperature of the water that a tray gets."""

    water = TypedNumber()

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.units = units
        usual = round(units.temperature_from_c(COLD_TAP_C))
        label = _("Temperature of the water ({degree})").format(degree=units.degree)
        typed(self, "water", lambda text: parse_soil(text, units), label, usual)

    def clean_water(self) -> float:
        """Accept liquid water that does not scald."""
        water: float = self.cleaned_data["water"]
        if not WATER_C[0] <= water <= WATER_C[1]:
            low, high = (self.units.temperature_text(end, 0) for end in WATER_C)
            raise forms.ValidationError(_("Enter a value from {low} to {high}.").format(low=low, high=high))
        return water


class OnHotbedForm(forms.ModelForm):
    """The hotbed under a tray, and its dates."""

    class Meta:
        model = HotbedTray
        fields = ["hotbed", "first", "last"]
        labels = {"hotbed": lazy("Hotbed"), "first": lazy("First day"), "last": lazy("Last day")}
        help_texts = {"last": lazy("Leave empty while it is still there.")}
        widgets = {"first": DATE, "last": DATE}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "hotbed_%s"} | kwargs))
        beds = hotbeds_for(self.instance.place)
        self.fields["hotbed"].queryset = beds  # type: ignore[attr-defined]
        self.initial["hotbed"] = self.initial.get("hotbed") or beds.first()

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        first, last = data.get("first"), data.get("last")
        if first:
            others = HotbedTray.objects.filter(Q(last__isnull=True) | Q(last__gte=first), place=self.instance.place)
            if last:
                others = others.filter(first__lte=last)
            if others.exclude(pk=self.instance.pk).exists():
                self.add_error("first", _("The tray is already on a hotbed then. Take it off that one first."))
        return data


class RulesForm(forms.ModelForm):
    """Rules for raising plants."""

    bring_in = TypedNumber()
    price = TypedNumber(required=False)

    class Meta:
        model = Garden
        fields = ["heat_off_rule"]
        labels = {"heat_off_rule": lazy("When the heat goes off")}

    def __init__(self, *args: Any, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "rules_%s"} | kwargs))
        instance = self.instance
        label = _("Bring trays in below ({degree})").format(degree=units.degree)
        typed(self, "bring_in", lambda text: parse_air(text, units), label, units.temperature_from_c(instance.bring_in_c))
        typed(self, "price", parse_number, _("Price of one kilowatt hour"), instance.price_kwh)
        self.fields["price"].help_text = _("In your own currency. Leave empty to see energy only.")

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        if data.get("bring_in") is not None:
            self.instance.bring_in_c = data["bring_in"]
        self.instance.price_kwh = data.get("price")
        refused_by(self, {"bring_in_c": "bring_in", "price_kwh": "price"})
        return data


class HeatOffForm(forms.Form):
    """Form for when one sowing comes off the heat."""

    rule = forms.ChoiceField(label=lazy("When it comes off the heat"), required=False)

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **({"auto_id": "heat_off_%s"} | kwargs))
        usual = _("as in this garden: {rule}").format(rule=garden.get_heat_off_rule_display())
        self.fields["rule"].choices = [("", usual), *Garden.HeatOffRule.choices]  # type: ignore[attr-defined]


class StepForm(forms.Form):
    """A step in the life of a sowing."""

    kind = forms.ChoiceField(label=lazy("Step"))
    on = DayField(label=lazy("Date"))
    place = forms.ModelChoiceField(Place.objects.none(), label=lazy("To"), required=False)
    cell = TypedNumber(required=False)

    def __init__(self, *args: Any, sowing: Any, units: Units, today: date, **kwargs: Any) -> None:
        from cloche.apps.sowings.models import Step

        super().__init__(*args, **({"auto_id": "step_%s"} | kwargs))
        self.sowing, self.today, self.steps, self.units = sowing, today, Step.Kind, units
        # A thermostat is turned down at its tray or by its job, which know how far.
        kinds = [choice for choice in Step.Kind.choices if choice[0] != Step.Kind.TURNED_DOWN]
        self.fields["kind"].choices = kinds  # type: ignore[attr-defined]
        self.fields["on"].initial = today
        self.fields["place"].queryset = sowing.place.garden.places.all()  # type: ignore[attr-defined]
        self.fields["place"].empty_label = _("stays where it is")  # type: ignore[attr-defined]
        label = _("Width of the new cells or pots ({length})").format(length=units.length)
        typed(self, "cell", lambda text: parse_depth(text, units), label, None)

    def clean_on(self) -> date:
        """Accept dates from the sowing or its last move until today."""
        on: date = self.cleaned_data["on"]
        moves = [step.on for step in self.sowing.steps.all() if step.left_id is not None]
        if on > self.today:
            raise forms.ValidationError(_("That date is in the future. Save the step once it is done."))
        if on < self.sowing.sown_on:
            raise forms.ValidationError(_("That date is before the sowing."))
        if moves and on < moves[-1]:
            day = words.day(moves[-1], self.today)
            raise forms.ValidationError(_("The tray was moved on {day}, so you cannot add an earlier move.").format(day=day))
        return on

    def clean_cell(self) -> float | None:
        """Accept cell sizes from the smallest module to a bucket."""
        cell: float | None = self.cleaned_data["cell"]
        if cell is not None and not 0.01 <= cell <= 0.5:
            low, high = (self.units.length_text(end) for end in (0.01, 0.5))
            raise forms.ValidationError(_("Enter a value from {low} to {high}.").format(low=low, high=high))
        return cell

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        from cloche.apps.sowings.flows import MOVES

        data = super().clean() or {}
        kind, place = data.get("kind"), data.get("place")
        if kind in MOVES and place is None:
            self.add_error("place", _("Choose where the tray is now."))
        if place is not None and place == self.sowing.place:
            self.add_error("place", _("The tray is already there."))
        if kind == self.steps.POTTED and data.get("cell") is None and "cell" not in self.errors:
            self.add_error("cell", _("Enter the width of the new cells or pots. It shows how long they will last."))
        return data
