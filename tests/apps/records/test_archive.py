"""A garden taken out, brought in, taken out again is the same to the byte; what cannot be read is named and nothing is kept."""

import csv
import io
import json
import zipfile
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse
from frictionless import Package, system
from PIL import Image

from cloche.apart.picture import small_jpeg
from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden, User
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.loggers.models import LoggedHour, LoggedReading
from cloche.apps.places.models import (
    BenchCheck,
    Cover,
    CoverDamage,
    CoverPeriod,
    HeatPeriod,
    HeatTest,
    Hotbed,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Lamp,
    Operation,
    Place,
    Room,
    RoomAir,
    TuberTray,
)
from cloche.apps.plants.models import BedShape, PlantEvent, Planting, SavedSeed
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records.archive import read
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.read import NotTaken, read_archive
from cloche.apps.records.archive.tables import TABLES
from cloche.apps.records.archive.write import write_archive
from cloche.apps.records.models import ArchivePart, IncomingArchive
from cloche.apps.records.tasks import take_archive
from cloche.apps.seed.models import CropChoice, Packet
from cloche.apps.sowings.flows import take_step
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.weather.models import DailyWeather
from cloche.apps.work import turns
from cloche.apps.years.models import Sign
from tests.conftest import NOW
from tests.factories import make_garden, make_place, make_reading, picture, turn_of_another

LATER = {table.name for table in TABLES if table.later}
PICTURE = small_jpeg(picture(64, 48))


