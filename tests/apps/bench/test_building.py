"""A bench from its plan to the checks before the season; what heat costs beside the seed that it saves."""

from __future__ import annotations

from datetime import timedelta

from django.test import Client
from django.urls import reverse

from cloche.apps.bench.pages.gains import Costs, _worth
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import BenchCheck, HeatPeriod, Place
from cloche.bridge.values.units import Units
from cloche_engine.queries import HeatGain
from tests.apps.bench.benches import TODAY, make_tray
from tests.apps.bench.test_bench import BENCH, get, post


def test_cable_is_laid_either_way_and_what_is_left_over_has_its_use(signed_in: Client, garden: Garden) -> None:
    along = get(signed_in, garden, "builder", **BENCH, runs="along")
    across = get(signed_in, garden, "builder", **BENCH, runs="across")
    assert "6 runs" in along
    assert "13 runs" in across
    left = get(signed_in, garden, "builder", **dict(BENCH, cable_m="9"), runs="along")
    assert "of cable left over as another loop along the coldest edge" in left
    assert "Laid across the bench, only" in left


def test_a_planned_bench_becomes_a_place_with_its_cable(signed_in: Client, garden: Garden) -> None:
    page = post(signed_in, garden, "keep_bench", **BENCH, **{"bench-name": "Sand bench", "bench-within": "greenhouse"})
    place = Place.objects.get(name="Sand bench")
    assert (place.kind, place.within) == ("box", "greenhouse")
    cable = place.heat_periods.get()
    assert (cable.cable_m, cable.cable_w_m, cable.over_m, cable.start_c, cable.stop_c) == (8.0, 10.0, 0.07, 17.0, 19.0)
    assert place.cover_periods.get().cover == "lid"
    assert "0 of 9 checks are done" in page
    # A test run needs no forecast.
    assert "Working out the forecast" in page
    post(signed_in, garden, "heat_test", place.pk, on=TODAY.isoformat(), minutes="95", spot_1="18", spot_9="26")
    assert "differ by 8°" in get(signed_in, garden, "tray", place.pk)


def test_a_bench_that_cannot_be_kept_leaves_what_was_typed(signed_in: Client, garden: Garden) -> None:
    make_tray(garden, "Sand bench")
    response = signed_in.post(reverse("keep_bench", args=[garden.pk]), BENCH | {"bench-name": "sand bench", "cable_w_m": "9.5"})
    assert response.status_code == 422
    page = response.content.decode()
    assert "already has a place called sand bench" in page
    assert 'value="9.5"' in page
    strong = signed_in.post(
        reverse("keep_bench", args=[garden.pk]), BENCH | {"bench-name": "Hot", "cable_m": "12.5", "cable_w_m": "40"}
    )
    assert "No heater under plants gives more than" in strong.content.decode()
    assert not Place.objects.filter(name="Hot").exists()


def test_a_tick_is_kept_for_the_season_and_can_be_taken_off(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, kind="mat")
    assert "1 of 9 checks are done" in post(signed_in, garden, "tick_check", tray.pk, "cut_out")
    assert BenchCheck.objects.get().on == TODAY
    assert "0 of 9" in post(signed_in, garden, "tick_check", tray.pk, "cut_out", undo="1")
    tray.bench_checks.create(item="timer", on=TODAY - timedelta(days=330))
    page = get(signed_in, garden, "tray", tray.pk)
    assert "0 of 9" in page
    assert "last done" in page
    assert "checks are done" not in get(signed_in, garden, "tray", make_tray(garden, "Cool sill").pk)
    assert signed_in.post(reverse("tick_check", args=[garden.pk, tray.pk, "nothing"])).status_code == 404


def test_heat_that_is_always_on_has_no_set_point_to_reach(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, kind="mat")
    tray.heat_periods.create(source="mat", first=TODAY, watts=20)
    post(signed_in, garden, "heat_test", tray.pk, on=TODAY.isoformat(), minutes="60")
    page = get(signed_in, garden, "tray", tray.pk)
    assert "as warm as it gets after 60 minutes" in page
    assert "set-point after" not in page
    tray.heat_periods.update(control=HeatPeriod.Control.SELF)
    assert "self-regulating" in get(signed_in, garden, "tray", tray.pk)


def gain(way: str, share: float, kwh: float | None = 0.0, duty: float | None = None) -> HeatGain:
    return HeatGain(way, None, (15.0, 16.0, 17.0), [8.0, 9.0, 10.0], 14.0, share, kwh, kwh, duty)


def test_a_mat_is_weighed_against_the_seed_that_it_saves() -> None:
    plain, mat = gain("lid", 0.5), gain("mat", 0.8, 2.0, 1.0)
    assert _worth([plain, mat], mat, Costs(), 0.3, Units()) == ""
    said = _worth([plain, mat], mat, Costs(50, 10.0, 24.0), 0.3, Units())
    assert "Of 50 seeds, about 25 come up without heat and 40 with a mat always on" in said
    assert "costing 0.60" in said
    assert "The seed it saves is worth 3.00." in said
    # 3.00 of seed less 0.60 of electricity, ten times.
    assert "A mat at 24.00 pays for itself in seed after 10 sowings like this." in said
    assert "never pays for itself" in _worth([plain, mat], mat, Costs(50, 0.5, 24.0), 0.3, Units())


def test_prices_are_refused_at_their_field(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden)
    response = signed_in.get(reverse("heat_gains", args=[garden.pk]), {"place": tray.pk, "crop": "pepper", "mat_price": "-3"})
    assert response.status_code == 422
    assert "Enter a price from 0 to" in response.content.decode()
