"""What is advised of openings, nights, doors, water and weather, in each of its states, as a grower reads it."""

from dataclasses import replace
from datetime import UTC, date, datetime

import pytest
from django.utils import translation

from cloche.apps.covers import texts
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import clock
from cloche.bridge.values.units import Units
from cloche_engine.hazards.air_limits import Limits
from cloche_engine.hazards.frost import NightWay
from cloche_engine.local_time import midnight_of
from cloche_engine.results import CropStage, NightPlan, OpeningDay, Plan, Stage, Watch, WeatherWarning
from tests.stored import covered_days

TODAY = date(2026, 4, 22)
CELSIUS, FAHRENHEIT = Units("C", "cm"), Units("F", "in")
OPEN = Plan(0.25, 9, 16, 0.02, 0.6, (24.0, 25.5), (31.0, 34.0), 0.1, True)
SHUT = replace(OPEN, opening=0.0, risk=0.01, hottest_shut_c=(19.0, 22.0))
LETTUCE = CropStage("lettuce", Stage.SEEDLING)
CLOSED = "If left closed, it would reach 31° (34° at worst). The limit for lettuce seedlings is 27°."
COLD = NightPlan(NightWay.BLANKET, 0.05, 0.5, (0.5, -0.5), (-3.0, -5.0), True)


def watched(
    *days: OpeningDay,
    nights: tuple[NightPlan, ...] = (),
    growing: tuple[CropStage, ...] = (LETTUCE,),
    units: Units = CELSIUS,
    **values: object,
) -> Watched:
    """A place's coming days under a glass frame, or what is given."""
    from cloche.apps.places.models import Place

    garden = Garden(timezone_name="Europe/Vienna")
    plain = {
        "cover": "glass_frame",
        "growing": list(growing),
        "limits": Limits(27.0, -2.0, 0 if growing else None, 0 if growing else None),
        "nights": list(nights),
        "water_d": None,
        "warnings": [],
        "on_d": None,
        "frosted": [],
        "doors": [],
        "covered": covered_days(*days),
    }
    data = Watch(**plain | values)  # type: ignore[arg-type]
    return Watched(Place(garden=garden, name="Frame"), data, midnight_of(TODAY, 1.0), TODAY, units)


@pytest.fixture(autouse=True)
def early(monkeypatch: pytest.MonkeyPatch) -> None:
    """Seven in the morning by the clock of the garden, before anything is opened."""
    monkeypatch.setattr(clock, "now", lambda: datetime(2026, 4, 22, 5, 0, tzinfo=UTC))


@pytest.mark.parametrize(
    ("plan", "cover", "do", "why"),
    [
        (SHUT, "glass_frame", "Keep it closed.", "It reaches 19° (22° at worst). The limit for lettuce seedlings is 27°."),
        (SHUT, "fleece", "It can stay on.", "It reaches 19° (22° at worst). The limit for lettuce seedlings is 27°."),
        (
            OPEN,
            "glass_frame",
            "Open it a quarter of the way from 10:00, close it by 17:00.",
            f"{CLOSED} Opened like this, it reaches 24°.",
        ),
        (
            replace(OPEN, hottest_shut_c=(24.0, 26.4)),
            "glass_frame",
            "Open it a quarter of the way from 10:00, close it by 17:00.",
            "If left closed, it would reach 24° (26° at worst), too close to the 27° that lettuce seedlings can take. "
            "Opened like this, it reaches 24°.",
        ),
        (
            replace(OPEN, opening=1.0),
            "glass_frame",
            "Open it wide from 10:00, close it by 17:00.",
            f"{CLOSED} Opened like this, it reaches 24°.",
        ),
        (
            replace(OPEN, opening=0.05, look_c=18.0),
            "glass_frame",
            "Open it a finger’s width from 10:00, close it by 17:00.",
            f"If it is under 18° inside at 10:00, it can stay closed. {CLOSED} Opened like this, it reaches 24°.",
        ),
        (OPEN, "fleece", "Lift it from 10:00, put it back by 17:00.", f"{CLOSED} Opened like this, it reaches 24°."),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.2),
            "glass_frame",
            "Open it wide from 10:00, close it by 17:00.",
            f"{CLOSED} Opened like this, it reaches 24°. "
            "It may still pass the limit (chance: two times in ten), so shade it as well.",
        ),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.7, hottest_c=(26.0, 31.0)),
            "glass_frame",
            "Take it off, or open it wide and shade it from 10:00 to 17:00.",
            f"{CLOSED} Even wide open and unshaded, it may reach 31°.",
        ),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.7, hottest_c=(29.0, 31.0)),
            "fleece",
            "Lift it off from 10:00 to 17:00.",
            f"{CLOSED} Even wide open and unshaded, it may reach 31°.",
        ),
    ],
    ids=[
        "shut",
        "cloth stays",
        "part",
        "within the margin",
        "wide",
        "a crack with a look",
        "cloth lifted",
        "hardly holds",
        "off",
        "cloth off",
    ],
)
def test_how_far_to_open(plan: Plan, cover: str, do: str, why: str) -> None:
    advice = texts.opening(watched(OpeningDay(plan), cover=cover), 0)
    assert (advice.do, advice.why) == (do, why)
    assert str(advice) == f"{do} {why}".strip()


