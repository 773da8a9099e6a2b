"""What is advised of openings, nights, doors, water and weather, in each of its states, as a grower reads it."""

from dataclasses import replace
from datetime import date

import pytest
from django.utils import translation

from cloche.apps.covers import texts
from cloche.apps.covers.watched import Watched
from cloche.apps.gardens.models import Garden
from cloche.bridge.values.clocks import midnight_of
from cloche.bridge.values.stored import CropStage, NightPlan, OpeningDay, Plan, Stage, Watch, WeatherWarning
from cloche.bridge.values.units import Units
from cloche.core.hazards.air_limits import Limits
from cloche.core.hazards.frost_night import NightWay
from tests.stored import covered_days

TODAY = date(2026, 4, 22)
CELSIUS, FAHRENHEIT = Units("C", "cm"), Units("F", "in")
OPEN = Plan(0.25, 9, 16, 0.02, 0.6, (24.0, 25.5), (31.0, 34.0), 0.1, True)
SHUT = replace(OPEN, opening=0.0, risk=0.01, hottest_shut_c=(19.0, 22.0))
LETTUCE = CropStage("lettuce", Stage.SEEDLING)
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


@pytest.mark.parametrize(
    ("plan", "cover", "do", "why"),
    [
        (SHUT, "glass_frame", "Keep it shut: 19° inside, at worst 22°; 27° is the limit.", ""),
        (SHUT, "fleece", "It can stay on: 19° beneath it, at worst 22°; 27° is the limit.", ""),
        (
            OPEN,
            "glass_frame",
            "Open it a quarter from 10:00, shut by 17:00.",
            "Shut it would reach 31°, at worst 34°; so 24°, and 27° is the limit.",
        ),
        (
            replace(OPEN, opening=1.0),
            "glass_frame",
            "Open it wide from 10:00, shut by 17:00.",
            "Shut it would reach 31°, at worst 34°; so 24°, and 27° is the limit.",
        ),
        (
            replace(OPEN, opening=0.05, look_c=18.0),
            "glass_frame",
            "Open it a crack of 2 cm, ¾ in from 10:00, shut by 17:00.",
            "If it is under 18° inside at 10:00, it can stay shut. Shut it would "
            "reach 31°, at worst 34°; so 24°, and 27° is the limit.",
        ),
        (
            OPEN,
            "fleece",
            "Lift it from 10:00, back by 17:00.",
            "Shut it would reach 31°, at worst 34°; so 24°, and 27° is the limit.",
        ),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.2),
            "glass_frame",
            "Open it wide from 10:00, shut by 17:00.",
            "Shut it would reach 31°, at worst 34°; so 24°, and 27° is the "
            "limit. Even so it may not hold (two times in ten it is "
            "passed): shade it as well.",
        ),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.7, hottest_c=(29.0, 31.0)),
            "glass_frame",
            "Take it off, or open it wide and shade it, from 10:00 to 17:00.",
            "Shut it would reach 31°, at worst 34°; wide open and unshaded "
            "still 29°. 27° is the limit, and no opening holds it.",
        ),
        (
            replace(OPEN, opening=1.0, holds=False, risk=0.7, hottest_c=(29.0, 31.0)),
            "fleece",
            "Lift it off, from 10:00 to 17:00.",
            "Shut it would reach 31°, at worst 34°; wide open and unshaded "
            "still 29°. 27° is the limit, and no opening holds it.",
        ),
    ],
    ids=["shut", "cloth stays", "part", "wide", "a crack with a look", "cloth lifted", "hardly holds", "off", "cloth off"],
)
def test_how_far_to_open(plan: Plan, cover: str, do: str, why: str) -> None:
    advice = texts.opening(watched(OpeningDay(plan), cover=cover), 0)
    assert (advice.do, advice.why) == (do, why)
    assert str(advice) == f"{do} {why}".strip()


def test_who_is_away_is_told_the_one_opening_for_those_hours() -> None:
    away = replace(OPEN, opening=0.5, from_h=7, to_h=18)
    one = watched(OpeningDay(OPEN, away=away), OpeningDay(OPEN))
    assert texts.opening(one, 0, away=True).do == "Open it half from 08:00, shut by 19:00."
    assert texts.opening(one, 1, away=True).do == "Open it a quarter from 10:00, shut by 17:00."


