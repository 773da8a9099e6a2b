from datetime import date, timedelta
from zoneinfo import ZoneInfo

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.weather import flows, selectors
from cloche.apps.weather.models import DailyWeather, WeatherReport
from cloche.apps.weather.provider import answer_from
from cloche.demo import weather_service
from tests.conftest import NOW
from tests.factories import make_place


def write(client: Client, garden: Garden, day: str = "2026-04-21", low: str = "2", high: str = "11,5", **also: str) -> object:
    return client.post(reverse("weather", args=[garden.pk]), {"day": day, "low": low, "high": high} | also, follow=True)


def test_sky_wind_rain_and_snow_are_noted_and_shown(signed_in: Client, garden: Garden) -> None:
    response = write(signed_in, garden, sky="overcast", wind="4", rain="3,5", snow="12")
    line = garden.weather.get()
    assert (line.sky, line.wind_m_s, line.rain_mm, line.snow_m) == ("overcast", 4.0, 3.5, pytest.approx(0.12))
    assert "overcast, 3.5 mm, wind 4 m/s, 12 cm of snow" in response.content.decode()  # type: ignore[attr-defined]


def test_a_day_is_written_down_and_every_place_is_worked_out_again(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden)
    write(signed_in, garden)
    assert garden.weather.get().high_c == 11.5
    assert Place.objects.get(pk=place.pk).input_revision == place.input_revision + 1


def test_a_day_that_is_there_is_corrected_and_its_past_kept(signed_in: Client, garden: Garden) -> None:
    write(signed_in, garden)
    garden.weather.update(rain_mm=4.5)
    write(signed_in, garden, high="12")
    assert garden.weather.get().high_c == 12
    assert garden.weather.get().rain_mm == 4.5
    assert sorted(h.high_c for h in DailyWeather.history.all()) == [11.5, 12]


def test_days_ahead_are_a_forecast(signed_in: Client, garden: Garden) -> None:
    response = write(signed_in, garden, day="2026-04-25")
    assert "Days ahead" in response.content.decode()  # type: ignore[attr-defined]


@pytest.mark.parametrize(
    ("values", "said"),
    [
        ({"low": "12", "high": "3"}, "The high is below the low"),
        ({"low": "cold"}, "is not a number"),
        ({"high": "105"}, "Did you mean °F"),
        ({"high": "750"}, "Please check the reading"),
        ({"day": "2026-06-01"}, "within the next 16 days"),
        ({"rain": "-1"}, "Rainfall of -1 mm"),
        ({"snow": "deep"}, "is not a number"),
    ],
)
def test_air_that_cannot_be_is_refused(signed_in: Client, garden: Garden, values: dict[str, str], said: str) -> None:
    response = write(signed_in, garden, **values)
    assert response.status_code == 422  # type: ignore[attr-defined]
    assert said in response.content.decode()  # type: ignore[attr-defined]
    assert not garden.weather.exists()


def test_removing_a_day_says_what_it_was(signed_in: Client, garden: Garden) -> None:
    write(signed_in, garden)
    url = reverse("remove_weather", args=[garden.pk, date(2026, 4, 21)])
    page = signed_in.post(url, follow=True).content.decode()
    assert "It was 2.0° to 11.5°" in page
    assert not garden.weather.exists()


def test_a_correction_stands_beside_the_original_with_who_and_when(signed_in: Client, garden: Garden) -> None:
    DailyWeather.objects.bulk_create([DailyWeather(garden=garden, day=date(2026, 4, 21), low_c=2.0, high_c=11.5)])
    response = write(signed_in, garden, low="4")
    assert "first 2.0° to 11.5°; changed by rowan, today" in response.content.decode()  # type: ignore[attr-defined]


def test_a_line_that_differs_from_the_services_says_so(signed_in: Client, garden: Garden) -> None:
    past = {"first": "2026-04-21", "low_c": [3.0], "high_c": [12.0], "rain_mm": [0.0]}
    WeatherReport.objects.create(garden=garden, received_at=NOW, past=past)
    response = write(signed_in, garden)
    assert "the service has 3.0° to 12.0°" in response.content.decode()  # type: ignore[attr-defined]
    same = write(signed_in, garden, low="3", high="12")
    assert "the service has 3" not in same.content.decode()  # type: ignore[attr-defined]


