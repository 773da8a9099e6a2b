"""The queue heals: whatever becomes of workers, sessions and clocks, every place ends up fresh and none is stuck."""

from __future__ import annotations

import time
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import mock

import psycopg
import pytest
from django.core.management import call_command
from django.db import OperationalError, connection
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, precondition, rule, run_state_machine_as_test
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.forecasts import flows, tasks
from cloche.apps.forecasts.models import Forecast
from cloche.apps.forecasts.status import stale_places
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import key_of, note_change_at, note_change_in
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.upkeep.rounds import Round, Rounds
from cloche.apps.work import failures, queue, turns
from cloche.apps.work.models import Failure
from cloche_engine.results import MODEL_VERSION, FrostDates
from tests.factories import make_garden, make_person, make_place
from tests.stored import stored_forecast

START = datetime(2026, 4, 22, 6, 0, tzinfo=UTC)
pytestmark = pytest.mark.django_db(transaction=True)


def session() -> Any:
    """A database session of its own, as a worker has one."""
    known = connection.settings_dict
    return psycopg.connect(
        host=known["HOST"],
        port=known["PORT"],
        dbname=known["NAME"],
        user=known["USER"],
        password=known["PASSWORD"],
        autocommit=True,
    )


class Hand:
    """A worker that has taken a job and works on it; it ends as it likes."""

    def __init__(self) -> None:
        self.session = session()
        self.job = self.session.execute("SELECT (procrastinate_fetch_job_v2(NULL, NULL)).id").fetchone()[0]
        if self.job is not None:
            self.session.execute("SELECT pg_advisory_lock(%s, %s)", [queue.IN_HAND, self.job])

    def lose(self) -> None:
        """kill -9, or a session that the database ended: the job stays as if it were being done."""
        pid = self.session.info.backend_pid
        self.session.close()
        with connection.cursor() as cursor:  # until the database has noticed
            for _ in range(400):
                cursor.execute("SELECT count(*) FROM pg_stat_activity WHERE pid = %s", [pid])
                if not cursor.fetchone()[0]:
                    return
                time.sleep(0.02)

    def finish(self) -> None:
        """Call it done, whether it still is its own or was given to another meanwhile."""
        self.session.execute("DELETE FROM procrastinate_jobs WHERE id = %s", [self.job])
        self.session.close()


FROSTS = FrostDates(None, None, -5.0, 0)


class Queue(RuleBasedStateMachine):
    """Readings, kills, lost sessions, failing places, restarts and clocks that jump, in any order."""

    def __init__(self) -> None:
        super().__init__()
        self.at, self.machine = START, timedelta(0)
        self.hands: list[Hand] = []
        self.broken: set[int] = set()
        self.patches = [
            mock.patch.object(clock, "now", lambda: self.at),  # noqa: PT008 - it moves on
            mock.patch.object(turns, "database_now", lambda: START + self.machine),  # noqa: PT008
            mock.patch.object(flows, "refresh", self.worked_out),
        ]
        for patch in self.patches:
            patch.start()
        garden = make_garden(make_person(f"rowan-{clock.real_now().timestamp()}"), timezone_name="Europe/Vienna")
        self.places = [make_place(garden, f"Bed {n}") for n in range(3)]
        self.garden = garden

    def worked_out(self, place: Place) -> Forecast:
        """A stand-in for the engine: it needs the place's evidence, and fails where it is told to."""
        if place.pk in self.broken:
            raise ValueError("this place cannot be worked out")
        given = {"made_at": self.at, "day": clock.today(place.garden.timezone), "input_revision": place.input_revision}
        forecast, _ = Forecast.objects.update_or_create(
            place=place, defaults=given | {"model_version": MODEL_VERSION, "ground": stored_forecast(), "frosts": FROSTS}
        )
        return forecast

    @rule(which=st.integers(0, 2))
    def reading(self, which: int) -> None:
        note_change_at(self.places[which])

    @rule()
    def weather(self) -> None:
        note_change_in(self.garden)

    @rule()
    def take(self) -> None:
        hand = Hand()
        if hand.job is None:
            hand.lose()
        else:
            self.hands.append(hand)

    @precondition(lambda self: self.hands)
    @rule(how=st.sampled_from(["kill", "lose", "finish"]))
    def end(self, how: str) -> None:
        hand = self.hands.pop(0)
        hand.finish() if how == "finish" else hand.lose()

    @rule()
    def restart(self) -> None:
        while self.hands:
            self.hands.pop().lose()
        call_command("work", once=True)

    @rule()
    def work(self) -> None:
        call_command("work", once=True)

    @rule()
    def rounds(self) -> None:
        queue.heal(grace_s=0)
        tasks.look_round()

    @rule(which=st.integers(0, 2))
    def spoil(self, which: int) -> None:
        self.broken.add(self.places[which].pk)

    @rule(which=st.integers(0, 2))
    def mend(self, which: int) -> None:
        self.broken.discard(self.places[which].pk)

    @rule(hours=st.sampled_from([-9000, -30, -1, 1, 25, 9000]))
    def jump(self, hours: int) -> None:
        self.at += timedelta(hours=hours)
        self.machine += timedelta(hours=hours)

    @invariant()
    def none_twice_at_once(self) -> None:
        doing = list(ProcrastinateJob.objects.filter(status="doing").values_list("lock", flat=True))
        assert len(doing) == len(set(doing))
        waiting = list(ProcrastinateJob.objects.filter(status="todo").values_list("queueing_lock", flat=True))
        assert len(waiting) == len(set(waiting))

    def teardown(self) -> None:
        try:
            self.comes_to_rest()
        finally:
            for patch in self.patches:
                patch.stop()
            self.garden.delete()
            with connection.cursor() as cursor:
                cursor.execute("TRUNCATE procrastinate_jobs CASCADE")

    def comes_to_rest(self) -> None:
        """Nobody fails any more and a day passes: three rounds later everything is fresh and the queue is empty."""
        while self.hands:
            self.hands.pop().lose()
        self.broken.clear()
        self.machine += timedelta(days=1, minutes=1)
        for _ in range(3):
            queue.heal(grace_s=0)
            tasks.look_round()
            call_command("work", once=True)
        assert stale_places() == []
        assert not ProcrastinateJob.objects.exists()
        assert not Failure.objects.filter(place__isnull=False).exists()


