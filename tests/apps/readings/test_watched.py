"""A folder that is watched: what is laid into a garden's own comes in by itself, once, or says why not."""

import os
import time
from datetime import date
from pathlib import Path
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.flows import bring_in, watched
from cloche.apps.readings.models import Reading, WatchedFile
from cloche.apps.work import queue
from tests.factories import make_place

# The layout of a national service's days, from memory [DWD-KL].
STATION = """STATIONS_ID;MESS_DATUM;QN_3;FX;FM;QN_4;RSK;RSKF;SDK;SHK_TAG;NM;VPM;PM;TMK;UPM;TXK;TNK;TGK;eor
 1;20260401;10;8.1;2.1;9;0.0;0;5.1;0;4.0;6.1;990;7.0;70;12.4;1.6;-1.0;eor
 1;20260402;10;9.1;3.1;9;2.4;6;1.0;0;7.0;6.5;988;8.0;80;11.0;5.2;3.0;eor
"""
OWN = "when;soil temp;remark\n2026-04-20 07:30;9.5;\n2026-04-21 07:30;10.1;dew\n"


@pytest.fixture
def inbox(tmp_path: Path, settings: Any, garden: Garden) -> Path:
    settings.CLOCHE_INBOX = str(tmp_path)
    mine = tmp_path / str(garden.pk)
    mine.mkdir()
    return mine


def lay(folder: Path, name: str, text: str, ago_s: float = 60) -> Path:
    file = folder / name
    file.write_text(text, encoding="utf-8")
    os.utime(file, (time.time() - ago_s,) * 2)
    return file


def due(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    names: list[str] = []
    monkeypatch.setattr(
        queue, "put_due", lambda _task, places, _priority: names.extend(place["name"] for place in places.values())
    )
    watched.folder_round()
    return names


def test_only_whole_files_of_gardens_are_looked_at(inbox: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    lay(inbox, "whole.csv", OWN)
    lay(inbox, "being-written.csv", OWN, ago_s=1)
    lay(inbox, ".hidden.csv", OWN)
    (inbox / os.fsdecode(b"\xff.csv")).write_text(OWN)
    (inbox / "link.csv").symlink_to("/etc/hostname")
    (inbox / "done").mkdir()
    for other in ("99999999", "notes", "0" * 30):
        (inbox.parent / other).mkdir()
        lay(inbox.parent / other, "x.csv", OWN)
    (inbox.parent / "7").symlink_to(inbox)
    assert due(monkeypatch) == ["whole.csv"]


def test_without_a_folder_there_is_nothing_to_do_and_a_lost_one_is_a_fault(settings: Any, tmp_path: Path, db: None) -> None:
    settings.CLOCHE_INBOX = ""
    assert watched.folder_round() == 0
    settings.CLOCHE_INBOX = str(tmp_path / "gone")
    with pytest.raises(FileNotFoundError):
        watched.folder_round()


def test_a_stations_days_come_in_once(inbox: Path, garden: Garden, signed_in: Client) -> None:
    lay(inbox, "station.txt", STATION)
    kept = watched.take_file(garden.pk, "station.txt")
    assert kept is not None
    assert (kept.taken, kept.kind, kept.added, kept.left_out) == (True, "weather", 2, 0)
    rows = garden.weather.values_list("day", "low_c", "high_c", "rain_mm", "sky")
    assert list(rows.order_by("day")) == [
        (date(2026, 4, 1), 1.6, 12.4, 0.0, "broken"),
        (date(2026, 4, 2), 5.2, 11.0, 2.4, "overcast"),
    ]
    assert (inbox / "done" / "station.txt").exists()
    lay(inbox, "station.txt", STATION)
    watched.take_file(garden.pk, "station.txt")
    assert garden.weather.count() == 2
    given = signed_in.get(reverse("files", args=[garden.pk])).content.decode()
    assert "Imported 2 days." in given
    assert "Nothing new in this file." in given


def test_a_table_waits_for_a_word_and_the_next_of_its_kind_needs_none(inbox: Path, garden: Garden) -> None:
    bed = make_place(garden)
    lay(inbox, "week.csv", OWN)
    kept = watched.take_file(garden.pk, "week.csv")
    assert kept is not None
    assert not kept.taken
    assert "Import one like it by hand" in (inbox / "refused" / "week.csv.txt").read_text()
    by_hand = SimpleUploadedFile("week.csv", OWN.encode())
    bring_in.take_rows(bring_in.receive(garden, garden.people.get(), "readings", by_hand))
    assert Reading.objects.count() == 2
    lay(inbox, "week 2.csv", OWN + "2026-04-21 17:30;12.0;\n2031-04-21 17:30;12.0;\n")
    kept = watched.take_file(garden.pk, "week 2.csv")
    assert kept is not None
    assert (kept.kind, kept.added, kept.left_out, kept.reason) == ("readings", 1, 1, "line 5: The time is in the future.")
    assert Reading.objects.filter(place=bed, entered_by=None).count() == 1


def test_what_cannot_be_read_says_why_and_harms_no_other(inbox: Path, garden: Garden, settings: Any) -> None:
    (inbox / "picture.csv").write_bytes(b"\x00\x01" * 50)
    assert not watched.take_file(garden.pk, "picture.csv").taken  # type: ignore[union-attr]
    settings.CLOCHE_IMPORT_LIMIT_BYTES = 100
    lay(inbox, "large.txt", STATION)
    assert watched.take_file(garden.pk, "large.txt").reason == "The file is too large. Split it by year."  # type: ignore[union-attr]
    assert sorted(path.name for path in (inbox / "refused").iterdir()) == [
        "large.txt",
        "large.txt.txt",
        "picture.csv",
        "picture.csv.txt",
    ]
    assert watched.take_file(garden.pk, "gone.csv") is None
    assert watched.take_file(12345, "x.csv") is None


def test_only_the_latest_are_remembered(inbox: Path, garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(watched, "MOST_KEPT", 3)
    for number in range(5):
        lay(inbox, f"{number}.csv", "x")
        watched.take_file(garden.pk, f"{number}.csv")
    assert set(WatchedFile.objects.values_list("name", flat=True)) == {"2.csv", "3.csv", "4.csv"}
