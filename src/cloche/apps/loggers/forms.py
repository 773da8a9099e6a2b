"""A device's name and unit, and where its channels stick."""

from __future__ import annotations

import re
from typing import Any, cast

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows.devices import MOST_MAPPINGS, belongs_elsewhere, root_of
from cloche.apps.loggers.flows.take_in import Sent
from cloche.apps.loggers.mapped import Shape, channel_in, check_pointer, check_topic, values_of
from cloche.apps.loggers.models import Device, MessageMapping
from cloche.apps.places.models import Place, Room
from cloche.apps.shared.fields import TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.bridge.values.units import Units, parse_depth

MOST_DEVICES = 60
IN_ROOM = "room-"
CHANNEL = re.compile(r"[A-Za-z0-9_.:-]{1,40}")


def channel_name(text: str) -> str:
    """Return a valid channel name. Raises ValueError with a sentence."""
    if not CHANNEL.fullmatch(text):
        raise ValueError(_("Letters, digits and . _ : - only, without spaces."))
    return text


class DeviceForm(forms.ModelForm):
    """A new logger."""

    class Meta:
        model = Device
        fields = ["name", "unit"]
        labels = {"name": lazy("Name"), "unit": lazy("Temperature unit")}
        help_texts = {"unit": lazy("Used unless the message states its own unit.")}

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        if self.instance.garden_id and self.instance.garden.devices.count() >= MOST_DEVICES:
            raise forms.ValidationError(
                _("A garden can have at most {most_devices} loggers.").format(most_devices=MOST_DEVICES), code="many"
            )
        return data


class MappingForm(forms.ModelForm):
    """Position of the values in a device's own messages, and a message to try."""

    sample = forms.CharField(
        label=lazy("Sample message"),
        required=False,
        max_length=4000,
        widget=forms.Textarea(attrs={"rows": 4, "spellcheck": "false"}),
        help_text=lazy("To show how it would be read. It is not saved."),
    )
    sample_topic = forms.CharField(label=lazy("Topic of the sample"), required=False, max_length=200)

    class Meta:
        model = MessageMapping
        fields = ["topic", "value", "at", "channel", "each"]
        labels = {
            "topic": lazy("Topic"),
            "value": lazy("Temperature"),
            "at": lazy("Time"),
            "channel": lazy("Channel"),
            "each": lazy("List of values"),
        }
        help_texts = {
            "topic": lazy("Topic at the broker. A + stands for any name, which is then the channel."),
            "value": lazy("For example /sensor/temperature. Leave empty if the message is just the number."),
            "at": lazy("With its UTC offset. Leave empty to use the time of arrival."),
            "channel": lazy("Leave empty for the name in the topic, or 1."),
            "each": lazy("If a message holds several values. The three fields above are then looked up in each of them."),
        }

    def __init__(self, *args: Any, over_broker: bool, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        if not over_broker:
            del self.fields["topic"], self.fields["sample_topic"]
        for name in self.fields:
            self.fields[name].widget.attrs["autocomplete"] = "off"

    def clean(self) -> dict[str, Any]:
        """Validate the fields together."""
        data = super().clean() or {}
        for name, check in [("topic", check_topic), *((name, check_pointer) for name in ("value", "at", "channel", "each"))]:
            if not data.get(name):
                continue
            try:
                data[name] = check(data[name].strip())
            except ValueError as refusal:
                self.add_error(name, forms.ValidationError(str(refusal), code=name))
        device = self.instance.device
        topic = data.get("topic", "")
        if topic and "topic" not in self.errors and belongs_elsewhere(topic, device.garden):
            text = _("Another garden on this computer uses topics that begin with {root}/. Begin with a name of your own.")
            self.add_error("topic", forms.ValidationError(text.format(root=root_of(topic)), code="elsewhere"))
        if device.mappings.filter(topic=data.get("topic", "")).exists():
            self.add_error(
                "topic" if "topic" in self.fields else None,
                forms.ValidationError(
                    _("A format for these messages is already listed below. Remove that one first."), code="twice"
                ),
            )
        if device.mappings.count() >= MOST_MAPPINGS:
            self.add_error(
                None, forms.ValidationError(_("A logger can have at most {n} message formats.").format(n=MOST_MAPPINGS))
            )
        return data

    @property
    def shape(self) -> Shape:
        """Return the mapping as typed."""
        return Shape(**{name: self.cleaned_data[name] for name in ("each", "value", "at", "channel")})

    def tried(self) -> list[Sent]:
        """Return the values in the trial message. Raises Unreadable."""
        pattern, topic = self.cleaned_data.get("topic", ""), self.cleaned_data.get("sample_topic", "")
        named = channel_in(topic, pattern) if pattern and topic else ""
        return values_of(self.shape, self.cleaned_data["sample"].encode(), named)


class ProbeForm(forms.Form):
    """Position of a channel."""

    channel = forms.CharField(
        label=lazy("Channel"), max_length=40, initial="1", help_text=lazy("As the device calls it; 1 if it has only one.")
    )
    place = forms.ChoiceField(
        label=lazy("Place or room"), help_text=lazy("A probe in a room measures the air for all trays there.")
    )
    depth = TypedNumber(label=lazy("Depth"), required=False)
    in_air = forms.BooleanField(label=lazy("It measures the air among the plants"), required=False)

    def __init__(self, *args: Any, garden: Garden, units: Units, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        places, rooms = garden.places.all(), garden.rooms.filter(removed_at__isnull=True).order_by("name")
        self.choosable = {str(place.pk): place for place in places} | {f"{IN_ROOM}{room.pk}": room for room in rooms}
        choice = cast(forms.ChoiceField, self.fields["place"])
        choice.choices = [("", "---------"), *((key, target.name) for key, target in self.choosable.items())]
        parse_with(self.fields["depth"], lambda text: parse_depth(text, units))
        self.fields["depth"].label = _("Depth ({length})").format(length=units.length)
        self.fields["depth"].help_text = _("Leave empty for the place’s seed depth.")

    def clean_channel(self) -> str:
        """Accept names that fit into an address."""
        try:
            return channel_name(self.cleaned_data["channel"].strip())
        except ValueError as refusal:
            raise forms.ValidationError(str(refusal), code="channel") from refusal

    @property
    def where(self) -> Place | Room:
        """Return the place or room."""
        return self.choosable[self.cleaned_data["place"]]

    @property
    def depth_m(self) -> float:
        """Return the typed depth or the place's own [m]."""
        typed, where = self.cleaned_data["depth"], self.where
        if isinstance(where, Room):
            return 0.0
        return where.seed_depth_m if typed is None else round(typed, 4)