def test_who_is_away_is_told_the_one_opening_for_those_hours() -> None:
    away = replace(OPEN, opening=0.5, from_h=7, to_h=18)
    place = watched(OpeningDay(OPEN, away=away), OpeningDay(OPEN))
    assert texts.opening(place, 0, away=True).do == "Open it half way from 08:00, close it by 19:00."
    assert texts.opening(place, 1, away=True).do == "Open it a quarter of the way from 10:00, close it by 17:00."


def test_days_by_name_and_hours_by_the_gardens_clock_in_both_languages() -> None:
    place = watched(*[OpeningDay(OPEN)] * 3)
    assert [texts.day_name(place, number) for number in range(3)] == ["Today", "Tomorrow", "Friday"]
    with translation.override("en-us"):
        american = watched(OpeningDay(OPEN), units=FAHRENHEIT)
        assert (
            texts.opening(american, 0).do.replace("\u00a0", " ")
            == "Open it a quarter of the way from 10:00 AM, close it by 5:00 PM."
        )
        assert "it reaches 75°" in texts.opening(american, 0).why


def test_once_its_hour_has_passed_it_says_what_to_do_now(monkeypatch: pytest.MonkeyPatch) -> None:
    place = watched(OpeningDay(OPEN), OpeningDay(OPEN))
    monkeypatch.setattr(clock, "now", lambda: datetime(2026, 4, 22, 10, 0, tzinfo=UTC))
    assert texts.opening(place, 0).do == "Open it a quarter of the way now, close it by 17:00."
    monkeypatch.setattr(clock, "now", lambda: datetime(2026, 4, 22, 14, 30, tzinfo=UTC))
    assert texts.opening(place, 0).do == "Close it for the night: today’s hours for opening are over."
    assert texts.opening(place, 1).do == "Open it a quarter of the way from 10:00, close it by 17:00."


def test_an_empty_frame_needs_no_opening() -> None:
    advice = texts.opening(watched(OpeningDay(OPEN), growing=()), 0)
    assert advice.do == "Nothing is recorded as growing here, so leave it closed to warm the soil."
    assert "34°" in advice.why