def test_every_place_ends_up_fresh_whatever_happens(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(Rounds, "make_due", lambda self, at: [])  # the rules make the rounds, when they like
    given = settings(max_examples=14, stateful_step_count=14, deadline=None, suppress_health_check=list(HealthCheck))
    run_state_machine_as_test(Queue, settings=given)


@pytest.fixture
def bed(now: object) -> Place:
    return make_place(make_garden(make_person("rowan")))


def doing() -> int:
    return ProcrastinateJob.objects.filter(status="doing").count()


def test_a_lost_job_gives_way_to_a_newer_one(bed: Place) -> None:
    note_change_at(bed)
    hand = Hand()
    note_change_at(bed)
    assert queue.heal(grace_s=0) == 0  # it is in hand
    hand.lose()
    assert queue.heal(grace_s=0) == 1
    assert (doing(), ProcrastinateJob.objects.filter(status="todo").count()) == (0, 1)


def test_a_job_that_has_only_just_begun_is_left_alone(bed: Place) -> None:
    note_change_at(bed)
    Hand().lose()
    assert queue.heal(grace_s=600) == 0
    assert queue.heal(grace_s=0) == 1


def test_a_job_that_ends_its_worker_each_time_waits_longer_and_longer(bed: Place) -> None:
    waits = []
    for _ in range(6):
        queue.put("forecasts.work_out", key_of(bed.pk), place_id=bed.pk)
        Hand().lose()
        queue.heal(grace_s=0)
        failure = Failure.objects.get()
        waits.append((failure.next_at - failure.last_at).total_seconds())
        ProcrastinateJob.objects.all().delete()
    assert waits == [0, 0, 0, 60, 300, 1800]
    assert failure.place == bed
    assert failure.text == "The worker ended half way, more than once."


def test_a_failing_place_keeps_no_other_waiting(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    other, real = make_place(bed.garden, "Other"), flows.refresh

    def sometimes(place: Place) -> Forecast:
        if place == bed:
            raise ZeroDivisionError("a fault of our own\x00")
        return real(place)

    monkeypatch.setattr(flows, "refresh", sometimes)
    call_command("work", once=True)
    assert Forecast.objects.get().place == other
    failure = Failure.objects.get(place=bed)
    assert failure.count == 1
    assert "ZeroDivisionError: a fault of our own" in failure.detail
    assert failure.text == failures.OWN_FAULT
    assert not ProcrastinateJob.objects.exists()
    assert tasks.look_round() == 0  # it waits for its time and is not queued each minute without end
    call_command("work", once=True)
    assert Failure.objects.get(place=bed).count == 1
    note_change_at(bed)  # but somebody changed something: it is tried at once
    call_command("work", once=True)
    assert Failure.objects.get(place=bed).count == 2
    monkeypatch.setattr(flows, "refresh", real)
    Failure.objects.update(next_at=turns.database_now())
    call_command("work", once=True)
    assert stale_places() == []
    assert not Failure.objects.filter(place=bed).exists()


def test_a_place_that_is_fresh_after_all_has_nothing_left_to_be_told(bed: Place) -> None:
    call_command("work", once=True)
    failures.note(key_of(bed.pk), ValueError("x"), task="forecasts.work_out", place_id=bed.pk)
    tasks.look_round()
    assert not Failure.objects.exists()


def test_one_gardens_lost_zone_keeps_no_other_waiting(bed: Place) -> None:
    odd = make_garden(make_person("hazel"), "Odd", timezone_name="Mars/Olympus")
    make_place(odd, "Crater")
    call_command("work", once=True)
    assert stale_places() == []
    assert odd.timezone.key == "UTC"
    assert Garden.objects.get(pk=odd.pk).lost_its_zone


def test_waiting_grows_to_a_day_and_no_further(bed: Place) -> None:
    waits = []
    for _ in range(8):
        row = failures.note("k", ValueError("x"), task="t")
        waits.append((row.next_at - row.last_at).total_seconds() / 60)
    assert waits == [1, 5, 30, 120, 360, 1440, 1440, 1440]
    assert failures.waiting() == {"k"}
    failures.mended("k")
    assert failures.waiting() == set()


def test_a_clock_that_was_set_back_keeps_nothing_waiting(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    failures.note("k", ValueError("x"), task="t")
    real = turns.database_now()
    monkeypatch.setattr(turns, "database_now", lambda: real - timedelta(days=400))
    assert failures.waiting() == set()


def test_old_failures_and_the_oldest_of_too_many_are_pruned(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(failures, "MOST_ROWS", 3)
    for n in range(5):
        failures.note(f"k{n}", ValueError("x"), task="t")
    Failure.objects.filter(key="k4").update(last_at=turns.database_now() - timedelta(days=40))
    assert failures.prune() == 2
    assert set(Failure.objects.values_list("key", flat=True)) == {"k1", "k2", "k3"}


def test_one_rounds_fault_keeps_no_other_from_being_made(bed: Place) -> None:
    made = []

    def broken() -> None:
        raise KeyError("no")

    rounds = Rounds((Round("broken", 10, broken), Round("good", 10, lambda: made.append(1))))
    assert rounds.make_due(100.0) == ["broken", "good"]
    assert rounds.make_due(105.0) == []
    assert rounds.make_due(111.0) == ["broken", "good"]
    assert made == [1, 1]
    assert Failure.objects.get().count == 2


def test_a_full_disk_is_not_held_against_the_work(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(place: Place) -> Forecast:
        raise OperationalError("could not extend file") from psycopg.errors.DiskFull("could not extend file")

    monkeypatch.setattr(flows, "refresh", full)
    call_command("work", once=True)
    assert not Failure.objects.filter(place=bed).exists()
    assert stale_places() == [bed.pk]


def waiting() -> list[str]:
    """Keys in the order in which workers take them."""
    return list(
        ProcrastinateJob.objects.filter(status="todo").order_by("-priority", "id").values_list("queueing_lock", flat=True)
    )


def test_what_somebody_looks_at_goes_before_all_that_a_new_day_asks_of_every_place(bed: Place) -> None:
    others = [make_place(bed.garden, f"Bed {number}") for number in range(3)]
    tasks.look_round()
    assert waiting()[0] == key_of(bed.pk)
    note_change_at(others[1], by_itself=True)
    assert waiting()[0] == key_of(others[1].pk)
    note_change_at(others[2])
    assert waiting()[:2] == [key_of(others[2].pk), key_of(others[1].pk)]
    tasks.look_round()  # a round asks less urgently, and pushes nothing down
    assert waiting()[:2] == [key_of(others[2].pk), key_of(others[1].pk)]
    assert len(waiting()) == 4


def test_what_a_worker_has_in_hand_is_not_moved(bed: Place) -> None:
    tasks.look_round()
    Hand()
    queue.put("forecasts.work_out", key_of(bed.pk), queue.SOON, place_id=bed.pk)
    rows = ProcrastinateJob.objects.values_list("status", "priority")
    assert set(rows) == {("doing", queue.NIGHTLY), ("todo", queue.SOON)}


def test_gardens_take_turns(bed: Place) -> None:
    large = [bed, *(make_place(bed.garden, f"Bed {number}") for number in range(3))]
    small = make_place(make_garden(make_person("hazel"), "Small"))
    assert stale_places() == [large[0].pk, small.pk, *(place.pk for place in large[1:])]


def test_each_room_has_a_queue_and_a_worker_can_be_kept_for_one(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    assert {"accounts", "covers", "forecasts", "readings", "records", "upkeep", "weather"} == set(queue.all_queues())
    monkeypatch.setattr(flows, "refresh_if_stale", lambda _pk: None)
    note_change_at(bed)
    call_command("work", "--once", "--queues", "weather,readings", "--without-rounds")
    assert waiting() == [key_of(bed.pk)]
    call_command("work", "--once", "--queues", "forecasts", "--without-rounds")
    assert waiting() == []


def test_tables_are_made_ready_once_and_not_touched_where_they_are(monkeypatch: pytest.MonkeyPatch) -> None:
    from cloche.apps.upkeep.management.commands import ready

    commands: list[str] = []
    monkeypatch.setattr(ready, "call_command", lambda name, **_more: commands.append(name))
    call_command("ready", verbosity=0)
    assert commands == []
    monkeypatch.setattr(ready.MigrationExecutor, "migration_plan", lambda *_: ["one"])
    call_command("ready", verbosity=0)
    assert commands == ["migrate"]
    monkeypatch.setattr(ready, "_wanted", lambda: {"cache_entries"})
    monkeypatch.setattr(ready.MigrationExecutor, "migration_plan", lambda *_: [])
    call_command("ready", verbosity=0)
    assert commands == ["migrate", "createcachetable"]
    with session() as other:  # and let go of what others wait for
        assert other.execute("SELECT pg_try_advisory_lock(%s)", [ready.LOCK]).fetchone() == (True,)