@pytest.fixture
def full(person: User, now: object) -> Garden:
    """A garden with something in every table, and with what must stay out."""
    given = {"sowing_rule": "minimum", "watered": False, "zone": "7a", "away_from_h": 8, "away_to_h": 17}
    garden = make_garden(person, "Höhe, “oben”", crops=["carrot", "pea"], **given)
    garden.normal_lows_c, garden.normal_highs_c = [float(m) - 5.1 for m in range(12)], [float(m) + 5.7 for m in range(12)]
    garden.save()
    bed, frame = make_place(garden, "Nordbeet; lang"), make_place(garden, "Frame", kind="frame", shaded_from_h=7, shaded_to_h=9)
    gone = make_place(garden, "Gone", removed_at=NOW)
    make_reading(gone, NOW)
    own = Cover.objects.create(garden=garden, kind="glass_frame", name="Größter", purchase_year=2019, price=80.5, dirty=True)
    Cover.objects.create(garden=garden, kind="fleece", name="Torn", removed_at=NOW)
    CoverPeriod.objects.create(place=frame, item=own, cover="glass_frame", first=NOW.date(), above_c=24.5)
    Hotbed.objects.create(place=frame, filled_on=NOW.date(), depth_m=0.55)
    CoverTrial.objects.create(covered=frame, bare=bed, depth_m=0.05, begun_on=NOW.date(), alike=["soil", "sun"])
    Intention.objects.create(place=bed, crop_key="pea", sow_on=NOW.date())
    room = Room.objects.create(garden=garden, name="Küche", kind="living", night_c=17.5, day_c=22)
    RoomAir.objects.create(room=room, what="room_low", at=NOW, since=NOW - timedelta(days=1), temperature_c=16.5)
    Room.objects.create(garden=garden, name="Sold", removed_at=NOW)
    frame.room, frame.window_aspect_deg, frame.window_shade = room, 225.0, 0.6
    frame.save()
    HeatPeriod.objects.create(
        place=frame, source="cable", first=NOW.date(), cable_m=6.5, cable_w_m=12, spans=[[5.5, 9], [16, 21]]
    )
    heap = make_place(garden, "Heap", kind="hotbed")
    HotbedTray.objects.create(place=bed, hotbed=heap, first=NOW.date(), last=NOW.date())
    Lamp.objects.create(place=frame, first=NOW.date(), ppfd=180.5, spans=[[6, 20.25]])
    HotbedFill.objects.create(place=frame, on=NOW.date(), material="hay", depth_m=0.25)
    HotbedNote.objects.create(place=frame, on=NOW.date(), core_c=54.5, height_m=0.48, note="smells sweet")
    TuberTray.objects.create(
        place=frame, crop_key="potato_maincrop", variety="Äpfel", tubers=30, set_out_on=NOW.date(), plant_on=NOW.date()
    )
    BenchCheck.objects.create(place=frame, item="cut_out", on=NOW.date())
    HeatTest.objects.create(place=frame, on=NOW.date(), minutes=95, spots=[20.5, None, 22, 21, 24, 23, 20, 21, 22])
    operation = Operation.objects.create(place=bed, work="watered", at=NOW, amount=12.5)
    visit = Visit.objects.create(
        key=uuid4(), place=bed, at=NOW, air_low_c=-1.25, moisture="wet", note="=a, b “c”", losses="a\nb", photo=PICTURE
    )
    visit.operations.add(operation)
    Visit.objects.create(key=uuid4(), place=bed, at=NOW, removed_at=NOW)
    make_reading(bed, NOW, 9.1, visit=visit, note="über", review="left_out")
    make_reading(bed, NOW - timedelta(hours=8), 1 / 3, depth_m=0.1, source="file")
    make_reading(bed, NOW, 30.0, removed_at=NOW, depth_m=0.2)
    DailyWeather.objects.create(garden=garden, day=NOW.date(), low_c=-2.2, high_c=11.1, rain_mm=0.0, sky="clear", snow_m=0.04)
    packet = Packet.objects.create(garden=garden, crop_key="carrot", variety="Amber", price=2.4, values={"minimum_c": 7.0})
    CropChoice.objects.create(garden=garden, crop_key="pea", sowing_rule="calendar", method="direct")
    sowing = Sowing.objects.create(place=bed, packet=packet, crop_key="carrot", sown_on=NOW.date(), seeds=120, depth_m=0.015)
    Count.objects.create(sowing=sowing, on=NOW.date(), up=7)
    take_step(Step(sowing=sowing, kind="moved", on=NOW.date(), place=frame, cell_m=0.07))
    tried = GerminationTrial.objects.create(garden=garden, name="Kälte", begun_on=NOW.date())
    batch = TrialBatch.objects.create(trial=tried, crop_key="carrot", packet=packet, place=bed, seeds=25, warmth_c=12.5)
    TrialCount.objects.create(batch=batch, on=NOW.date(), up=9)
    Sign.objects.create(garden=garden, name="Löwenzahn", on=NOW.date())
    BedShape.objects.create(place=bed, length_m=3.6, width_m=0.9, square_m=0.25, runs_deg=45.0)
    stands = {
        "planted_on": NOW.date(),
        "number": 40,
        "x_m": 0.5,
        "y_m": 0.25,
        "plant_m": 0.08,
        "per_station": 2,
        "note": "“=1+1”",
    }
    planting = Planting.objects.create(place=bed, packet=packet, sowing=sowing, crop_key="carrot", **stands)
    PlantEvent.objects.create(planting=planting, kind="died", on=NOW.date(), number=3, cause="frost", lowest_c=-4.25)
    CoverDamage.objects.create(
        cover=garden.covers.earliest("pk"), on=NOW.date(), what="torn", cause="wind", note="a stake came loose"
    )
    SavedSeed.objects.create(packet=Packet.objects.create(garden=garden, crop_key="carrot", in_use=False), planting=planting)
    Planting.objects.create(place=frame, crop_key="", planned_on=NOW.date())
    Planting.objects.create(place=bed, crop_key="kale", removed_at=NOW)
    lost = Sowing.objects.create(place=bed, crop_key="pea", sown_on=NOW.date(), depth_m=0.03, removed_at=NOW)
    Count.objects.create(sowing=lost, on=NOW.date(), up=1)
    device, _ = let_device_in(garden, "Logger", "F", person)
    deploy(device, "1", bed, 0.05)
    deploy(device, "2", room)
    device.mappings.create(value="/result", at="/phenomenonTime", channel="/Datastream/@iot.id", each="/value")
    values = [Sent("1", 9.4 + i % 3, NOW - timedelta(minutes=10 * i)) for i in range(1, 30)]
    take_in(device, [*values, Sent("1", -127.0, NOW)], unit="C", sent_at=NOW + timedelta(minutes=5))
    LoggedHour.objects.filter(hour=NOW - timedelta(hours=3)).update(review="left_out")
    return garden


def parts(garden: Garden) -> dict[str, bytes]:
    with zipfile.ZipFile(write_archive(garden, NOW)) as packed:
        return {name: packed.read(name) for name in packed.namelist()}


def zipped(files: dict[str, bytes]) -> io.BytesIO:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        for name, data in files.items():
            packed.writestr(name, data)
    out.seek(0)
    return out


