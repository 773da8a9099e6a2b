"""Spreadsheets, remembered columns, and long files that outlive a lost worker."""

import io
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import Table, TableCell, TableRow
from odf.text import P
from openpyxl import Workbook

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings.files.tables import UnreadableFile, sheet_text
from cloche.apps.readings.flows import bring_in
from cloche.apps.readings.models import FileSource, IncomingFile, Reading
from cloche.apps.readings.tasks import take_file
from tests.apps.readings.test_files import answer, upload
from tests.factories import make_place


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def xlsx() -> bytes:
    """As a spreadsheet program writes it: real dates and times, a second sheet of notes."""
    book = Workbook()
    book.active.title = "Notes"
    book.active.append(["mine"])
    sheet = book.create_sheet("Soil")
    sheet.append(["date", "time", "soil °C", "note"])
    sheet.append([date(2026, 4, 20), time(7, 30), 6.4, None])
    sheet.append([date(2026, 4, 20), time(16, 30), 9, "sun"])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def ods() -> bytes:
    document = OpenDocumentSpreadsheet()
    table = Table(name="Soil")
    rows: list[list[Any]] = [["date", "time", "soil °C"], ["2026-04-20", "07:30", 6.4], ["2026-04-20", "16:30", 9.0]]
    for cells in rows:
        row = TableRow()
        for value in cells:
            kind = {"valuetype": "float", "value": value} if isinstance(value, float) else {"valuetype": "string"}
            cell = TableCell(**kind)
            cell.addElement(P(text=str(value)))
            row.addElement(cell)
        table.addElement(row)
    document.spreadsheet.addElement(table)
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()


@pytest.mark.parametrize(("name", "make"), [("soil.xlsx", xlsx), ("soil.ods", ods)])
def test_a_spreadsheet_is_read_like_its_csv(signed_in: Client, garden: Garden, bed: Place, name: str, make: Any) -> None:
    upload(signed_in, garden, make(), name=name)
    answer(signed_in, garden)
    read = bed.readings.order_by("taken_at").values_list("temperature_c", flat=True)
    assert list(read) == [6.4, 9.0]


def test_cells_are_written_plainly() -> None:
    book = Workbook()
    book.active.append([datetime(2026, 4, 20, 7, 30), date(2026, 4, 20), 9.0, 9.25, "a,b"])  # noqa: DTZ001 - as sheets are
    book.active.append([1, 2, 3, 4, 5])
    out = io.BytesIO()
    book.save(out)
    assert sheet_text(out.getvalue()).splitlines()[0] == '2026-04-20 07:30:00,2026-04-20,9,9.25,"a,b"'


@pytest.mark.parametrize("data", [b"PK\x03\x04rubbish", b"\xd0\xcf\x11\xe0rubbish"])
def test_a_damaged_spreadsheet_is_refused_in_a_sentence(signed_in: Client, garden: Garden, data: bytes) -> None:
    with pytest.raises(UnreadableFile, match=r"\.$"):
        sheet_text(data)
    assert upload(signed_in, garden, data, name="soil.xlsx").status_code == 422


STRANGE = "wann,ort,grad\n2026-04-20 07:30,x,43.5\n"


def test_what_columns_mean_is_remembered_by_their_heading(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, STRANGE.encode())
    said = {"column_0": "datetime", "column_1": "", "column_2": "temperature", "temperature_unit": "F", "place": str(bed.pk)}
    answer(signed_in, garden, **said)
    assert Reading.objects.get().temperature_c == pytest.approx(6.39, abs=0.01)
    again = upload(signed_in, garden, STRANGE.replace("20 07", "21 07").encode())
    assert "its column settings are used" in signed_in.get(again["Location"]).content.decode()
    answer(signed_in, garden)
    assert Reading.objects.count() == 2
    assert FileSource.objects.count() == 1


def test_a_remembered_place_that_is_gone_is_asked_for_again(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, STRANGE.encode())
    said = {"column_0": "datetime", "column_1": "", "column_2": "temperature", "temperature_unit": "F", "place": str(bed.pk)}
    answer(signed_in, garden, **said)
    signed_in.post(reverse("remove_place", args=[garden.pk, bed.pk]))
    upload(signed_in, garden, STRANGE.encode())
    assert IncomingFile.objects.get().mapping["place_id"] is None


@pytest.fixture
def small(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(bring_in, "AT_ONCE", 10)
    monkeypatch.setattr(bring_in, "BATCH", 7)


def long_file(rows: int = 40) -> bytes:
    start = datetime(2026, 4, 1, 7, 30, tzinfo=UTC)
    lines = [f"{start + timedelta(hours=i):%Y-%m-%d,%H:%M},{6 + i % 9}" for i in range(rows)]
    return "\n".join(["date,time,temp", *lines]).encode()


def test_a_long_file_is_taken_outside_the_request_and_says_how_far_it_is(
    signed_in: Client, garden: Garden, bed: Place, small: None
) -> None:
    upload(signed_in, garden, long_file())
    page = signed_in.get(answer(signed_in, garden)["Location"])
    assert "0 of 40 rows" in page.content.decode()
    taking = IncomingFile.objects.get()
    take_file(taking.pk)
    assert bed.readings.count() == 40
    led_on = signed_in.get(reverse("incoming", args=[garden.pk, taking.pk]), headers={"HX-Request": "true"})
    assert led_on["HX-Redirect"] == reverse("ground", args=[garden.pk])
    assert "Imported 40 readings from soil.csv." in signed_in.get(led_on["HX-Redirect"]).content.decode()


def test_a_lost_worker_is_followed_by_one_that_goes_on_where_it_ended(
    signed_in: Client, garden: Garden, bed: Place, small: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    upload(signed_in, garden, long_file())
    answer(signed_in, garden)
    taking = IncomingFile.objects.get()
    real, calls = bring_in._add, []

    def dies(*args: Any) -> None:
        calls.append(1)
        if len(calls) == 4:
            raise RuntimeError("the power went")
        real(*args)

    monkeypatch.setattr(bring_in, "_add", dies)
    with pytest.raises(RuntimeError):
        take_file(taking.pk)
    taking.refresh_from_db()
    assert (taking.done, bed.readings.count()) == (21, 21)
    monkeypatch.setattr(bring_in, "_add", real)
    take_file(taking.pk)
    taking.refresh_from_db()
    assert (taking.done, taking.total, taking.state, bed.readings.count()) == (40, 40, "taken", 40)


def test_a_file_given_up_while_it_is_taken_leaves_what_is_in(
    signed_in: Client, garden: Garden, bed: Place, small: None
) -> None:
    upload(signed_in, garden, long_file())
    answer(signed_in, garden)
    taking = IncomingFile.objects.get()
    signed_in.post(reverse("give_up", args=[garden.pk, taking.pk]))
    take_file(taking.pk)
    assert bed.readings.count() == 0