def test_a_day_s_line_is_filled_from_the_service_and_can_be_put_right(signed_in: Client, garden: Garden) -> None:
    past = {"first": "2026-04-20", "low_c": [3.0, 4.5], "high_c": [12.0, 13.5], "rain_mm": [0.0, 2.5]}
    WeatherReport.objects.create(garden=garden, received_at=NOW, past=past)
    url = reverse("weather", args=[garden.pk])
    page = signed_in.get(url)
    text = page.content.decode()
    assert text.count("from the service") == 2
    assert page.context["form"].initial["low"] == "4.5"
    assert 'value="2.5"' in text
    other = signed_in.get(url, {"day": "2026-04-20"}).context["form"].initial
    assert (str(other["day"]), other["high"]) == ("2026-04-20", "12.0")
    write(signed_in, garden, day="2026-04-20", low="2", high="12")
    text = signed_in.get(url, {"day": "2026-04-20"}).content.decode()
    assert text.count("from the service") == 1
    assert 'value="2.0"' in text
    assert signed_in.get(url, {"day": "soon"}).status_code == 200


def test_a_removed_day_comes_back_whole(signed_in: Client, garden: Garden) -> None:
    write(signed_in, garden, rain="3.5", sky="clear")
    page = signed_in.post(reverse("remove_weather", args=[garden.pk, date(2026, 4, 21)]), follow=True).content.decode()
    back = reverse("put_back_weather", args=[garden.pk, date(2026, 4, 21)])
    assert back in page
    assert not garden.weather.exists()
    assert "is back" in signed_in.post(back, follow=True).content.decode()
    line = garden.weather.get()
    assert (line.low_c, line.high_c, line.rain_mm, line.sky) == (2.0, 11.5, 3.5, "clear")
    assert "has been entered again" in signed_in.post(back, follow=True).content.decode()


def test_another_day_brings_its_own_numbers_and_leaves_what_was_typed(signed_in: Client, garden: Garden) -> None:
    write(signed_in, garden, rain="3.5")
    url, shown = reverse("weather", args=[garden.pk]), {"shown": "2026-04-21", "low": "2.0", "high": "11.5", "rain": "7"}
    page = signed_in.get(url, shown | {"day": "2026-04-20"}).content.decode()
    assert 'value="2026-04-20"' in page
    assert 'name="low" value' not in page  # the other day's are gone
    assert 'value="11.5"' not in page
    assert 'value="7"' in page  # typed by hand
    write(signed_in, garden, day="2026-04-20", low="-1", high="8")
    page = signed_in.get(url, shown | {"day": "2026-04-20"}).content.decode()
    assert 'value="-1.0"' in page
    assert 'value="7"' in page


def test_how_far_an_ensembles_runs_lie_apart_stands_beside_its_day(signed_in: Client, garden: Garden) -> None:
    given = weather_service.report(48.0, 15.0, 300.0, ZoneInfo("UTC"), NOW)
    for row in given["forecast"]:
        row["runs"] = []
    given["forecast"][3]["runs"] = [[float(low), 15.0, 0.0] for low in range(11)]
    flows.keep(garden, answer_from(given))
    page = signed_in.get(f"/g/{garden.pk}/weather/").content.decode()
    assert page.count("eight times in ten") == 1
    assert "the service has 1.0° to 9.0° for the low, eight times in ten" in page


def test_of_thirty_years_any_one_day_is_filled_in_and_the_last_weeks_are_listed(signed_in: Client, garden: Garden) -> None:
    count = 30 * 365
    first = NOW.date() - timedelta(days=count)
    past = {"first": str(first), "low_c": [3.5] * count, "high_c": [12.0] * count, "rain_mm": [0.0] * count}
    past["low_c"][10] = 1.5  # type: ignore[index]
    WeatherReport.objects.create(garden=garden, received_at=NOW, past=past)
    page = signed_in.get(reverse("weather", args=[garden.pk]), {"day": str(first + timedelta(days=10))})
    assert page.context["form"].initial["low"] == "1.5"
    assert page.content.decode().count("from the service") == 21
    whole = list(selectors.reported_days(garden))
    assert (len(whole), whole[10].low_c) == (count, 1.5)
    since = NOW.date() - timedelta(days=5)
    assert [day.day for day in selectors.reported_days(garden, since)] == [since + timedelta(days=d) for d in range(5)]