def test_an_archive_may_lack_columns_that_came_later_and_no_others() -> None:
    older, newer = Column("note", "string", "Note."), Column("probe", "string", "Which probe.", later=True)
    assert read._columns_there("readings", [older, newer], ["note"]) == [older]
    assert read._columns_there("readings", [older, newer], ["note", "probe"]) == [older, newer]
    for heading in (["probe"], ["probe", "note"], ["note", "probe", "probe"], []):
        with pytest.raises(NotTaken, match="its heading is not note"):
            read._columns_there("readings", [older, newer], heading)


def test_out_in_and_out_again_is_the_same_to_the_byte(full: Garden, person: User) -> None:
    first = parts(full)
    for table in TABLES:
        assert len(first[f"{table.name}.csv"].splitlines()) > 1, f"{table.name} is not tried"
    brought = read_archive(write_archive(full, NOW), person)
    assert brought.pk != full.pk
    again = parts(brought)
    pictures = {name for name in first if name.startswith("photos/")}
    assert {name: data for name, data in again.items() if name not in pictures} == {
        name: data for name, data in first.items() if name not in pictures
    }
    # A picture is made anew wherever it comes from; it stays a picture of the same size.
    assert {name: Image.open(io.BytesIO(again[name])).size for name in pictures} == {"photos/1.jpg": (64, 48)}
    assert write_archive(full, NOW).read() == write_archive(full, NOW).read()


def test_an_archive_of_before_the_bench_comes_in_without_it(full: Garden, person: User) -> None:
    older = {name: data for name, data in parts(full).items() if name.removesuffix(".csv") not in LATER}
    assert {"rooms.csv", "heat.csv", "steps.csv"} & older.keys() == set()
    for table in TABLES:
        late = [column.name for column in table.columns if column.later]
        if late and table.name not in LATER:
            rows = list(csv.reader(io.StringIO(older[f"{table.name}.csv"].decode())))
            kept = [i for i, name in enumerate(rows[0]) if name not in late]
            out = io.StringIO()
            # No probe hung in a room before there were any.
            there = [row for row in rows if table.name != "probes" or row[rows[0].index("place")]]
            csv.writer(out).writerows([[row[i] for i in kept] for row in there])
            older[f"{table.name}.csv"] = out.getvalue().encode()
    brought = read_archive(zipped(older), person)
    assert not brought.rooms.exists()
    assert brought.places.count() == full.places.count()
    assert not brought.places.filter(window_aspect_deg__isnull=False).exists()


def test_what_was_removed_and_who_it_was_stay_out(full: Garden) -> None:
    everything = b"".join(parts(full).values())
    for secret in (b"Gone", b"rowan", full.devices.get().fingerprint.encode()):
        assert secret not in everything
    assert len(parts(full)["readings.csv"].splitlines()) == 3
    assert len(parts(full)["counts.csv"].splitlines()) == 2


def test_hours_are_summed_again_and_words_on_them_stand(full: Garden, person: User) -> None:
    brought = read_archive(write_archive(full, NOW), person)

    def hours(garden: Garden) -> list[tuple[Any, ...]]:
        rows = LoggedHour.objects.filter(probe__place__garden=garden).order_by("hour")
        return [(h.hour, h.number, round(h.sum_c, 6), h.low_c, h.high_c, h.review) for h in rows]

    assert hours(brought) == hours(full)
    assert LoggedReading.objects.filter(probe__place__garden=brought, fault=1).count() == 1


def test_a_logger_is_shut_out_until_it_has_a_new_token(full: Garden, person: User) -> None:
    brought = read_archive(write_archive(full, NOW), person)
    assert brought.devices.get().revoked_at is not None


def test_another_program_finds_the_package_valid(full: Garden, tmp_path: Path) -> None:
    """The reference implementation of Data Package and Table Schema reads every table by its description."""
    with zipfile.ZipFile(write_archive(full, NOW)) as packed:
        packed.extractall(tmp_path)
    with system.use_context(trusted=True):
        report = Package(str(tmp_path / "datapackage.json")).validate()
    assert report.valid, report.flatten(["rowNumber", "fieldName", "type", "note"])
    described = json.loads((tmp_path / "datapackage.json").read_text())
    units = {f["name"]: f.get("unit") for r in described["resources"] for f in r["schema"]["fields"]}
    assert (units["temperature_c"], units["seed_depth_m"], units["rain_mm"]) == ("°C", "m", "mm")


