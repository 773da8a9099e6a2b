"""Heat tests, a hotbed's diary, what a sill bears, potatoes: what is typed, told and refused."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.bench.pages.diary import sunk_m
from cloche.apps.forecasts.inputs import build_inputs, core_readings
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatTest, Hotbed, HotbedFill, HotbedNote, Place
from cloche_engine.results import LightOutlook
from tests.apps.bench.benches import TODAY, heated, lit, make_tray, sown
from tests.apps.bench.test_bench import get, post
from tests.conftest import NOW

TEST = {"on": TODAY.isoformat(), "minutes": "95"} | {f"spot_{n}": "" for n in range(1, 10)}


@pytest.fixture
def heap(garden: Garden) -> Place:
    place = make_tray(garden, "Heap", 26.0, kind="hotbed")
    Hotbed.objects.create(place=place, filled_on=TODAY - timedelta(days=12), depth_m=0.6)
    return place


def test_a_test_run_is_written_down_and_drawn_with_what_would_even_it_out(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    typed = TEST | {"spot_1": "18", "spot_5": "24.5", "spot_9": "20"}
    page = post(signed_in, garden, "heat_test", tray.pk, **typed)
    assert HeatTest.objects.get().spots == [18.0, None, None, None, 24.5, None, None, None, 20.0]
    assert "reached its set-point after 95 minutes" in page
    assert "The warmest and coldest spots differ by 6°." in page
    assert "or so of moist sand or vermiculite" in page
    assert page.count('class="spot"') == 9
    post(signed_in, garden, "remove_test", tray.pk, HeatTest.objects.get().pk)
    assert not HeatTest.objects.exists()


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"minutes": ""}, "Enter the minutes"),
        ({"spot_3": "warm"}, "is not a number"),
        ({"on": "2026-04-23"}, "in the future"),
        ({"minutes": "-4"}, "greater than or equal to 0"),
    ],
)
def test_a_test_that_says_nothing_is_refused(signed_in: Client, garden: Garden, typed: dict[str, str], said: str) -> None:
    tray = make_tray(garden)
    response = signed_in.post(reverse("heat_test", args=[garden.pk, tray.pk]), TEST | typed)
    assert response.status_code == 422
    assert said in response.content.decode()
    assert not HeatTest.objects.exists()


def test_a_hotbeds_diary_tells_flush_sinking_and_fills_in_order(signed_in: Client, garden: Garden, heap: Place) -> None:
    early, late = ((TODAY - timedelta(days=d)).isoformat() for d in (7, 1))
    page = post(signed_in, garden, "diary", heap.pk, on=early, core="58", height="", note="steams")
    assert "Core 58°, steams" in page
    page = post(signed_in, garden, "diary", heap.pk, on=late, core="36", height="43", note="")
    assert "has sunk by 17 cm in 12 days. Top it up" in page
    assert page.index("Filled:") < page.index("Core 58°, steams") < page.index("Core 36°, 43 cm high")
    fill = {"on": TODAY.isoformat(), "material": "hay", "depth": "20", "moist": "moist", "trodden": "loose"}
    page = post(signed_in, garden, "diary", heap.pk, **fill)
    assert "Topped up: 20 cm of hay and dung, loose" in page
    # The engine is told of it.
    ((build, on),) = build_inputs(Place.objects.get(pk=heap.pk), []).fills
    assert (build.material, build.depth_m, build.length_m, on) == ("hay", 0.2, 2.0, TODAY)
    for kind, row in (("fill", HotbedFill.objects.get()), ("note", HotbedNote.objects.first())):
        post(signed_in, garden, "remove_line", heap.pk, kind, row.pk)  # type: ignore[union-attr]
    assert (HotbedFill.objects.count(), HotbedNote.objects.count()) == (0, 1)
    heap.refresh_from_db()
    # Two cores and a filling written, a filling and a core removed: each teaches the forecast.
    assert heap.input_revision == 5


def test_a_heap_in_its_first_flush_is_not_sown_into_by_mistake(signed_in: Client, garden: Garden, heap: Place) -> None:
    page = post(signed_in, garden, "diary", heap.pk, on=TODAY.isoformat(), core="58", height="", note="")
    assert "in its first hot phase, with 58° at the core. Do not sow" in page
    # The page of the hotbed gives the same advice.
    heated = get(signed_in, garden, "hotbed", heap.pk)
    assert "in its first hot phase, with 58° at the core. Do not sow" in heated
    assert "can be planted now" not in heated
    typed = {"place": heap.pk, "crop_key": "lettuce", "sown_on": TODAY.isoformat()}
    refused = signed_in.post(reverse("new_sowing", args=[garden.pk]), typed)
    assert refused.status_code == 422
    assert "seed in it would die" in refused.content.decode()
    assert "Sow into it all the same" in refused.content.decode()
    tray = make_tray(garden)
    assert signed_in.post(reverse("new_sowing", args=[garden.pk]), typed | {"place": tray.pk}).status_code == 302
    assert signed_in.post(reverse("new_sowing", args=[garden.pk]), typed | {"anyway": "on"}).status_code == 302
    assert heap.sowings.count() == 1


def test_sinking_is_counted_from_the_last_filling(heap: Place) -> None:
    bed = Hotbed.objects.get(place=heap)
    heap.hotbed_notes.create(on=TODAY - timedelta(days=6), height_m=0.45)
    heap.hotbed_fills.create(on=TODAY - timedelta(days=5), depth_m=0.2)
    heap.hotbed_notes.create(on=TODAY, height_m=0.6)
    assert sunk_m(bed, list(heap.hotbed_notes.all()), list(heap.hotbed_fills.all())) == pytest.approx((0.05, 0.65))


def test_core_temperatures_teach_the_forecast_at_the_depth_of_the_heat(heap: Place) -> None:
    heap.hotbed_notes.create(on=TODAY, core_c=58.0)
    heap.hotbed_notes.create(on=TODAY, height_m=0.5)
    since = NOW - timedelta(days=20)
    ((number, at, depth_m, core_c),) = core_readings(heap, since)
    assert (number < 0, at.hour, depth_m, core_c) == (True, 12, pytest.approx(0.15 + 0.6 / 4), 58.0)
    assert core_readings(heap, NOW + timedelta(days=2)) == []


def test_a_heap_without_earth_is_no_place_to_sow(garden: Garden, heap: Place) -> None:
    heap.refresh_from_db()
    assert build_inputs(heap, []).crops
    Hotbed.objects.filter(place=heap).update(soil_m=0.0)
    assert build_inputs(Place.objects.get(pk=heap.pk), []).crops == ()


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"core": "", "height": "", "note": ""}, "Enter a core temperature"),
        ({"core": "140"}, "from -10° to 90°"),
        ({"on": "2026-05-01", "core": "40"}, "in the future"),
        ({"material": "hay", "depth": "900", "moist": "moist", "trodden": "firm"}, "from 5 cm to 200 cm"),
    ],
)
def test_what_a_diary_cannot_hold_is_said(
    signed_in: Client, garden: Garden, heap: Place, typed: dict[str, str], said: str
) -> None:
    page = post(signed_in, garden, "diary", heap.pk, **({"on": TODAY.isoformat()} | typed))
    assert said in page.replace("−", "-")
    assert not HotbedNote.objects.exists()
    assert not HotbedFill.objects.exists()


def test_only_a_hotbed_has_a_diary(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    assert signed_in.get(reverse("diary", args=[garden.pk, tray.pk])).status_code == 404


def test_a_sill_tells_from_when_its_light_is_enough_and_what_the_schools_do_before(signed_in: Client, garden: Garden) -> None:
    weeks = [2.0 + i / 2 for i in range(26)]
    light = LightOutlook(lit(2.0).window, lit(2.0).lamp, weeks, 20)
    tray = make_tray(garden, light=light, around_c=14.0)
    page = get(signed_in, garden, "tray", tray.pk)
    # 12 °C wants 5 mol: the seventh week; 17 °C of a tender crop the same.
    assert "Hardy seedlings kept near 12° stay stocky here from about 3 June." in page
    assert "Days are longer than ten hours again from 12 May" in page
    assert "use a lamp" in page
    dark = LightOutlook(lit(0.5).window, lit(0.5).lamp, [0.5] * 26, 0)
    page = get(signed_in, garden, "tray", make_tray(garden, "Dark", light=dark).pk)
    assert "only with more light" in page
    assert "ten hours" not in page


def test_water_and_growth_are_told_where_they_matter(signed_in: Client, garden: Garden) -> None:
    garden.price_kwh = 0.4
    garden.save()
    tray = make_tray(garden, "Cable", 14.0, heat=heated(without_c=6.0), around_c=8.0)
    tray.heat_periods.create(source="cable", first=TODAY)
    sown(tray, "lettuce", 30, 20)
    page = get(signed_in, garden, "tray", tray.pk)
    assert "A litre of water at 8° on a tray cools its roots by 2°" in page
    assert "water at 20° hardly" in page
    assert "lettuces grow as much as in" in page
    with_heat, without = (float(part.split()[-1]) for part in page.split("lettuces grow")[1].split(" of their best")[0:1] * 2)
    assert with_heat == without
    assert "2.69 kWh, costing 1.08" in page
    cold = make_tray(garden, "Cold", 9.0)
    assert "A litre of water at 8° hardly cools" in get(signed_in, garden, "tray", cold.pk)


def test_water_of_any_temperature_is_told_by_what_it_does_to_the_roots(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, "Mat", 24.0)
    assert "A litre of water at 0° on a tray cools its roots by" in get(signed_in, garden, "tray", tray.pk, water="0")
    assert "A litre of water at 30° hardly cools the roots" in get(signed_in, garden, "tray", tray.pk, water="30")
    refused = get(signed_in, garden, "tray", tray.pk, water="48")
    assert "Enter a value from 0° to 45°." in refused
    assert "Wet the mix right through before the heat goes on" in refused


def test_leggy_seedlings_are_sent_to_the_place_where_they_stay_stocky(signed_in: Client, garden: Garden) -> None:
    """Common practice, no source: cool-season seedlings on a warm mat in weak light grow leggy."""
    mat = make_tray(garden, "Mat", 24.0, kind="mat", heat=heated(), light=lit(window=3.0), around_c=20.0)
    make_tray(garden, "Porch", 13.0, light=lit(window=12.0), around_c=12.0)
    sown(mat, "leek", 20, 10)
    page = get(signed_in, garden, "tray", mat.pk)
    assert "Leeks will grow leggy" in page
    assert "Move the leeks to Porch, where they would stay stocky." in page


def test_potatoes_are_told_from_chitting_to_lifting(signed_in: Client, garden: Garden) -> None:
    make_tray(garden, "Mat", 24.0)
    cool = make_tray(garden, "Porch", 10.0)
    page = get(signed_in, garden, "potatoes")
    # The coolest place is offered first; 35 days there are ready in time.
    assert f'value="{cool.pk}" selected' in page
    assert "First early potatoes will have short, stout sprouts about 26 May, ready for planting on 27 May." in page
    assert "Ready to lift from 5 August to 19 August" in page
    assert "has room for 3 seed potatoes" in page
    typed = {"place": Place.objects.get(name="Mat").pk, "group": "potato_maincrop"}
    assert "they will be long and brittle" in get(signed_in, garden, "potatoes", **typed)
    assert signed_in.get(reverse("potatoes", args=[garden.pk]), {"litres": "2"}).status_code == 422
    frozen = make_tray(garden, "Shed", 0.2)
    page = get(signed_in, garden, "potatoes", place=frozen.pk)
    assert "too cold for first early potatoes to sprout" in page
    assert "may freeze that night" in page


def test_potatoes_without_any_place_ask_for_one(signed_in: Client, garden: Garden) -> None:
    response = signed_in.get(reverse("potatoes", args=[garden.pk]))
    assert response.status_code == 422
    assert "Chitting to lifting" in response.content.decode()
