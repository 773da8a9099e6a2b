"""What a cover would buy, the covers that a garden owns, and putting one on."""

import re
from datetime import date, timedelta

import pytest
from django.test import Client
from django.urls import reverse
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.covers import flows
from cloche.apps.covers.pages.compare import _is_taken
from cloche.apps.covers.tasks import answer_bed
from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverPeriod, Place
from cloche.apps.sowings.models import Intention
from cloche.apps.work import turns
from cloche_engine.forecast import snapshots, whatif
from tests.conftest import NOW
from tests.factories import make_person, make_place, read_twice_daily, turn_of_another, write_air

TODAY = NOW.date()
OWN = {"kind": "film_tunnel", "name": "Long tunnel", "length": "600", "width": "160", "spread": "90", "purchase_year": "2023"}


@pytest.fixture
def bed(garden: Garden) -> Place:
    write_air(garden, TODAY - timedelta(days=40), 41, 1.0, 11.0)
    place = make_place(garden)
    read_twice_daily(place, 9, NOW, 5.0, 9.0)
    Garden.objects.filter(pk=garden.pk).update(crops=["carrot", "beet", "squash"])
    garden.refresh_from_db()
    refresh(place)
    return place


def own(garden: Garden, **values: object) -> Cover:
    given = {"kind": "glass_frame", "name": "Old frame", "length_m": 1.8, "price": 90.0} | values
    return Cover.objects.create(garden=garden, **given)


def query(client: Client, bed: Place, **query: object) -> str:
    answer = client.get(reverse("covers", args=[bed.garden_id]), {"place": bed.pk, "on": TODAY.isoformat()} | query)
    return answer.content.decode()


def test_ones_own_cover_is_told_with_its_days_and_can_be_put_on(signed_in: Client, bed: Place) -> None:
    cover = own(bed.garden)
    shown = query(signed_in, bed, crop="squash", warm=14)
    assert "Old frame" in shown
    assert "your cold frame with glass" in shown
    assert "warmer than without a cover, averaged over day and night for two weeks" in shown
    assert f"cover=own-{cover.pk}&amp;first=2026-04-22&amp;crop=squash&amp;sow_on=2026-05-06" in shown
    assert "It rarely needs opening" in shown
    # Each slice carries what differs: the air at its coldest and hottest, and the days gained.
    assert shown.count('class="in-cover"') == shown.count('<svg class="slice"') > 2
    assert "warmer</em>" in shown


def test_without_one_crop_all_that_is_grown_is_told(signed_in: Client, bed: Place) -> None:
    shown = query(signed_in, bed)
    assert "warms the soil most" in shown
    assert f"{reverse('season_moved', args=[bed.garden_id])}?place={bed.pk}" in shown


def test_the_piece_alone_comes_for_a_change_of_the_form(signed_in: Client, bed: Place) -> None:
    url = reverse("covers", args=[bed.garden_id])
    answer = signed_in.get(url, {"place": bed.pk, "crop": "carrot"}, headers={"HX-Request": "true"}).content.decode()
    assert "<html" not in answer
    assert "carrots" in answer


def test_a_day_more_than_a_year_ahead_is_refused_where_it_stands(signed_in: Client, bed: Place) -> None:
    url = reverse("covers", args=[bed.garden_id])
    answer = signed_in.get(url, {"place": bed.pk, "on": (TODAY + timedelta(days=366)).isoformat()})
    assert answer.status_code == 422
    assert "Enter a date from today to 22 April 2027, a year ahead." in answer.content.decode()


def test_far_ahead_a_cover_is_told_by_the_usual_weather(signed_in: Client, bed: Place) -> None:
    assert "usual weather" not in query(signed_in, bed, crop="carrot")
    far = query(signed_in, bed, crop="carrot", on=(TODAY + timedelta(days=330)).isoformat())
    assert "So far ahead, the answer is based on the usual weather." in far
    assert "warmer than without a cover, averaged over day and night for two weeks" in far