@pytest.mark.parametrize(
    ("plan", "growing", "said"),
    [
        (
            COLD,
            (LETTUCE,),
            "For the night, lay a blanket over it. Otherwise −3° is expected among the plants, −5° at worst. "
            "Lettuce seedlings survive −2°.",
        ),
        (
            replace(COLD, way=None, coldest_left_c=(2.0, 0.6)),
            (LETTUCE,),
            "Nothing needs doing for the night. 2° is expected among the plants, 1° at worst. Lettuce seedlings survive −2°.",
        ),
        (
            replace(COLD, way=None, coldest_left_c=(1.0, -1.8)),
            (LETTUCE,),
            "Nothing needs doing for the night. 1° is expected among the plants, −1.8° at worst. "
            "Lettuce seedlings survive −2.0°.",
        ),
        (
            replace(COLD, way=NightWay.CAP_ENDS, holds=False),
            (LETTUCE,),
            "For the night, cap the ends. Otherwise −3° is expected among the plants, −5° at worst. "
            "Lettuce seedlings survive −2°. Even so, it may not be enough.",
        ),
        (
            replace(COLD, way=NightWay.FLEECE_AND_BLANKET, holds=False),
            (CropStage("lettuce", Stage.GROWN),),
            "For the night, lay fleece and a blanket over it. Otherwise −3° is expected among the plants, −5° at worst. "
            "Lettuces survive −2°. Even so, it may not be enough. Pick what is ready now.",
        ),
    ],
    ids=["a blanket", "nothing", "nothing, but close", "not enough", "ripe"],
)
def test_what_a_night_asks_for(plan: NightPlan, growing: tuple[CropStage, ...], said: str) -> None:
    place = watched(nights=(plan,), growing=growing)
    assert texts.night_sentence(place, 0) == said


def test_a_night_that_was_not_worked_out_is_not_spoken_of() -> None:
    assert texts.night(watched(), 0) is None
    assert texts.night_sentence(watched(nights=(COLD,)), 1) == ""


@pytest.mark.parametrize(
    ("stage", "said"),
    [(Stage.LYING, "lettuce seed"), (Stage.SEEDLING, "lettuce seedlings"), (Stage.GROWN, "lettuces")],
)
def test_whose_limit_it_is(stage: Stage, said: str) -> None:
    assert texts.who(watched(growing=(CropStage("lettuce", stage),)), 0) == said


@pytest.mark.parametrize(
    ("plan", "do"),
    [
        (SHUT, "Doors and vents of the unheated greenhouse can stay closed."),
        (OPEN, "Open doors and vents of the unheated greenhouse a quarter of the way from 10:00, and close them by 17:00."),
        (
            replace(OPEN, opening=0.12),
            "Open doors and vents of the unheated greenhouse a little way from 10:00, and close them by 17:00.",
        ),
    ],
)
def test_doors_of_a_house(plan: Plan, do: str, monkeypatch: pytest.MonkeyPatch) -> None:
    place = watched(doors=[plan])
    place.place.within = "unheated greenhouse"
    advice = texts.doors(place, 0)
    assert advice is not None
    assert advice.do == do
    assert texts.doors(watched(), 0) is None


@pytest.mark.parametrize(
    ("warning", "units", "said"),
    [
        (WeatherWarning(TODAY, "gale", 20.0), CELSIUS, "Wind of 20 m/s: tie it down and weigh down the edges"),
        (WeatherWarning(TODAY, "gale", 20.0), FAHRENHEIT, "Wind of 45 mph: tie it down"),
        (WeatherWarning(TODAY, "snow", 0.1), CELSIUS, "Snow: brush it off before it lies deep"),
        (WeatherWarning(TODAY, "rain", 30.4), CELSIUS, "30 mm of rain: film sags and water collects"),
        (WeatherWarning(TODAY, "rain", 25.4), FAHRENHEIT, "1 in of rain: film sags"),
    ],
)
def test_weather_that_does_harm_is_said_in_the_persons_units(warning: WeatherWarning, units: Units, said: str) -> None:
    assert texts.warning(warning, units).startswith(said)


@pytest.mark.parametrize(
    ("days", "said"),
    [(None, ""), (0, "The soil surface is dry now. Water a little"), (3, "The soil surface is dry by 25 April.")],
)
def test_when_a_covered_bed_wants_water(days: int | None, said: str) -> None:
    sentence = texts.water(watched(water_d=days))
    assert sentence.startswith(said)
    assert bool(sentence) is bool(said)


def test_when_to_open_for_picking() -> None:
    place = watched(OpeningDay(SHUT, pick=(11.0, 8.4)), OpeningDay(SHUT))
    assert texts.picking(place, 0) == "To harvest, open it about 12:00, when it is 8° inside: the sun will warm it again."
    assert texts.picking(place, 1) == ""
