"""Germination trials: laid out, counted in one grid, told with intervals beside the tables, and offered to the packet."""

from __future__ import annotations

from datetime import timedelta
from functools import partial

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import keep_days
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.trials.pages import soil_since, trial_page, warmth_of
from tests.conftest import NOW
from tests.factories import make_place

TODAY = NOW.date()
BEGUN = TODAY - timedelta(days=14)


@pytest.fixture
def trial(garden: Garden) -> GerminationTrial:
    return garden.germination_trials.create(name="Carrots warm and cold", begun_on=BEGUN)


def url(trial: GerminationTrial) -> str:
    return reverse("germination_trial", args=[trial.garden_id, trial.pk])


def batch(trial: GerminationTrial, warmth_c: float | None, ups: tuple[int, ...] = (), **values: object) -> TrialBatch:
    made = trial.batches.create(crop_key="carrot", seeds=50, warmth_c=warmth_c, **values)
    for number, up in enumerate(ups):
        made.counts.create(on=BEGUN + timedelta(days=4 + 3 * number), up=up)
    return made


def test_it_is_begun_and_batches_are_laid_out(signed_in: Client, garden: Garden) -> None:
    begin = reverse("germination_trials", args=[garden.pk])
    assert signed_in.post(begin, {"name": "Late", "begun_on": "2026-08-01"}).status_code == 422
    signed_in.post(begin, {"name": "Warmth", "begun_on": BEGUN.isoformat()})
    trial = GerminationTrial.objects.get()
    refused = signed_in.post(url(trial), {"crop_key": "carrot", "seeds": "25"})
    assert "Enter a temperature or choose a place." in refused.content.decode()
    other = garden.packets.create(crop_key="pea")
    wrong = signed_in.post(url(trial), {"crop_key": "carrot", "seeds": "25", "warmth": "15", "packet": other.pk})
    assert "of another crop" in wrong.content.decode()
    signed_in.post(url(trial), {"crop_key": "carrot", "seeds": "25", "warmth": "15,5"})
    assert TrialBatch.objects.get().warmth_c == 15.5


def test_a_day_is_counted_in_one_grid(signed_in: Client, trial: GerminationTrial) -> None:
    warm, cold = batch(trial, 20.0), batch(trial, 10.0)
    day = (BEGUN + timedelta(days=8)).isoformat()
    refused = signed_in.post(url(trial), {"on": day, f"up_{warm.pk}": "51", f"up_{cold.pk}": "3"})
    assert "Enter at most 50, the number tested." in refused.content.decode()
    assert "every row is empty" in signed_in.post(url(trial), {"on": day}).content.decode()
    assert (
        "too early for any seedlings"
        in signed_in.post(url(trial), {"on": BEGUN.isoformat(), f"up_{warm.pk}": "1"}).content.decode()
    )
    assert not TrialCount.objects.exists()
    signed_in.post(url(trial), {"on": day, f"up_{warm.pk}": "31", f"up_{cold.pk}": ""})
    signed_in.post(url(trial), {"on": day, f"up_{warm.pk}": "33"})
    assert [(count.batch_id, count.up) for count in TrialCount.objects.all()] == [(warm.pk, 33)]


def test_shares_and_days_stand_with_their_intervals_beside_the_tables(trial: GerminationTrial) -> None:
    batch(trial, 20.0, (4, 30, 41, 43))
    batch(trial, 8.0, (0, 0, 2, 2))
    batch(trial, -4.0)
    page = trial_page(trial, units_of(trial.garden.memberships.get().user), TODAY)
    cold, none, warm = _by_warmth(page.lines)
    assert warm.share == "43 of 50: 86% (74–93%)"
    assert warm.half.startswith("6.")
    assert "% of viable seed" in warm.expected
    assert cold.half == "too few to say"
    assert none.expected == "none would come up"
    assert page.headline == "Carrots warm and cold: best result Carrot at 20°, 86%."
    assert [batch.name for batch in page.courses[0].batches] == ["8°", "20°"]


def _by_warmth(lines: list) -> list:  # type: ignore[type-arg]
    by_warmth = {line.batch.warmth_c: line for line in lines}
    return [by_warmth[8.0], by_warmth[-4.0], by_warmth[20.0]]


def test_a_batch_in_a_place_is_as_warm_as_the_place_was(trial: GerminationTrial) -> None:
    tray = make_place(trial.garden, "Tray", kind="tray")
    made = batch(trial, None, place=tray)
    assert warmth_of(made, partial(soil_since, trial, TODAY)) is None
    keep_days(tray, 0.02, {BEGUN + timedelta(days=day): 18.0 + day % 2 for day in range(14)})
    assert warmth_of(made, partial(soil_since, trial, TODAY)) == pytest.approx(18.5)


def test_the_packet_takes_what_came_up(signed_in: Client, trial: GerminationTrial) -> None:
    packet = trial.garden.packets.create(crop_key="carrot", variety="Amber")
    made = batch(trial, 20.0, (4, 30, 41, 43), packet=packet)
    assert "save to packet" in signed_in.get(url(trial)).content.decode()
    signed_in.post(reverse("teach_packet", args=[trial.garden_id, trial.pk, made.pk]))
    packet.refresh_from_db()
    assert (packet.tested_of, packet.tested_up) == (50, 43)
    without = batch(trial, 10.0, (0, 3))
    assert signed_in.post(reverse("teach_packet", args=[trial.garden_id, trial.pk, without.pk])).status_code == 404