def test_what_another_version_kept_is_waited_for(signed_in: Client, bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(snapshots, "FORMAT", 99)
    whatif._snapshot.cache_clear()
    assert "Updating the forecast for North bed" in query(signed_in, bed)
    cover = own(bed.garden)
    assert flows.answer_bed(cover, bed) is None
    whatif._snapshot.cache_clear()


def test_a_bed_not_yet_worked_out_says_so(signed_in: Client, garden: Garden) -> None:
    assert "Working out the first forecast" in query(signed_in, make_place(garden, "New bed"))


def test_an_empty_garden_is_offered_a_bed(signed_in: Client, garden: Garden) -> None:
    assert "Add your first place" in signed_in.get(reverse("covers", args=[garden.pk])).content.decode()


def test_a_cover_is_listed_with_its_shape_age_and_cost(signed_in: Client, garden: Garden) -> None:
    signed_in.post(reverse("own_covers", args=[garden.pk]), OWN | {"price": "26"})
    cover = Cover.objects.get()
    assert (cover.length_m, cover.width_m, cover.spread_m) == (6.0, 1.6, 0.9)
    shown = signed_in.get(reverse("own_covers", args=[garden.pk])).content.decode()
    assert "600 cm by 160 cm, set 90 cm apart: 53.9 cm high, room for plants of 15 cm over 90 cm" in shown
    assert "3 years old, lets 76% of the sun through" in shown
    assert "5.20 per season over 5 years" in shown


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"width": "9000"}, "from 10 cm to 1200 cm"),
        ({"spread": "200"}, "stand nearer to each other than the sheet is wide"),
        ({"purchase_year": "2031"}, "a year from 1950 to 2026"),
        ({"price": "-2"}, "from 0 to"),
        ({"length": "long"}, "is not a number"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(signed_in: Client, garden: Garden, wrong: dict[str, str], said: str) -> None:
    answer = signed_in.post(reverse("own_covers", args=[garden.pk]), OWN | wrong)
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert not Cover.objects.exists()


def test_two_covers_of_one_name_and_taking_off_and_back(signed_in: Client, garden: Garden) -> None:
    url = reverse("own_covers", args=[garden.pk])
    signed_in.post(url, OWN)
    assert "already have a cover called" in signed_in.post(url, OWN).content.decode()
    cover = Cover.objects.get()
    signed_in.post(reverse("remove_own", args=[garden.pk, cover.pk]))
    assert "restored" in signed_in.get(url).content.decode()
    signed_in.post(url, OWN)
    given = signed_in.post(reverse("put_back_own", args=[garden.pk, cover.pk]), follow=True).content.decode()
    assert "Rename that one first" in given
    Cover.objects.filter(removed_at=None).update(name="Other")
    signed_in.post(reverse("put_back_own", args=[garden.pk, cover.pk]))
    assert Cover.objects.filter(removed_at=None).count() == 2


def test_one_cover_cannot_be_on_two_beds(signed_in: Client, garden: Garden) -> None:
    first, second, cover = make_place(garden, "First"), make_place(garden, "Second"), own(garden)
    given = {"cover": f"own-{cover.pk}", "first": "2026-04-20", "opens": "above", "above": "26", "opening": "0.4"}
    given |= {"from_h": "10", "to_h": "16", "ends_capped": "on"}
    signed_in.post(reverse("put_on", args=[garden.pk, first.pk]), given)
    assert CoverPeriod.objects.get().item == cover
    answer = signed_in.post(reverse("put_on", args=[garden.pk, second.pk]), given | {"first": "2026-04-25"})
    assert answer.status_code == 422
    assert "Old frame is on First on those days. One cover cannot be on two beds." in answer.content.decode()
    signed_in.post(reverse("take_cover_off", args=[garden.pk, first.pk, CoverPeriod.objects.get().pk]))
    signed_in.post(reverse("put_on", args=[garden.pk, second.pk]), given | {"first": "2026-04-25"})
    assert CoverPeriod.objects.filter(item=cover).count() == 2


def test_putting_on_means_to_sow_as_well(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden)
    given = {"cover": "fleece", "first": "2026-04-25", "opens": "closed", "above": "26", "opening": "0.4"}
    given |= {"from_h": "10", "to_h": "16"}
    early = signed_in.post(reverse("put_on", args=[garden.pk, place.pk]), given | {"crop": "carrot", "sow_on": "2026-04-20"})
    assert "before the cover goes on" in early.content.decode()
    assert not CoverPeriod.objects.exists()
    signed_in.post(reverse("put_on", args=[garden.pk, place.pk]), given | {"crop": "carrot", "sow_on": "2026-05-09"})
    meant = Intention.objects.get()
    assert (meant.crop_key, meant.sow_on.isoformat()) == ("carrot", "2026-05-09")


def test_where_it_buys_most_is_told_bed_by_bed(signed_in: Client, bed: Place) -> None:
    cover = own(bed.garden, kind="twin_wall_arch", name="Sheet", price=40.0, width_m=1.2, spread_m=0.8)
    url = reverse("compare", args=[bed.garden_id, cover.pk])
    first = signed_in.get(url).content.decode()
    assert "Trying Sheet on every bed; 1 bed is left." in first
    assert 'hx-trigger="load delay:2s"' in first
    for _ in range(8):  # however many look at it, it is worked out once
        signed_in.get(url)
    (job,) = ProcrastinateJob.objects.filter(task_name="covers.answer_bed")
    answer_bed(**job.args)
    shown = signed_in.get(url, headers={"HX-Request": "true"}).content.decode()
    assert "North bed" in shown
    assert "warmer over two weeks" in shown
    assert "hx-trigger" not in shown
    assert "<html" not in shown


def test_a_question_waits_for_its_turn_and_holds_no_thread(
    signed_in: Client, bed: Place, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(turns, "PATIENCE_S", 0.01)
    covers, sandbox = (reverse(name, args=[bed.garden_id]) for name in ("covers", "sandbox"))
    with turn_of_another(turns.ENGINE):
        shown = signed_in.get(covers, {"place": bed.pk, "on": TODAY.isoformat(), "warm": 14, "crop": ""}).content.decode()
        assert turns.WAITS in shown
        assert 'hx-trigger="load delay:2s"' in shown
        assert turns.WAITS in signed_in.get(sandbox).content.decode()
    assert turns.WAITS not in signed_in.get(sandbox).content.decode()


def test_a_frame_that_always_has_its_glass_is_not_free_for_another(bed: Place) -> None:
    cover, frame = own(bed.garden), make_place(bed.garden, "Frame", kind="frame")
    assert _is_taken(frame, cover, TODAY)
    assert not _is_taken(bed, cover, TODAY)
    frame.cover_periods.create(cover="glass_frame", first=TODAY - timedelta(days=9), last=TODAY - timedelta(days=2))
    assert not _is_taken(frame, cover, TODAY)


def test_an_old_dirty_cover_is_reckoned_as_such(bed: Place) -> None:
    from cloche.apps.forecasts.inputs import build_inputs, cover_description, span_of
    from cloche_engine.forecast.places import kind_of

    cover = own(bed.garden, kind="bent_sheet", purchase_year=2020, dirty=True, width_m=1.2, spread_m=0.8)
    period = CoverPeriod.objects.create(place=bed, item=cover, cover="bent_sheet", first=TODAY)
    assert cover_description(cover, TODAY) == {"age_y": 6.0, "dirty": True, "sheet_m": 1.2, "spread_m": 0.8} | {
        "length_m": cover.length_m,
        "low_m": None,
        "high_m": None,
        "item": cover.pk,
    }
    kind = kind_of(span_of(period, TODAY))
    assert kind.solar == pytest.approx(0.84 - 0.25)
    assert kind.gap_m < 0.4
    assert build_inputs(bed, []).covers[0].age_y == 6.0


def test_a_stranger_sees_none_of_it(client: Client, bed: Place) -> None:
    client.force_login(make_person("hazel"), backend="allauth.account.auth_backends.AuthenticationBackend")
    assert client.get(reverse("covers", args=[bed.garden_id])).status_code == 404


def test_alike_covers_are_told_once_and_any_other_can_be_asked_for(signed_in: Client, bed: Place) -> None:
    for number in range(3):
        own(bed.garden, name=f"Frame {number}", kind="glass_frame")
    shown = query(signed_in, bed, also="black_film")
    assert [f"Frame {number}" in shown for number in range(3)] == [True, False, False]
    assert "Black film on the soil" in shown
    assert (
        signed_in.get(
            reverse("covers", args=[bed.garden_id]), {"place": bed.pk, "on": TODAY.isoformat(), "also": "roof"}
        ).status_code
        == 422
    )


def test_what_is_free_is_offered_first(signed_in: Client, garden: Garden) -> None:
    first, second, cover = make_place(garden, "First"), make_place(garden, "Second"), own(garden)
    spare = own(garden, name="Spare frame")
    CoverPeriod.objects.create(place=first, cover=cover.kind, item=cover, first=date(2026, 4, 1))
    page = signed_in.get(reverse("put_on", args=[garden.pk, second.pk])).content.decode()
    offered = re.findall(r'<option value="(own-\d+|[a-z_]+)"', page)
    assert offered[0] == f"own-{spare.pk}"
    assert offered.index(f"own-{cover.pk}") > offered.index("fleece")


def test_another_layer_is_compared_with_what_stands_there(signed_in: Client, bed: Place) -> None:
    """Common practice, no source: fleece below hoops is warmer by night than the hoops alone."""
    bed.cover_periods.create(cover="film_tunnel", first=date(2026, 3, 1))
    refresh(bed)
    page = signed_in.get(reverse("covers", args=[bed.garden_id]), {"place": bed.pk, "on": "2026-04-22", "warm": "14"}).context[
        "page"
    ]
    rows = {row.name: row for row in page.rows}
    assert rows["Fleece under a hooped tunnel"].what == "with another layer"
    assert "Hooped tunnel of two films" in rows
    form = signed_in.get(f"{reverse('put_on', args=[bed.garden_id, bed.pk])}?{rows['Fleece under a hooped tunnel'].put_on}")
    assert form.context["form"]["cover"].value() == "fleece"
    assert form.context["form"]["both"].value() == "on"
    assert "checked" in str(form.context["form"]["both"])
    bed.cover_periods.create(cover="fleece", first=date(2026, 3, 1))
    refresh(bed)
    page = signed_in.get(reverse("covers", args=[bed.garden_id]), {"place": bed.pk, "on": "2026-04-22", "warm": "14"}).context[
        "page"
    ]
    assert [row.name for row in page.rows if row.what == "with another layer"] == []
