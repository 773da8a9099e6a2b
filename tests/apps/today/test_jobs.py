"""The day's jobs: what is told, in which order, and what becomes of an answer."""

from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest
from django.core import mail
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden, User
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Cover, CoverPeriod, Operation, Place
from cloche.apps.plants.models import Planting
from cloche.apps.shared import clock
from cloche.apps.sowings import flows
from cloche.apps.sowings.models import Intention, Sowing
from cloche.apps.today import flows as today_flows
from cloche.apps.today.flows import send_due
from cloche.apps.today.models import Answer, DigestWish
from cloche.apps.today.selectors import jobs_in
from cloche.apps.today.texts import job_line
from cloche.apps.weather.models import DailyWeather
from cloche.apps.windows.feed import link_of
from cloche.apps.work.models import Failure
from cloche.apps.work.turns import database_now
from cloche_engine.results import WeatherWarning
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading, wants_mail, write_air
from tests.stored import sowing_outlook

TODAY = NOW.date()
HX = {"HX-Request": "true"}


@pytest.fixture
def frame(garden: Garden) -> Place:
    """A frame of lettuce seedlings before a hot clear day."""
    write_air(garden, TODAY - timedelta(days=30), 34, 10.0, 20.0)
    DailyWeather.objects.filter(garden=garden, day__gte=TODAY).update(sky="clear")
    place = make_place(garden, "Frame", kind="frame")
    CoverPeriod.objects.create(place=place, cover="glass_frame", first=TODAY - timedelta(days=20))
    sown = Sowing.objects.create(place=place, crop_key="lettuce", sown_on=TODAY - timedelta(days=14), depth_m=0.013)
    sown.counts.create(on=TODAY - timedelta(days=5), up=20)
    refresh(place)
    return place


def keys(garden: Garden, person: User) -> list[str]:
    return [job.key for job in jobs_in(garden, units_of(person), clock.now())]


def today(client: Client, garden: Garden) -> str:
    return client.get(reverse("today", args=[garden.pk])).content.decode()


def say(client: Client, garden: Garden, job: str, said: str) -> str:
    answer = client.post(reverse("answer", args=[garden.pk]), {"job": job, "choice": said}, headers=HX)
    assert answer.status_code == 200
    return answer.content.decode()


def test_opening_is_told_with_its_hour_reason_and_limit(signed_in: Client, frame: Place) -> None:
    shown = today(signed_in, frame.garden)
    assert "<h1>Frame, estimated: open it" in shown
    assert "The limit for lettuce seedlings is 27°." in shown
    assert "inside tonight" in shown


def test_what_rests_on_no_reading_is_an_estimate_and_no_order(signed_in: Client, frame: Place) -> None:
    shown = today(signed_in, frame.garden)
    assert "<h1>Frame, estimated: open it" in shown
    assert "Estimated: nothing has been read here yet. Look before you act." in shown
    assert 'class="urgent"' not in shown
    make_reading(frame, NOW - timedelta(hours=20), 12.0)
    make_reading(frame, NOW - timedelta(hours=12), 19.0)
    refresh(Place.objects.get(pk=frame.pk))
    shown = today(signed_in, frame.garden)
    assert "stimated: open it" not in shown
    assert 'class="urgent"' in shown


