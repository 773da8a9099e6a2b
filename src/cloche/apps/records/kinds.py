"""The kinds of record whose history is kept, and how each is told and brought back."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from django.db.models import Model
from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import note_change_at, note_change_in
from cloche.apps.places.models import (
    Cover,
    CoverPeriod,
    HeatPeriod,
    HeatTest,
    Hotbed,
    HotbedFill,
    HotbedNote,
    Lamp,
    Operation,
    Place,
    Room,
    RoomAir,
)
from cloche.apps.places.pages import place_log
from cloche.apps.places.texts import work_name
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.services import crops
from cloche.bridge.values.spans import spans_text
from cloche.bridge.values.units import Units

Show = Callable[[Any, Units], str]


@dataclass(frozen=True)
class Kind:
    """key: in addresses. inside: the way from its history to the garden. what: its name in words. fields: fields by name, with
    their words and how a value is written. changed: what has to be worked out again."""

    key: str
    model: type[Model]
    inside: str
    what: Callable[[Any, Units], str]
    fields: Mapping[str, tuple[str, Show]]
    changed: Callable[[Any], None]


def _at_place(row: Any) -> None:
    place = Place.everything.filter(pk=row.place_id).first()
    if place is not None:
        note_change_at(place)


def _temperature(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.temperature_text(value)


def _length(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.length_text(value)


def _plain(value: Any, units: Units) -> str:
    return _("none") if value in (None, "") else f"{value:g}" if isinstance(value, float) else str(value)


def _day(value: Any, units: Units) -> str:
    return words.day(value) if value else _("none")


def _yes(value: Any, units: Units) -> str:
    return _("yes") if value else _("no")


def _instant(row: Any, at: Any) -> str:
    local = at.astimezone(row.place.garden.timezone)
    return f"{words.day(local.date())} {words.clock(local)}"


def _reading(row: Any, units: Units) -> str:
    return _("Reading in {name}, {length}, {instant}").format(
        name=row.place.name, length=units.length_text(row.depth_m), instant=_instant(row, row.taken_at)
    )


def _crop(row: Any) -> str:
    return crops.crop(row.crop_key).name


REMOVED: dict[str, tuple[str, Show]] = {"removed_at": ("removed", _yes)}
KINDS = {
    kind.key: kind
    for kind in (
        Kind(
            "reading",
            Reading,
            "place__garden",
            _reading,
            {
                "temperature_c": ("temperature", _temperature),
                "depth_m": ("depth", _length),
                "taken_at": ("time", lambda v, u: _("{v} UTC").format(v=f"{v:%Y-%m-%d %H:%M}")),
                "note": ("note", _plain),
                "review": ("review", _plain),
            }
            | REMOVED,
            _at_place,
        ),
        Kind(
            "weather",
            DailyWeather,
            "garden",
            lambda row, units: _("Weather of {day}").format(day=words.day(row.day)),
            {
                "low_c": ("low", _temperature),
                "high_c": ("high", _temperature),
                "rain_mm": (lazy("rain"), lambda v, u: "" if v is None else u.rain_text(v)),
                "sky": ("sky", _plain),
                "wind_m_s": (lazy("wind"), lambda v, u: "" if v is None else u.wind_text(v)),
                "snow_m": ("snow", _length),
            },
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "place",
            Place,
            "garden",
            lambda row, units: row.name,
            {
                "name": ("name", _plain),
                "kind": ("kind", _plain),
                "seed_depth_m": (lazy("seed depth"), _length),
                "texture": ("soil", _plain),
                "slope_deg": ("slope, °", _plain),
                "aspect_deg": (lazy("slopes to, °"), _plain),
                "shaded_from_h": (lazy("shaded from"), _plain),
                "shaded_to_h": (lazy("shaded to"), _plain),
                "width_m": (lazy("width, m"), _plain),
                "within": (lazy("stands in"), _plain),
                "window_aspect_deg": (lazy("window to, °"), _plain),
                "window_shade": (lazy("window shaded"), _plain),
                "window_away_m": (lazy("from the window"), _length),
            }
            | REMOVED,
            lambda row: note_change_at(Place.everything.get(pk=row.pk)),
        ),
        Kind(
            "cover",
            CoverPeriod,
            "place__garden",
            lambda row, units: _("{sentence} over {name}").format(
                sentence=words.sentence(place_log.cover_name(row.cover)), name=row.place.name
            ),
            {
                "first": ("from", _day),
                "last": ("to", _day),
                "opens": ("airing", _plain),
                "above_c": (lazy("opened above"), _temperature),
                "from_h": (lazy("opened from"), _plain),
                "to_h": (lazy("opened to"), _plain),
                "opening": (lazy("how far"), _plain),
                "ends_capped": (lazy("ends closed"), _yes),
                "blanket": ("blanket", _yes),
            },
            _at_place,
        ),
        Kind(
            "own_cover",
            Cover,
            "garden",
            lambda row, units: _("Your cover {name}").format(name=row.name),
            {
                "name": ("name", _plain),
                "length_m": ("length", _length),
                "width_m": ("width", _length),
                "spread_m": (lazy("edges apart"), _length),
                "purchase_year": (lazy("bought in"), _plain),
                "dirty": ("dirty", _yes),
                "price": ("price", _plain),
            }
            | REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "hotbed",
            Hotbed,
            "place__garden",
            lambda row, units: _("What the hotbed {name} is built of").format(name=row.place.name),
            {
                "material": (lazy("made of"), _plain),
                "depth_m": ("depth", _length),
                "moist": ("moisture", _plain),
                "trodden": ("trodden", _plain),
                "insulated": ("insulated", _yes),
                "filled_on": ("filled", _day),
                "topped_up_on": (lazy("topped up"), _day),
            },
            _at_place,
        ),
        Kind(
            "trial",
            CoverTrial,
            "covered__garden",
            lambda row, units: _("Trial of {name} against {name2}").format(name=row.covered.name, name2=row.bare.name),
            {"begun_on": ("since", _day), "ended_on": ("to", _day), "depth_m": ("depth", _length)},
            lambda row: None,
        ),
        Kind(
            "intention",
            Intention,
            "place__garden",
            lambda row, units: _("{crop} meant for {name}").format(crop=_crop(row), name=row.place.name),
            {"sow_on": ("on", _day), "dropped_at": (lazy("given up"), _yes)},
            lambda row: None,
        ),
        Kind(
            "operation",
            Operation,
            "place__garden",
            lambda row, units: f"{words.sentence(work_name(row.work))}, {row.place.name}, {_instant(row, row.at)}",
            {"work": ("what", _plain), "amount": ("amount", _plain)},
            _at_place,
        ),
        Kind(
            "visit",
            Visit,
            "place__garden",
            lambda row, units: _("Visit to {name}, {instant}").format(name=row.place.name, instant=_instant(row, row.at)),
            {
                "air_c": ("air", _temperature),
                "air_low_c": (lazy("lowest air"), _temperature),
                "air_high_c": (lazy("highest air"), _temperature),
                "moisture": (lazy("by feel"), _plain),
                "snow_m": ("snow", _length),
                "losses": (lazy("what stood, what died"), _plain),
                "note": ("note", _plain),
            }
            | REMOVED,
            _at_place,
        ),
        Kind(
            "sowing",
            Sowing,
            "place__garden",
            lambda row, units: _("{crop} sown in {name}, {day}").format(
                crop=_crop(row), name=row.place.name, day=words.day(row.sown_on)
            ),
            {
                "sown_on": (lazy("sown on"), _day),
                "seeds": ("seeds", _plain),
                "depth_m": ("depth", _length),
                "finished": ("finished", _yes),
            }
            | REMOVED,
            _at_place,
        ),
        Kind(
            "step",
            Step,
            "sowing__place__garden",
            lambda row, units: _("{what}: {crop} in {name}, {day}").format(
                what=words.sentence(str(Step.Kind(row.kind).label)),
                crop=_crop(row.sowing),
                name=row.sowing.place.name,
                day=words.day(row.on),
            ),
            {"on": ("on", _day), "cell_m": (lazy("into cells of"), _length)},
            lambda row: _at_place(row.sowing),
        ),
        Kind(
            "heat",
            HeatPeriod,
            "place__garden",
            lambda row, units: _("{source} in {name}").format(
                source=words.sentence(str(HeatPeriod.Kind(row.source).label)), name=row.place.name
            ),
            {
                "first": ("from", _day),
                "last": ("to", _day),
                "watts": (lazy("watts"), _plain),
                "control": (lazy("switched by"), _plain),
                "start_c": (lazy("on below"), _temperature),
                "stop_c": (lazy("off above"), _temperature),
                "probe": (lazy("its probe"), _plain),
                "lift_k": (lazy("lifts, K"), _plain),
            },
            _at_place,
        ),
        Kind(
            "fill",
            HotbedFill,
            "place__garden",
            lambda row, units: _("Fill of the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"on": ("on", _day), "material": (lazy("made of"), _plain), "depth_m": ("depth", _length)},
            _at_place,
        ),
        Kind(
            "hotbed_note",
            HotbedNote,
            "place__garden",
            lambda row, units: _("Diary of the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"core_c": (lazy("core"), _temperature), "height_m": (lazy("height"), _length), "note": ("note", _plain)},
            lambda row: None,
        ),
        Kind(
            "heat_test",
            HeatTest,
            "place__garden",
            lambda row, units: _("Test of the heater in {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"minutes": (lazy("minutes"), _plain)},
            lambda row: None,
        ),
        Kind(
            "lamp",
            Lamp,
            "place__garden",
            lambda row, units: _("Lamp over {name}").format(name=row.place.name),
            {
                "first": ("from", _day),
                "last": ("to", _day),
                "watts": (lazy("watts"), _plain),
                "away_m": (lazy("height"), _length),
                "spans": (lazy("lit"), lambda v, u: spans_text(v)),
            },
            _at_place,
        ),
        Kind(
            "room",
            Room,
            "garden",
            lambda row, units: _("Room {name}").format(name=row.name),
            {
                "name": ("name", _plain),
                "kind": ("kind", _plain),
                "night_c": (lazy("its nights"), _temperature),
                "day_c": (lazy("its days"), _temperature),
            }
            | REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "room_air",
            RoomAir,
            "room__garden",
            lambda row, units: _("Air in {name}, {day}").format(
                name=row.room.name, day=words.day(row.at.astimezone(row.room.garden.timezone).date())
            ),
            {"temperature_c": ("temperature", _temperature), "what": (lazy("what"), _plain)},
            lambda row: note_change_in(Garden.objects.get(pk=row.room.garden_id)),
        ),
        Kind(
            "count",
            Count,
            "sowing__place__garden",
            lambda row, units: _("Count of {crop} in {name}, {day}").format(
                crop=_crop(row.sowing), name=row.sowing.place.name, day=words.day(row.on)
            ),
            {"up": ("up", _plain)},
            lambda row: _at_place(row.sowing),
        ),
    )
}
