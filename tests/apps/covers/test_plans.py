"""Opening and shutting, hotbeds, the sandbox."""

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.covers.texts import night
from cloche.apps.covers.watched import watched_in
from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Hotbed, Place
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Sowing
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values.units import Units
from cloche_engine.results import CropStage, NightWay, Stage
from tests.conftest import NOW
from tests.factories import make_place, read_twice_daily, write_air

TODAY = NOW.date()


def covered(garden: Garden, low_c: float, high_c: float, sky: str = "clear", **period: object) -> Place:
    """A frame with lettuce seedlings under it, in a spell of one kind of weather."""
    write_air(garden, TODAY - timedelta(days=40), 44, low_c, high_c)
    DailyWeather.objects.filter(garden=garden, day__gte=TODAY - timedelta(days=5)).update(sky=sky)
    place = make_place(garden, "Frame", kind="frame")
    read_twice_daily(place, 6, NOW, low_c + 7, high_c + 2)
    CoverPeriod.objects.create(place=place, cover="glass_frame", first=TODAY - timedelta(days=20), **period)
    sown = Sowing.objects.create(place=place, crop_key="lettuce", sown_on=TODAY - timedelta(days=14), depth_m=0.013, seeds=50)
    sown.counts.create(on=TODAY - timedelta(days=5), up=20)
    refresh(place)
    return place


def page(client: Client, garden: Garden) -> str:
    return client.get(reverse("opening", args=[garden.pk])).content.decode()


def test_a_hot_clear_spell_is_opened_and_a_mild_night_left(signed_in: Client, garden: Garden) -> None:
    Garden.objects.filter(pk=garden.pk).update(away_from_h=8, away_to_h=18)
    garden.refresh_from_db()
    covered(garden, 9.0, 23.0)
    watch = Forecast.objects.get().watch
    today = watch.covered.days[0]
    assert watch.growing == [CropStage("lettuce", Stage.SEEDLING)]
    assert today.plan.opening > 0
    assert today.plan.risk <= today.plan.risk_shut
    assert [choice.plan.opening for choice in today.choices] == sorted(choice.plan.opening for choice in today.choices)
    # Eight to six by the clock in summer time is seven to five by the sun's.
    assert (today.away.from_h, today.away.to_h) == (7, 17)
    shown = page(signed_in, garden)
    assert "lettuce seedlings" in shown
    assert "The limit for lettuce seedlings is 27°." in shown
    assert "If nobody can open it" in shown
    assert "Nothing needs doing for the night." in shown


def test_a_dull_cold_spell_stays_shut_and_asks_for_a_blanket(signed_in: Client, garden: Garden) -> None:
    covered(garden, -13.0, 0.0, sky="overcast")
    watch = Forecast.objects.get().watch
    assert watch.covered.days[0].plan.opening == 0
    assert watch.nights[0].way is NightWay.BLANKET
    shown = page(signed_in, garden)
    assert "Keep it closed." in shown
    assert "lay a blanket over it" in shown
    assert "Everything can stay closed today. Tonight Frame needs a cover." in shown


def test_fleece_is_lifted_not_opened(signed_in: Client, garden: Garden) -> None:
    place = covered(garden, 14.0, 31.0)
    place.cover_periods.update(cover="fleece")
    refresh(place)
    shown = page(signed_in, garden)
    assert "Lift it off from" in shown
    assert "Even wide open and unshaded, it may reach" in shown
    assert "a finger’s width" not in shown


def test_open_ends_are_capped_before_a_blanket_is_laid(garden: Garden) -> None:
    write_air(garden, TODAY - timedelta(days=40), 44, -1.0, 8.0)
    place = make_place(garden, "Arch", kind="arch")
    CoverPeriod.objects.create(place=place, cover="bent_sheet", first=TODAY - timedelta(days=20), ends_capped=False)
    refresh(place)
    ways = [night.way for night in Forecast.objects.get().watch.nights]
    assert ways[0] is NightWay.CAP_ENDS
    assert ways == sorted(ways, key=[NightWay.CAP_ENDS, NightWay.BLANKET].index)


def test_gale_snow_and_ponding_are_said(signed_in: Client, garden: Garden) -> None:
    place = covered(garden, 0.0, 5.0, sky="overcast")
    for days, values in ((0, {"wind_m_s": 11.0}), (1, {"rain_mm": 25.0}), (2, {"snow_m": 0.08})):
        garden.weather.filter(day=TODAY + timedelta(days=days)).update(**values)
    refresh(place)
    shown = page(signed_in, garden)
    assert "Today: Wind of 11 m/s" in shown
    assert "Tomorrow: 25 mm of rain" in shown
    assert "Friday: Snow: brush it off" in shown


def test_trays_outdoors_come_in_on_hard_nights(garden: Garden) -> None:
    write_air(garden, TODAY - timedelta(days=40), 44, -6.0, 4.0)
    place = make_place(garden, "Trays", kind="cells")
    sown = Sowing.objects.create(place=place, crop_key="lettuce", sown_on=TODAY - timedelta(days=20), depth_m=0.013)
    sown.counts.create(on=TODAY - timedelta(days=4), up=9)
    refresh(place)
    assert Forecast.objects.get().watch.nights[0].way is NightWay.BRING_IN
    # Leeks stand more than a frozen root ball does.
    assert "a root ball so small freezes through below −3°" in _why_in(garden, place, "leek")
    garden.bring_in_c = -12.0
    garden.save()
    assert "a root ball" not in _why_in(garden, place, "lettuce")


def _why_in(garden: Garden, place: Place, crop_key: str) -> str:
    Sowing.objects.update(crop_key=crop_key)
    refresh(place)
    advice = night(next(iter(watched_in(garden, Units(), TODAY))), 0)
    assert advice is not None
    return advice.why