def test_once_it_is_over_it_is_tomorrows(signed_in: Client, frame: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(clock, "now", lambda: NOW + timedelta(hours=14))
    assert "<h1>Frame, tomorrow, estimated: open it" in today(signed_in, frame.garden)


def test_done_later_and_not_here_are_each_written_down_and_undone(signed_in: Client, frame: Place, person: User) -> None:
    garden, key = frame.garden, f"open:{frame.pk}"
    for said, words in (("done", "done by rowan:"), ("later", "later by rowan:"), ("not_here", "not in this garden by rowan:")):
        shown = say(signed_in, garden, key, said)
        assert words in shown
        assert f'value="{key}"' not in shown
        answer = Answer.objects.get(undone_at=None)
        assert (answer.choice, answer.by) == (said, person)
        assert (answer.kind, answer.place) == ("open", frame)
        assert "Frame: Open it and close it again." in shown
        back = signed_in.post(reverse("take_back_answer", args=[garden.pk, answer.pk]), headers=HX).content.decode()
        assert f'value="{key}"' in back


def test_done_is_for_its_day_later_until_tomorrow_not_here_for_long(
    signed_in: Client, frame: Place, person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    garden, key = frame.garden, f"open:{frame.pk}"
    for said, comes_again in (("done", True), ("later", True), ("not_here", False)):
        monkeypatch.setattr(clock, "now", lambda: NOW)
        say(signed_in, garden, key, said)
        monkeypatch.setattr(clock, "now", lambda: NOW + timedelta(days=1))
        refresh(frame)
        assert (f'value="{key}"' in today(signed_in, garden)) is comes_again, said
        Forecast.objects.update(day=TODAY)
        Answer.objects.all().delete()


def test_what_was_opened_as_told_is_written_into_the_record(signed_in: Client, frame: Place) -> None:
    say(signed_in, frame.garden, f"open:{frame.pk}", "done")
    opened = frame.operations.get()
    watch = Forecast.objects.get(place=frame).watch
    assert watch is not None
    assert watch.covered is not None
    assert (opened.work, opened.amount) == ("opened", watch.covered.days[0].plan.opening)  # as far as was told
    answered = Answer.objects.get(undone_at=None)
    signed_in.post(reverse("take_back_answer", args=[frame.garden_id, answered.pk]))
    assert not frame.operations.exists()


def test_without_scripts_an_answer_leads_back_to_today(signed_in: Client, frame: Place) -> None:
    url = reverse("answer", args=[frame.garden_id])
    answer = signed_in.post(url, {"job": f"open:{frame.pk}", "choice": "done"})
    assert answer.url == reverse("today", args=[frame.garden_id])  # type: ignore[attr-defined]
    assert signed_in.post(url, {"job": "open:999999", "choice": "done"}).status_code == 404
    assert signed_in.post(url, {"job": f"open:{frame.pk}", "choice": "perhaps"}).status_code == 404


def test_watering_is_told_when_the_top_is_dry_and_goes_into_the_record(signed_in: Client, frame: Place) -> None:
    forecast = Forecast.objects.get()
    forecast.watch = replace(forecast.watch, water_d=0)
    forecast.save()
    say(signed_in, frame.garden, f"water:{frame.pk}", "done")
    assert Operation.objects.get().work == "watered"
    signed_in.post(reverse("take_back_answer", args=[frame.garden_id, Answer.objects.get().pk]))
    assert not Operation.objects.exists()


def off(frame: Place, **values: object) -> None:
    forecast = Forecast.objects.get()
    covered = forecast.watch.covered
    covered = replace(covered, off=replace(covered.off, **values))
    forecast.watch = replace(forecast.watch, covered=covered)
    forecast.save()


def test_a_cover_comes_off_by_the_school_its_people_follow(frame: Place, person: User) -> None:
    garden = frame.garden
    off(frame, nights=0, height=False, established=False, heat=False)
    given = {}
    for sowing_rule in Garden.UncoverRule.values:
        Garden.objects.filter(pk=garden.pk).update(uncover_rule=sowing_rule)
        given[sowing_rule] = f"off:{frame.pk}" in keys(Garden.objects.get(pk=garden.pk), person)
    assert given == {"nights": True, "height": False, "established": False, "heat": False}
    off(frame, nights=None, height=True, established=True, heat=True)
    for sowing_rule in ("height", "established", "heat"):
        Garden.objects.filter(pk=garden.pk).update(uncover_rule=sowing_rule)
        assert f"off:{frame.pk}" in keys(Garden.objects.get(pk=garden.pk), person), sowing_rule


def test_taken_off_it_ends_in_the_record_and_undone_it_is_on_again(signed_in: Client, frame: Place) -> None:
    off(frame, nights=0)
    say(signed_in, frame.garden, f"off:{frame.pk}", "done")
    assert CoverPeriod.objects.get().last == TODAY - timedelta(days=1)
    signed_in.post(reverse("take_back_answer", args=[frame.garden_id, Answer.objects.get().pk]))
    assert CoverPeriod.objects.get().last is None


def test_what_was_planned_stands_on_its_day(signed_in: Client, garden: Garden, person: User) -> None:
    place, cover = make_place(garden), Cover.objects.create(garden=garden, kind="film_tunnel", name="Long tunnel")
    period = CoverPeriod.objects.create(place=place, item=cover, cover="film_tunnel", first=TODAY)
    CoverPeriod.objects.create(place=make_place(garden, "Other"), cover="fleece", first=TODAY - timedelta(days=9), last=TODAY)
    flows.intend(place, "carrot", TODAY, person)
    refresh(place)
    shown = today(signed_in, garden)
    assert "Put Long tunnel on." in shown
    assert "Take the fleece 17 g/m² off." in shown
    assert "Sow carrots." in shown
    assert "You planned it, and" in shown
    assert f"put_on:{period.pk}" in keys(garden, person)


def test_a_sowing_that_was_meant_is_done_by_writing_it_down(signed_in: Client, garden: Garden, person: User) -> None:
    place = make_place(garden)
    meant = flows.intend(place, "carrot", TODAY - timedelta(days=2), person)
    assert flows.intend(place, "carrot", TODAY, person).pk == meant.pk
    given = {"place": place.pk, "crop_key": "carrot", "sown_on": TODAY.isoformat(), "seeds": "", "depth": ""}
    signed_in.post(reverse("new_sowing", args=[garden.pk]), given)
    meant.refresh_from_db()
    assert meant.made == Sowing.objects.get()
    assert f"sow:{meant.pk}" not in keys(garden, person)


def test_a_bed_is_warmed_ahead_of_a_sowing_if_it_will_be_too_cold_and_a_cover_is_free(garden: Garden, person: User) -> None:
    place = make_place(garden)
    write_air(garden, TODAY - timedelta(days=30), 34, -2.0, 7.0)
    refresh(place)
    meant = flows.intend(place, "squash", TODAY + timedelta(days=10), person)
    assert f"warm:{meant.pk}" not in keys(garden, person)
    Cover.objects.create(garden=garden, kind="film_tunnel", name="Long tunnel")
    (warming,) = [job for job in jobs_in(garden, units_of(person), clock.now()) if job.key == f"warm:{meant.pk}"]
    job = job_line(warming, units_of(person), TODAY)
    assert job.do == "Warm it with Long tunnel."
    assert job.why.startswith("Without a cover it would be ")
    assert "on 2 May, when you plan to sow courgettes; they need 21°." in job.why
    CoverPeriod.objects.create(place=place, cover="fleece", first=TODAY + timedelta(days=2))
    assert f"warm:{meant.pk}" not in keys(garden, person)


def test_what_is_overdue_and_what_may_be_counted(garden: Garden, person: User) -> None:
    place = make_place(garden)
    given = {"place": place, "crop_key": "pea", "depth_m": 0.03, "sown_on": TODAY - timedelta(days=40)}
    late = Sowing.objects.create(outlook=sowing_outlook(date(2026, 4, 1), date(2026, 4, 12)), **given)
    ripe = Sowing.objects.create(outlook=sowing_outlook(date(2026, 4, 20), date(2026, 5, 12)), **given)
    young = Sowing.objects.create(outlook=sowing_outlook(date(2026, 5, 20), None), **given)
    due = keys(garden, person)
    assert f"overdue:{late.pk}" in due
    assert f"count:{ripe.pk}" in due
    assert not [key for key in due if key.endswith(f":{young.pk}")]


def test_nothing_to_do_says_until_when(signed_in: Client, garden: Garden, person: User) -> None:
    place = make_place(garden)
    Garden.objects.filter(pk=garden.pk).update(crops=["pepper"])
    refresh(Place.objects.get(pk=place.pk))
    flows.intend(place, "pepper", TODAY + timedelta(days=9), person)
    assert "Only the probes need reading today. Next, 1 May: sow peppers in North bed." in today(signed_in, garden)
    make_reading(place, NOW - timedelta(minutes=5))
    assert "Nothing needs doing today. Next, 1 May: sow peppers in North bed." in today(signed_in, garden)


def test_the_week_tells_plans_and_what_is_due(signed_in: Client, frame: Place, person: User) -> None:
    flows.intend(frame, "carrot", TODAY + timedelta(days=3), person)
    shown = signed_in.get(reverse("week", args=[frame.garden_id])).content.decode()
    assert "Sow carrots in Frame." in shown
    assert shown.count("Frame: Open it") >= 2
    assert "10° to 20°" in shown


def test_the_day_comes_by_mail_once_at_its_hour(signed_in: Client, frame: Place, person: User) -> None:
    url = reverse("digest", args=[frame.garden_id])
    assert signed_in.post(url, {"email": "nobody", "hour": "9"}).status_code == 422
    signed_in.post(url, {"email": "rowan@example.org", "hour": "9"})
    assert send_due(NOW) == 0  # eight in the morning there
    assert send_due(NOW + timedelta(hours=1)) == 1
    assert send_due(NOW + timedelta(hours=2)) == 0
    (letter,) = mail.outbox
    assert letter.to == ["rowan@example.org"]
    assert letter.subject.startswith("Test plot, 22 April: Frame, estimated: open it")
    assert "[ ] " in letter.body
    assert "<" not in letter.body
    signed_in.post(url, {"stop": "1"})
    assert not DigestWish.objects.exists()


def test_who_left_gets_no_mail_and_a_lost_server_is_tried_again(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    helper = make_person("willow")
    member = garden.memberships.create(user=helper, role="viewer")
    wants_mail(member, "willow@example.org")

    def lost(*args: object) -> None:
        raise OSError("no route")

    with monkeypatch.context() as broken:
        broken.setattr("cloche.apps.today.flows.send_mail", lost)
        assert send_due(NOW) == 0
    assert send_due(NOW) == 0  # not at once again
    assert "did not accept the email to willow@example.org" in Failure.objects.get().text
    Failure.objects.update(next_at=database_now())
    assert send_due(NOW) == 1
    assert not Failure.objects.exists()
    garden.memberships.filter(user=helper).delete()
    assert send_due(NOW + timedelta(days=1)) == 0
    garden.memberships.create(user=helper, role="viewer")
    assert send_due(NOW + timedelta(days=1)) == 0  # who comes back asks for it again


def test_a_name_with_a_break_in_it_stops_nobodys_mail(garden: Garden, person: User) -> None:
    odd = make_garden(make_person("hazel"), "Evil\r\nBcc: everybody@example.org")
    wants_mail(odd.memberships.get(), "hazel@example.org")
    wants_mail(garden.memberships.get(), "rowan@example.org")
    assert send_due(NOW) == 2
    assert {letter.to[0] for letter in mail.outbox} == {"hazel@example.org", "rowan@example.org"}
    assert all("\n" not in letter.subject for letter in mail.outbox)
    assert not any(letter.bcc for letter in mail.outbox)


def test_a_letter_that_cannot_be_made_stops_nobody_elses(garden: Garden, person: User, monkeypatch: pytest.MonkeyPatch) -> None:
    odd = make_garden(make_person("hazel"), "Odd")
    wants_mail(odd.memberships.get(), "hazel@example.org")
    wants_mail(garden.memberships.get(), "rowan@example.org")
    real = today_flows.today_page

    def sometimes(of: Garden, *more: Any) -> Any:
        if of == odd:
            raise KeyError("no")
        return real(of, *more)

    monkeypatch.setattr(today_flows, "today_page", sometimes)
    assert send_due(NOW) == 1
    assert Failure.objects.get().garden == odd


def test_the_calendar_has_what_is_meant(client: Client, garden: Garden, person: User) -> None:
    flows.intend(make_place(garden), "carrot", date(2026, 5, 9), person)
    Intention.objects.create(place=make_place(garden, "B"), crop_key="beet", sow_on=TODAY, dropped_at=NOW)
    text = client.get(reverse("feed", args=[link_of(garden.memberships.get(user=person)).token])).content.decode()
    assert "SUMMARY:Sow carrots in North bed" in text
    assert "20260509" in text
    assert "beet" not in text


def test_undoing_is_refused_when_the_cover_has_gone_elsewhere(signed_in: Client, frame: Place) -> None:
    cover = Cover.objects.create(garden=frame.garden, kind="glass_frame", name="Old frame")
    CoverPeriod.objects.update(item=cover)
    off(frame, nights=0)
    say(signed_in, frame.garden, f"off:{frame.pk}", "done")
    CoverPeriod.objects.create(place=make_place(frame.garden, "Other"), item=cover, cover="glass_frame", first=TODAY)
    url = reverse("take_back_answer", args=[frame.garden_id, Answer.objects.get().pk])
    assert "Old frame is on Other on those days" in signed_in.post(url, headers=HX).content.decode()
    assert CoverPeriod.objects.get(place=frame).last is not None


def test_a_gale_today_and_one_tomorrow_are_two_jobs(frame: Place, person: User) -> None:
    forecast = Forecast.objects.get()
    days = [TODAY + timedelta(days=number) for number in range(3)]
    given = (WeatherWarning(days[0], "gale", 11.0), WeatherWarning(days[1], "gale", 9.0), WeatherWarning(days[2], "snow", 0.1))
    forecast.watch = replace(forecast.watch, warnings=list(given))
    forecast.save()
    units = units_of(person)
    by_key = {job.key: job_line(job, units, TODAY) for job in jobs_in(frame.garden, units, clock.now())}
    assert by_key[f"weather:{frame.pk}-gale-0"].when == "today"
    assert by_key[f"weather:{frame.pk}-gale-1"].do.startswith("Wind of 9 m/s")
    assert by_key[f"weather:{frame.pk}-gale-0"].urgent
    assert not [key for key in by_key if "snow" in key]


def test_a_polytunnel_opens_its_own_doors_once_for_all_that_stands_in_it(
    signed_in: Client, garden: Garden, person: User
) -> None:
    write_air(garden, TODAY - timedelta(days=30), 34, 10.0, 20.0)
    DailyWeather.objects.filter(garden=garden, day__gte=TODAY).update(sky="clear")
    for name in ("West bench", "East bench"):
        bench = make_place(garden, name)
        Place.objects.filter(pk=bench.pk).update(within="polytunnel")
        bench.refresh_from_db()
        refresh(bench)
    # Nothing grows there: nothing is at stake.
    assert not [key for key in keys(garden, person) if key.startswith("doors:")]
    for bench in garden.places.all():
        Planting.objects.create(
            place=bench, crop_key="lettuce", origin="bought", planted_on=TODAY - timedelta(days=30), height_m=0.1
        )
        refresh(bench)
    doors = [key for key in keys(garden, person) if key.startswith("doors:")]
    assert len(doors) == 1
    shown = today(signed_in, garden)
    assert "Open doors and vents of the polytunnel" in shown
    page = signed_in.get(reverse("opening", args=[garden.pk])).content.decode()
    assert page.count("doors and vents of the polytunnel") >= 2