def test_counts_batches_and_ends_can_be_taken_back(signed_in: Client, trial: GerminationTrial) -> None:
    made = batch(trial, 20.0, (4, 30))
    count = made.counts.first()
    assert count
    signed_in.post(reverse("remove_trial_count", args=[trial.garden_id, trial.pk, count.pk]))
    assert made.counts.count() == 1
    end = reverse("end_germination", args=[trial.garden_id, trial.pk])
    signed_in.post(end)
    trial.refresh_from_db()
    assert trial.ended_on == TODAY
    signed_in.post(end, {"again": ""})
    trial.refresh_from_db()
    assert trial.ended_on is None
    signed_in.post(reverse("remove_batch", args=[trial.garden_id, trial.pk, made.pk]))
    assert not TrialBatch.objects.exists()


def test_crops_are_laid_out_at_several_temperatures_and_counted_in_one_table(
    signed_in: Client, trial: GerminationTrial
) -> None:
    typed = {"crop_keys": ["carrot", "pea"], "warmths": "10 15; 20,5", "each": "25"}
    page = signed_in.post(url(trial), typed, follow=True).content.decode()
    assert "6 batches laid out" in page
    assert [batch.warmth_c for batch in trial.batches.filter(crop_key="pea")] == [10.0, 15.0, 20.5]
    assert '<th scope="col">20.5°</th>' in page
    signed_in.post(url(trial), dict(typed, warmths="15 25"))
    assert trial.batches.count() == 8, "what is there already is not laid out again"
    day = (BEGUN + timedelta(days=10)).isoformat()
    ups = {f"up_{batch.pk}": "12" for batch in trial.batches.all()}
    assert "48% (" in signed_in.post(url(trial), {"on": day, **ups}, follow=True).content.decode()
    assert TrialCount.objects.count() == 8


@pytest.mark.parametrize(
    ("typed", "said"), [("10 warm", "“warm”"), ("10 300", "“300”"), (" ".join(str(n) for n in range(13)), "at most 12")]
)
def test_temperatures_that_cannot_be_are_named(signed_in: Client, trial: GerminationTrial, typed: str, said: str) -> None:
    response = signed_in.post(url(trial), {"crop_keys": ["pea"], "warmths": typed, "each": "25"})
    assert response.status_code == 422
    assert said in response.content.decode()
    assert not TrialBatch.objects.exists()


SHEET = "Crop\t5\t10 °C\t20\nCarrot\t0\t8\t22\nPeas\t3\t\t30/40\n"


def test_a_whole_trial_is_pasted_from_a_spreadsheet(signed_in: Client, trial: GerminationTrial) -> None:
    typed = {"table": SHEET, "seeds_each": "25", "counted_on": (BEGUN + timedelta(days=10)).isoformat()}
    page = signed_in.post(url(trial), typed, follow=True).content.decode()
    assert "Counts of 5 batches saved." in page
    assert [(b.crop_key, b.warmth_c, b.seeds, b.counts.get().up) for b in trial.batches.all()] == [
        ("carrot", 5.0, 25, 0), ("carrot", 10.0, 25, 8), ("carrot", 20.0, 25, 22), ("pea", 5.0, 25, 3), ("pea", 20.0, 40, 30),
    ]  # fmt: skip
    assert "by day 10" in page
    assert "Carrots: at 20° and above, at least half as many came up" in page
    signed_in.post(url(trial), typed)
    assert TrialCount.objects.count() == 5, "the same table twice changes nothing"


def test_every_mistake_in_a_table_is_named_and_nothing_is_saved(signed_in: Client, trial: GerminationTrial) -> None:
    table = "Crop;10;20\nCarot;1;2\nCarrot;some;26\nPea;1;2;3\n"
    typed = {"table": table, "seeds_each": "25", "counted_on": TODAY.isoformat()}
    page = signed_in.post(url(trial), typed).content.decode()
    for said in (
        "Row 2: there is no crop called “Carot”",
        "Row 3: “some”",
        "Row 3: “26”",
        "Row 4: “3” is in a column without a temperature",
    ):
        assert said in page
    assert "Carrot;some;26" in page
    assert not TrialBatch.objects.exists()
    assert "Row 1: “hot”" in signed_in.post(url(trial), dict(typed, table="Crop;hot\nPea;1")).content.decode()
    assert "a row of temperatures" in signed_in.post(url(trial), dict(typed, table="Pea 10")).content.decode()


def test_the_windows_go_by_a_trial_once_it_is_chosen(signed_in: Client, trial: GerminationTrial) -> None:
    for warmth in (15.0, 20.0):
        made = batch(trial, warmth)
        for day, up in ((6, 2), (12, 20), (13, 31), (14, 41)):
            made.counts.create(on=BEGUN + timedelta(days=day), up=up)
    assert "Carrots took 1." in signed_in.get(url(trial)).content.decode()
    teach = reverse("teach_pace", args=[trial.garden_id, trial.pk, "carrot"])
    assert "Sowing windows use this." in signed_in.post(teach, follow=True).content.decode()
    packet = trial.garden.packets.get()
    assert 1.0 < packet.values["pace"] < 2.5
    # A packet that was tried comes into use with it: otherwise its pace would decide nothing.
    tried = trial.garden.packets.create(crop_key="carrot", variety="Amber", in_use=False)
    trial.batches.update(packet=tried)
    signed_in.post(teach)
    tried.refresh_from_db()
    assert tried.in_use
    assert tried.values["pace"] == packet.values["pace"]
    assert signed_in.post(reverse("teach_pace", args=[trial.garden_id, trial.pk, "pea"])).status_code == 404