def test_days_by_name_and_hours_by_the_gardens_clock_in_both_languages() -> None:
    one = watched(*[OpeningDay(OPEN)] * 3)
    assert [texts.day_name(one, number) for number in range(3)] == ["Today", "Tomorrow", "Friday"]
    with translation.override("en-us"):
        american = watched(OpeningDay(OPEN), units=FAHRENHEIT)
        assert texts.opening(american, 0).do.replace("\u00a0", " ") == "Open it a quarter from 10:00 AM, shut by 5:00 PM."
        assert "so 75°, and 81° is the limit" in texts.opening(american, 0).why


@pytest.mark.parametrize(
    ("plan", "growing", "said"),
    [
        (
            COLD,
            (LETTUCE,),
            "For the night lay a blanket over it: −3° among the plants otherwise, at worst −5°, and {who} stand −2°.",
        ),
        (
            replace(COLD, way=None, coldest_left_c=(2.0, 0.6)),
            (LETTUCE,),
            "The night needs nothing: 2° among the plants, at worst 1°; {who} stand −2°.",
        ),
        (
            replace(COLD, way=NightWay.CAP_ENDS, holds=False),
            (LETTUCE,),
            "For the night cap the ends: −3° among the plants otherwise, at "
            "worst −5°, and {who} stand −2°. Even so it may not be "
            "enough.",
        ),
        (
            replace(COLD, way=NightWay.FLEECE_AND_BLANKET, holds=False),
            (CropStage("lettuce", Stage.GROWN),),
            "For the night lay fleece and a blanket over it: −3° among the plants "
            "otherwise, at worst −5°, and lettuces stand −2°. "
            "Even so it may not be enough: pick now what is ready.",
        ),
        (
            COLD,
            (),
            "For the night lay a blanket over it: −3° among the plants otherwise, "
            "at worst −5°, and seedlings, as nothing is written "
            "down there stand −2°.",
        ),
    ],
    ids=["a blanket", "nothing", "not enough", "ripe", "nothing written down"],
)
def test_what_a_night_asks_for(plan: NightPlan, growing: tuple[CropStage, ...], said: str) -> None:
    one = watched(nights=(plan,), growing=growing)
    assert texts.night_sentence(one, 0) == said.format(who=texts.who(one, 0 if growing else None))


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
        (SHUT, "Doors and vents of the unheated greenhouse can stay shut: 19° inside, at worst 22°; 27° is the limit."),
        (OPEN, "Open doors and vents of the unheated greenhouse a quarter from 10:00, shut by 17:00."),
        (replace(OPEN, opening=0.12), "Open doors and vents of the unheated greenhouse a little from 10:00, shut by 17:00."),
    ],
)
def test_doors_of_a_house(plan: Plan, do: str, monkeypatch: pytest.MonkeyPatch) -> None:
    one = watched(doors=[plan])
    one.place.within = "unheated greenhouse"
    advice = texts.doors(one, 0)
    assert advice is not None
    assert advice.do == do
    assert texts.doors(watched(), 0) is None


@pytest.mark.parametrize(
    ("warning", "units", "said"),
    [
        (WeatherWarning(TODAY, "gale", 20.0), CELSIUS, "Wind of 20 m/s: tie it down and weigh the edges"),
        (WeatherWarning(TODAY, "gale", 20.0), FAHRENHEIT, "Wind of 45 mph: tie it down"),
        (WeatherWarning(TODAY, "snow", 0.1), CELSIUS, "Snow: brush it off before it lies deep"),
        (WeatherWarning(TODAY, "rain", 30.4), CELSIUS, "30 mm of rain: film sags and ponds"),
        (WeatherWarning(TODAY, "rain", 25.4), FAHRENHEIT, "1 in of rain: film sags"),
    ],
)
def test_weather_that_does_harm_is_said_in_the_persons_units(warning: WeatherWarning, units: Units, said: str) -> None:
    assert texts.warning(warning, units).startswith(said)


@pytest.mark.parametrize(
    ("days", "said"), [(None, ""), (0, "The top is dry now: water a little"), (3, "The top is dry by 25 April:")]
)
def test_when_a_covered_bed_wants_water(days: int | None, said: str) -> None:
    found = texts.water(watched(water_d=days))
    assert found.startswith(said)
    assert bool(found) is bool(said)


def test_when_to_open_for_picking() -> None:
    one = watched(OpeningDay(SHUT, pick=(11.0, 8.4)), OpeningDay(SHUT))
    assert texts.picking(one, 0) == "For picking open it about 12:00, 8° inside: the sun still warms it again."
    assert texts.picking(one, 1) == ""
