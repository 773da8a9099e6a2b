"""The bench as it stands, a tray's heat and light, rooms and rules: what pages say and what forms take."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest
from django.core.exceptions import ValidationError
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import HeatPeriod, Lamp, Place, Room, RoomAir
from cloche.bridge.values.units import Units
from cloche_engine.queries import HeatGain
from cloche_engine.results import CandidateDays, RibbonDays
from tests.apps.bench.benches import AHEAD_D, BEHIND_D, TODAY, heated, lit, make_tray, sown, store
from tests.conftest import NOW
from tests.factories import make_person


def get(client: Client, garden: Garden, name: str, *args: object, **query: object) -> str:
    return client.get(reverse(name, args=[garden.pk, *args]), query).content.decode()


def post(client: Client, garden: Garden, view: str, *args: object, **typed: object) -> str:
    return client.post(reverse(view, args=[garden.pk, *args]), typed, follow=True).content.decode()


def heat(**typed: object) -> dict[str, object]:
    usual = {"source": "mat", "first": TODAY.isoformat(), "control": "always", "probe": "roots", "filling": "sharp_sand"}
    return usual | typed


def test_an_empty_bench_says_what_belongs_there(signed_in: Client, garden: Garden) -> None:
    page = get(signed_in, garden, "bench")
    assert "What are you raising under cover?" in page
    assert "Add your first tray" in page


def test_the_air_about_a_tray_is_that_of_its_room_until_a_cover_lies_over_it(signed_in: Client, garden: Garden) -> None:
    room = Room.objects.create(garden=garden, name="Kitchen", kind="living")
    tray = make_tray(garden, room=room)
    hours = [18.0] * 24 * (BEHIND_D + AHEAD_D)
    store(tray, 18.0, inside_low_c=hours, inside_mid_c=hours, inside_high_c=hours)
    page = get(signed_in, garden, "place", tray.pk)
    assert "Air in the room, and outside" in page
    assert "Air under the cover" not in page
    tray.cover_periods.create(cover="lid", first=TODAY)
    assert "Air under the cover, and outside" in get(signed_in, garden, "place", tray.pk)


def test_the_bench_shows_each_tray_in_its_room_with_its_roots_its_heat_and_its_light(signed_in: Client, garden: Garden) -> None:
    room = Room.objects.create(garden=garden, name="Kitchen", kind="living")
    tray = make_tray(garden, "Sill", 21.5, heat=heated(), light=lit(window=4.0), around_c=20.0, room=room)
    tray.heat_periods.create(source="mat", first=TODAY, watts=20, control="thermostat", start_c=21, stop_c=23)
    sown(tray, "leek", 20, 10)
    page = get(signed_in, garden, "bench")
    assert "Kitchen" in page
    assert "21.5°" in page
    assert "Heat mat, 20 W, on below 21°, off above 23°." in page
    assert "on for 40% of the day: 0.19 kWh a day" in page
    assert "Light: 4.0 mol/m² of daylight a day." in page
    # 20 °C and four moles: cool-season seedlings stretch.
    assert "Leeks will grow leggy" in page
    assert "Sill: Take leeks off the heat and move them to a bright place near 12°: half of them are up." in page
    assert 'class="seedling"' in page


def test_what_is_known_of_the_price_is_told_beside_the_energy(signed_in: Client, garden: Garden) -> None:
    garden.price_kwh = 0.5
    garden.save()
    tray = make_tray(garden, heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY, watts=20)
    assert "0.19 kWh, costing 0.10 a day" in get(signed_in, garden, "bench")


def test_both_schools_of_when_heat_goes_off_are_kept(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY)
    sown(tray, "pepper", 12, 0)
    assert "half of them are up" in get(signed_in, garden, "bench")
    post(signed_in, garden, "bench_rules", heat_off_rule="all", bring_in="-2", price="0.31")
    garden.refresh_from_db()
    assert (garden.heat_off_rule, garden.bring_in_c, garden.price_kwh) == ("all", -2.0, 0.31)
    # Three days more until all are up, and four after that.
    page = get(signed_in, garden, "bench")
    assert "all have been up for a few days" in page
    assert "29 April" in page


def test_a_weak_heater_is_told_and_a_probe_in_the_air_is_warned_of(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, heat=heated(duty=1.0, holds=0.2))
    tray.heat_periods.create(source="cable", first=TODAY, control="thermostat", probe="air")
    page = get(signed_in, garden, "tray", tray.pk)
    assert "too weak to hold 21°" in page
    assert "Its probe hangs in the air" in page
    assert "without heat, 17°" in page


def test_a_mixed_tray_tells_who_leaves_the_heat_when(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY)
    sown(tray, "pepper", 6, -6)
    sown(tray, "tomato", 6, -1)
    page = get(signed_in, garden, "tray", tray.pk)
    assert page.index("Tomatoes: 23 April") < page.index("Peppers: 28 April")


def test_heat_is_written_down_changed_turned_down_and_switched_off(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    typed = heat(watts="17,5", control="thermostat", start="20", stop="23", length="50", width="25")
    assert "Heat mat, 18 W" in post(signed_in, garden, "new_heat", tray.pk, **typed)
    period = HeatPeriod.objects.get()
    assert (period.watts, period.start_c, period.length_m) == (17.5, 20.0, 0.5)
    HeatPeriod.objects.update(first=TODAY - timedelta(days=20))
    post(signed_in, garden, "turn_down", tray.pk, period.pk)
    before, after = HeatPeriod.objects.order_by("first")
    assert (before.last, before.start_c) == (TODAY - timedelta(days=1), 20.0)
    assert (after.first, after.last, after.start_c, after.stop_c) == (TODAY, None, 18.0, 21.0)
    # Turned down twice on one day, it is one period.
    post(signed_in, garden, "turn_down", tray.pk, after.pk)
    after.refresh_from_db()
    assert (HeatPeriod.objects.count(), after.start_c) == (2, 16.0)
    post(signed_in, garden, "heat_off", tray.pk, after.pk)
    assert list(HeatPeriod.objects.values_list("last", flat=True)) == [TODAY - timedelta(days=1)]
    post(signed_in, garden, "remove_heat", tray.pk, before.pk)
    assert not HeatPeriod.objects.exists()
    tray.refresh_from_db()
    assert tray.input_revision == 5


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"control": "timer"}, "Enter the hours when it is on"),
        ({"control": "timer", "spans": "nine to five"}, "is not a period"),
        ({"control": "thermostat", "start": "20", "stop": "20.2"}, "at least half a degree above"),
        ({"watts": "0"}, "greater than or equal to 0.5"),
        ({"watts": "lots"}, "is not a number"),
        ({"cable_m": "6"}, "Enter both the length of the cable"),
        ({"last": "2026-04-01"}, "must not be before the first"),
        ({"start": "400"}, "is outside"),
    ],
)
def test_what_heat_cannot_be_is_said_at_its_field_and_nothing_is_kept(
    signed_in: Client, garden: Garden, typed: dict[str, Any], said: str
) -> None:
    tray = make_tray(garden)
    response = signed_in.post(reverse("new_heat", args=[garden.pk, tray.pk]), heat(**typed))
    assert response.status_code == 422
    assert said in response.content.decode()
    assert not HeatPeriod.objects.exists()


def test_degrees_and_lengths_are_typed_in_ones_own_units(client: Client, garden: Garden) -> None:
    from cloche.apps.gardens.models import Membership

    southern = make_person("fern", temperature_unit="F", length_unit="in")
    Membership.objects.create(garden=garden, user=southern, role="grower")
    client.force_login(southern, backend="allauth.account.auth_backends.AuthenticationBackend")
    tray = make_tray(garden)
    typed = heat(control="thermostat", start="68", stop="75", lift="14", length="20", width="10")
    post(client, garden, "new_heat", tray.pk, **typed)
    period = HeatPeriod.objects.get()
    assert (round(period.start_c, 2), round(period.stop_c, 2)) == (20.0, 23.89)
    assert period.lift_k == pytest.approx(14 / 1.8)
    assert period.length_m == pytest.approx(0.508)
    form = get(client, garden, "edit_heat", tray.pk, period.pk)
    assert 'value="68"' in form
    assert 'value="14.0"' in form


def test_a_lamp_is_written_down_and_taken_away(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    typed = {"kind": "led", "first": TODAY.isoformat(), "watts": "40", "length": "60", "width": "50", "away": "10"}
    page = post(signed_in, garden, "new_lamp", tray.pk, **typed, spans="5:30–9, 16–21")
    assert "LED, 40 W, lit 5:30–9, 16–21" in page
    lamp = Lamp.objects.get()
    assert lamp.spans == [[5.5, 9.0], [16.0, 21.0]]
    refused = signed_in.post(reverse("edit_lamp", args=[garden.pk, tray.pk, lamp.pk]), typed | {"spans": "dusk"})
    assert refused.status_code == 422
    post(signed_in, garden, "lamp_off", tray.pk, lamp.pk)
    assert not Lamp.objects.exists()


def test_a_tray_stands_in_a_room_by_a_window(signed_in: Client, garden: Garden) -> None:
    tray, room = make_tray(garden), Room.objects.create(garden=garden, name="Kitchen")
    other = Room.objects.create(garden=Garden.objects.create(name="x", latitude_deg=1, longitude_deg=1), name="Theirs")
    typed = {"window_aspect_deg": "225.0", "window_shade": "0.6", "window_away_m": "0.4"}
    post(signed_in, garden, "stands", tray.pk, room=room.pk, **typed)
    tray.refresh_from_db()
    assert (tray.room, tray.window_aspect_deg, tray.window_shade) == (room, 225.0, 0.6)
    refused = signed_in.post(reverse("stands", args=[garden.pk, tray.pk]), {"room": other.pk, **typed})
    assert refused.status_code == 422
    tray.refresh_from_db()
    assert tray.room == room


def test_rooms_are_listed_read_and_taken_off(signed_in: Client, garden: Garden) -> None:
    page = post(signed_in, garden, "rooms", name="Porch", kind="garage", night_c="4", day_c="9")
    assert "4° at night to 9° by day" in page
    room = Room.objects.get()
    tray = make_tray(garden, room=room)
    read = {"what": "room_low", "temperature": "3.5", "day": TODAY.isoformat(), "hour": "07:30"}
    assert "3.5° (lowest since reset)" in post(signed_in, garden, "add_air", room.pk, **read)
    air = RoomAir.objects.get()
    assert air.at - air.since == timedelta(days=1)
    # The same moment read again replaces it.
    post(signed_in, garden, "add_air", room.pk, **(read | {"temperature": "4"}))
    assert list(RoomAir.objects.values_list("temperature_c", flat=True)) == [4.0]
    tray.refresh_from_db()
    assert tray.input_revision == 2
    post(signed_in, garden, "remove_room", room.pk)
    tray.refresh_from_db()
    assert tray.room is None
    assert "is back" in post(signed_in, garden, "put_back_room", room.pk)


@pytest.mark.parametrize(
    ("name", "typed", "said"),
    [
        ("rooms", {"name": "Porch", "kind": "cool"}, "already a room called Porch"),
        ("rooms", {"name": "Shed", "kind": "cool", "night_c": "9"}, "Enter both the night"),
        ("rooms", {"name": "Shed", "kind": "cool", "night_c": "19", "day_c": "12"}, "must not be below the night"),
    ],
)
def test_what_a_room_cannot_be_is_said(signed_in: Client, garden: Garden, name: str, typed: dict[str, str], said: str) -> None:
    Room.objects.create(garden=garden, name="Porch")
    assert said in post(signed_in, garden, name, **typed)
    assert Room.objects.count() == 1


def test_air_that_is_still_to_come_or_long_past_is_refused(signed_in: Client, garden: Garden) -> None:
    room = Room.objects.create(garden=garden, name="Porch")
    read = {"what": "room", "temperature": "12", "hour": "23:30"}
    assert "in the future" in post(signed_in, garden, "add_air", room.pk, day=TODAY.isoformat(), **read)
    assert "two months ago" in post(signed_in, garden, "add_air", room.pk, day="2026-01-02", **read)
    assert not RoomAir.objects.exists()


def gain(way: str, half: float | None, share: float = 0.9, kwh: float | None = 0.0, set_c: float | None = None) -> HeatGain:
    most = None if half is None else half + 4
    days = [None] * 3 if half is None else [half - 2, half, half + 3]
    return HeatGain(way, set_c, (17.0, 18.0, 19.0), days, most, share, kwh, kwh and 2 * kwh, None)


@pytest.mark.parametrize(
    ("crop_key", "gains", "said"),
    [
        (
            "pepper",
            [gain("nothing", 19.0, 0.7), gain("mat", 8.0, kwh=3.3)],
            "11 days sooner. In the end 90% come up instead of 70%",
        ),
        ("kale", [gain("nothing", 9.0), gain("lid", 8.0), gain("mat", 4.0, kwh=2.0)], "On heat they would grow leggy"),
        ("cucumber", [gain("nothing", None, 0.0), gain("mat", 4.0, kwh=2.0)], "Cucumbers need heat: with a mat always on"),
        (
            "tomato",
            [gain("nothing", 8.0, 0.7), gain("mat", 6.0, 0.84, kwh=2.0)],
            "70% in the end. With a mat always on",
        ),
        ("cucumber", [gain("nothing", None, 0.0), gain("mat", None, 0.0, None)], "would not come up here"),
        ("tomato", [gain("nothing", 9.0), gain("mat", 6.0, kwh=2.0)], "Tomatoes need no heat here: half are up after 9 days"),
    ],
)
def test_the_least_heat_that_is_worth_it_is_advised(crop_key: str, gains: list[HeatGain], said: str) -> None:
    from cloche.apps.bench.pages.gains import _headline, best_of
    from cloche.bridge.services import crops

    crop = crops.crop(crop_key)
    assert said in _headline(crop, gains, best_of(crop, gains), Units())


def test_what_heat_would_do_waits_for_a_place_that_is_not_worked_out(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    page = get(signed_in, garden, "heat_gains", place=tray.pk, crop="pepper")
    assert "It will appear here" in page
    assert "no heat" not in page.lower().split("<main")[1].split("caution")[0]
    assert "Add a tray first" in get(signed_in, make_other(signed_in, garden), "heat_gains")


def make_other(client: Client, garden: Garden) -> Garden:
    from tests.factories import make_garden

    return make_garden(garden.memberships.get().user, "Second")


def test_a_place_asked_about_in_another_garden_is_refused(signed_in: Client, garden: Garden) -> None:
    make_tray(garden)
    stranger = make_tray(make_other(signed_in, garden), "Theirs")
    response = signed_in.get(reverse("heat_gains", args=[garden.pk]), {"place": stranger.pk, "crop": "pepper"})
    assert response.status_code == 422


def test_a_builder_draws_what_is_typed_and_says_what_cannot_be(signed_in: Client, garden: Garden) -> None:
    page = get(signed_in, garden, "builder")
    assert "It holds 18° in a room at 5°" in page
    assert 'class="wires"' in page
    # 1.22 by 0.61 m by 7 cm: 52 litres.
    assert "52 litres: 3 bags" in page
    assert "80 W, 0.35 A" in page
    typed = dict(BENCH, cable_m="2")
    assert "too short to go along the bench and back" in get(signed_in, garden, "builder", **typed)
    typed = dict(BENCH, cable_m="60")
    assert "nearer than 5 cm" in get(signed_in, garden, "builder", **typed)
    typed = dict(BENCH, cable_w_m="2")
    assert "cannot hold 18°" in get(signed_in, garden, "builder", **typed)
    response = signed_in.get(reverse("builder", args=[garden.pk]), dict(BENCH, length="9999"))
    assert response.status_code == 422


BENCH = {
    "length": "122", "width": "61", "under": "2.5", "over": "7", "filling": "sharp_sand", "wet": "on", "bag": "25",
    "mix": "5", "cable_m": "8", "cable_w_m": "10", "volts": "230", "room": "5", "hold": "18", "lid": "on",
    "tray_length": "38", "tray_width": "24", "cells": "24",
}  # fmt: skip


def test_places_of_all_kinds_have_a_page_of_heat(signed_in: Client, garden: Garden) -> None:
    bed = make_tray(garden, "Bed", 9.0, kind="open")
    assert "9° this week, without heat" in get(signed_in, garden, "tray", bed.pk)
    fresh = Place.objects.create(garden=garden, name="New tray", kind="mat", walking_order=9)
    page = get(signed_in, garden, "tray", fresh.pk)
    assert "Working out the forecast" in page
    assert "assumes the usual one of its kind" in page
    assert NOW.date() == TODAY


@pytest.mark.parametrize(
    ("watts", "cable", "said"),
    [
        (150.0, None, "150 W on 0.0025 m² would be 60,000 W/m²"),
        (None, (20.0, 25.0), "500 W on 0.0025 m² would be 200,000 W/m²"),
        (None, (20.0, None), "both the length of the cable and its watts per metre"),
    ],
)
def test_heat_that_its_area_cannot_take_is_refused(
    garden: Garden, watts: float | None, cable: tuple[float, float | None] | None, said: str
) -> None:
    """In forms and archives alike: both call full_clean."""
    length, per_m = cable or (None, None)
    heat = HeatPeriod(place=make_tray(garden), first=TODAY, watts=watts, cable_m=length, cable_w_m=per_m)
    heat.length_m = heat.width_m = 0.05
    with pytest.raises(ValidationError, match=said):
        heat.full_clean()
    heat.length_m = heat.width_m = 1.0
    heat.cable_w_m = per_m or (25.0 if length else None)
    heat.full_clean()


def test_degrees_that_were_typed_for_a_room_are_shown_again(signed_in: Client, garden: Garden, person: User) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F")
    page = post(signed_in, garden, "rooms", name="Kitchen", kind="living", night_c="63", day_c="70")
    assert "63° at night to 70° by day" in page


def emerges(place: Place, crop_key: str, days: float, share: float = 0.9) -> None:
    """What would come of it there, sown today."""
    CropOutlook.objects.create(
        place=place, crop_key=crop_key, method="direct", windows=[], sow_now=False, main_limit="", half_d=days, share=share,
        ribbon=RibbonDays([], [], []), days=CandidateDays([], [], [], "", "", "", [], ""),
    )  # fmt: skip


def test_places_for_raising_are_compared_for_a_crop(signed_in: Client, garden: Garden) -> None:
    mat = make_tray(garden, "Mat", 22.0, heat=heated(), light=lit(window=2.0), around_c=20.0)
    house = make_tray(garden, "House shelf", 15.0, light=lit(window=14.0), around_c=15.0, within="greenhouse")
    emerges(mat, "tomato", 6.0)
    emerges(house, "tomato", 21.0)
    page = get(signed_in, garden, "where_to_raise", crop="tomato")
    assert "Tomatoes sown today are up soonest in Mat: half of them in about 6 days." in page
    assert "Once they are up, they grow stockiest in House shelf." in page
    assert page.index("Mat</b>") < page.index("House shelf</b>")
    assert "leggy" in page
    assert "1.15 kWh" in page
    # Bright, but no tomato grows there.
    store(house, 6.0, around_c=6.0, light=lit(window=14.0))
    cold = get(signed_in, garden, "where_to_raise", crop="tomato")
    assert "too cold for them" in cold
    assert "stockiest in House shelf" not in cold
    refused = signed_in.get(reverse("where_to_raise", args=[garden.pk]), {"crop": "unicorn"})
    assert refused.status_code == 422


def test_a_tray_can_be_put_into_a_greenhouse_where_it_stands(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    typed = {"within": "greenhouse", "room": "", "window_aspect_deg": "", "window_shade": "0.0", "window_away_m": "0.1"}
    post(signed_in, garden, "stands", tray.pk, **typed)
    tray.refresh_from_db()
    assert tray.within == "greenhouse"
    assert "An unheated greenhouse" in get(signed_in, garden, "bench")