def test_indoors_nothing_is_watched(garden: Garden) -> None:
    assert refresh(make_place(garden, "Tray", kind="mat")).watch is None


def test_nothing_covered_is_said(signed_in: Client, garden: Garden) -> None:
    refresh(make_place(garden))
    assert "No bed is covered now" in page(signed_in, garden)


def test_a_forecast_of_another_day_plans_nothing(signed_in: Client, garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    covered(garden, 9.0, 23.0)
    monkeypatch.setattr(clock, "now", lambda: NOW + timedelta(days=1))
    assert "Working out the coming days…" in page(signed_in, garden)


HEAP = {"material": "hay", "moist": "moist", "trodden": "firm", "length": "200", "width": "120", "depth": "60", "soil": "15"}
HEAP |= {"filled_on": "2026-04-10", "insulated": "on"}


def test_a_hotbed_is_told_by_what_it_is_built_of(signed_in: Client, garden: Garden) -> None:
    write_air(garden, TODAY - timedelta(days=40), 41)
    place = make_place(garden, "Hotbed", kind="hotbed", seed_depth_m=0.08)
    url = reverse("hotbed", args=[garden.pk, place.pk])
    assert "Working out" in signed_in.get(url).content.decode()
    signed_in.post(url, HEAP)
    bed = Hotbed.objects.get()
    assert (bed.material, bed.depth_m, bed.filled_on.isoformat()) == ("hay", 0.6, "2026-04-10")
    refresh(place)
    strong = Forecast.objects.get().ground.near_mid_c[-200]
    shown = signed_in.get(url).content.decode()
    assert "Set seed trays on it from" in shown
    assert "Compared with a usual hotbed of its kind" not in shown  # nobody has read it yet
    answer = signed_in.post(url, HEAP | {"moist": "dry", "depth": "30"})
    assert answer.status_code == 302
    assert Hotbed.objects.get().depth_m == 0.3
    refresh(place)
    assert Forecast.objects.get().ground.near_mid_c[-200] < strong - 3


SLIPS = [({"depth": "900"}, "Enter a value from 20 cm"), ({"matted_until": "2026-04-01"}, "after the date of filling")]


@pytest.mark.parametrize(("wrong", "said"), SLIPS)
def test_a_hotbed_that_cannot_be_is_refused(signed_in: Client, garden: Garden, wrong: dict[str, str], said: str) -> None:
    place = make_place(garden, "Hotbed", kind="hotbed")
    answer = signed_in.post(reverse("hotbed", args=[garden.pk, place.pk]), HEAP | wrong)
    assert answer.status_code == 422
    assert said in answer.content.decode()


def test_only_a_hotbed_is_one(signed_in: Client, garden: Garden) -> None:
    assert signed_in.get(reverse("hotbed", args=[garden.pk, make_place(garden).pk])).status_code == 404


def sandbox(client: Client, garden: Garden, **query: object) -> str:
    return client.get(reverse("sandbox", args=[garden.pk]), query).content.decode()


@pytest.mark.parametrize("sun", ["0", "11", "19"])
def test_little_sun_is_answered_with_the_least_there_is(signed_in: Client, garden: Garden, sun: str) -> None:
    assert signed_in.get(reverse("sandbox", args=[garden.pk]), {"sun": sun}).status_code == 200


def test_the_sandbox_answers_its_sliders(signed_in: Client, garden: Garden) -> None:
    import re

    def mean(**query: object) -> float:
        shown = sandbox(signed_in, garden, **query)
        return float(re.search(r"the soil would average (−?[\d.]+)°", shown)[1].replace("−", "-"))  # type: ignore[index]

    shut = mean(cover="glass_frame", opening=0)
    assert shut > mean(cover="glass_frame", opening=100) > mean(cover="") - 0.5
    assert mean(cover="glass_frame", opening=0, sun=15) < shut
    assert mean(cover="", ground="mulch") < mean(cover="")
    assert mean(cover="", ground="heap") > mean(cover="") + 2
    both = mean(cover="film_tunnel", opening=0, ground=["black_film", "heap"])
    assert both > mean(cover="film_tunnel", opening=0, ground="heap") > mean(cover="film_tunnel", opening=0)


def test_the_sandbox_draws_the_ground_through_the_day(signed_in: Client, garden: Garden) -> None:
    bare = sandbox(signed_in, garden, cover="")
    assert bare.count('<svg class="slice"') == 4
    assert 'class="inside"' not in bare
    covered = sandbox(signed_in, garden, cover="film_tunnel", ground=["mulch", "heap"])
    assert covered.count('class="inside"') == 4
    assert covered.count("<span>without cover ") == 4
    assert covered.count('class="mulch"') > covered.count('class="heat"') > 0


def test_the_sandbox_speaks_the_persons_degrees_and_refuses_nonsense(signed_in: Client, garden: Garden, person: object) -> None:
    type(person).objects.update(temperature_unit="F")  # type: ignore[attr-defined]
    assert 'data-unit="°F">37°F' in sandbox(signed_in, garden)
    assert signed_in.get(reverse("sandbox", args=[garden.pk]), {"sun": "900"}).status_code == 422


def test_a_shut_frame_over_fleece_is_still_one_that_can_be_opened(garden: Garden) -> None:
    """Common practice, no source: the lid is lifted on a hot day, the fleece beneath it stays."""
    place = covered(garden, 9.0, 23.0)
    CoverPeriod.objects.create(place=place, cover="fleece", first=TODAY - timedelta(days=20))
    refresh(place)
    plan = Forecast.objects.get().watch.covered.days[0].plan
    assert plan.opening > 0
    assert plan.hottest_c[0] < plan.hottest_shut_c[0] - 2.0