def changed(table: str, change: Callable[[list[list[str]]], None]) -> Callable[[dict[str, bytes]], None]:
    def apply(files: dict[str, bytes]) -> None:
        rows = list(csv.reader(io.StringIO(files[f"{table}.csv"].decode(), newline="")))
        change(rows)
        out = io.StringIO(newline="")
        csv.writer(out).writerows(rows)
        files[f"{table}.csv"] = out.getvalue().encode()

    return apply


def cell(table: str, row: int, column: int, value: str) -> Callable[[dict[str, bytes]], None]:
    return changed(table, lambda rows: rows[row].__setitem__(column, value))


def narrow_heat() -> Callable[[dict[str, bytes]], None]:
    """78 W on a strip five centimetres wide, which no form takes."""
    return changed("heat", lambda rows: rows[1].__setitem__(rows[0].index("width_m"), "0.05"))


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (cell("readings", 1, 3, "warm"), "readings.csv, line 2, temperature_c: “warm” is not a valid number"),
        (cell("readings", 1, 3, "182"), "182 is outside -30 to 60"),
        (cell("readings", 1, 3, "nan"), "is not a number"),
        (cell("readings", 1, 0, "77"), "refers to number 77 of places.csv"),
        (cell("places", 1, 2, "balcony"), "“balcony” is none of"),
        (cell("places", 1, 2, ""), "“” is none of"),
        (cell("places", 2, 0, "1"), "the number 1 stands there twice"),
        (cell("places", 2, 1, "Nordbeet; lang"), "say the same thing twice"),
        (cell("sowings", 1, 3, "mandrake"), "none of"),
        (cell("garden", 1, 4, "Mars/Olympus"), "is not a time zone"),
        (
            narrow_heat(),
            "No heater under plants gives more than 600",
        ),
        (cell("weather", 1, 0, "2026-02-30"), "is not a valid date"),
        (cell("operations", 1, 3, "2026-04-22T07:30:00"), "has no UTC offset"),
        (changed("visits", lambda rows: rows[1].pop()), "9 cells instead of 10"),
        (changed("weather", lambda rows: rows[0].__setitem__(1, "low")), "its heading is not"),
        (changed("garden", lambda rows: rows.pop()), "needs one row"),
        (lambda files: files.pop("counts.csv"), "counts.csv is missing"),
        (lambda files: files.pop("datapackage.json"), "no description of a Cloche garden"),
        (lambda files: files.__setitem__("datapackage.json", b'{"cloche_format": 99}'), "format 99"),
        (lambda files: files.__setitem__("logged.csv", b"\xff\xfe"), "logged.csv"),
    ],
)
def test_what_cannot_be_read_is_named_and_nothing_is_kept(
    full: Garden, person: User, spoil: Callable[[dict[str, bytes]], None], said: str
) -> None:
    files = parts(full)
    spoil(files)
    gardens, readings = Garden.objects.count(), Reading.objects.count()
    with pytest.raises(NotTaken) as why:
        read_archive(zipped(files), person)
    assert said in str(why.value)
    assert (Garden.objects.count(), Reading.objects.count()) == (gardens, readings)


def test_by_the_pages(signed_in: Client, full: Garden, person: User) -> None:
    out = signed_in.get(reverse("archive_out", args=[full.pk]))
    assert out["Content-Disposition"] == 'attachment; filename="cloche-garden-2026-04-22.zip"'
    data = b"".join(out.streaming_content)  # type: ignore[attr-defined]
    url = reverse("archive_in")
    coming = signed_in.post(url, {"file": SimpleUploadedFile("garden.zip", data)})["Location"]
    assert "Waiting for its turn" in signed_in.get(coming).content.decode()
    take_archive(archive_id=IncomingArchive.objects.get().pk)
    assert "imported, with everything in the file" in signed_in.get(coming, follow=True).content.decode()
    assert Place.objects.filter(garden__people=person).count() == 6
    coming = signed_in.post(url, {"file": SimpleUploadedFile("garden.zip", b"rubbish")})["Location"]
    take_archive(archive_id=IncomingArchive.objects.get().pk)
    assert "not a zip file" in signed_in.get(coming).content.decode()
    assert not ArchivePart.objects.exists()
    assert Client().get(url).status_code == 302


def test_one_garden_at_a_time_is_written_to_a_file(signed_in: Client, garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(turns, "PATIENCE_S", 0.01)
    url = reverse("archive_out", args=[garden.pk])
    with turn_of_another(turns.ARCHIVE):
        refused = signed_in.get(url)
    assert (refused.status_code, "Another garden is being exported" in refused.content.decode()) == (503, True)
    assert signed_in.get(url).status_code == 200
