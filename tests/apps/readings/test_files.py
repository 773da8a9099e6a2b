"""Files in and out."""

import csv
import io
from datetime import UTC, date, datetime
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place
from cloche.apps.readings.files import mapping as maps
from cloche.apps.readings.files.tables import UnreadableFile, decode, read_table
from cloche.apps.readings.models import IncomingFile, Reading
from cloche.apps.weather.flows import record_day
from tests.factories import make_place, make_reading

PLAIN = "date,time,temp\n2026-04-20,07:30,6.4\n2026-04-20,16:30,9.1\n2026-04-21,07:30,6.9\n"


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def upload(client: Client, garden: Garden, content: bytes, kind: str = "readings", name: str = "soil.csv") -> Any:
    return client.post(reverse("files", args=[garden.pk]), {"kind": kind, "file": SimpleUploadedFile(name, content)})


def answer(client: Client, garden: Garden, *, take: bool = True, leave_bad: bool = False, **said: str) -> Any:
    """Confirm the guessed mapping, changed by `said`, as the page's form would send it."""
    waiting = IncomingFile.objects.get()
    mapping = maps.Mapping(**waiting.mapping)
    values = {f"column_{i}": role for i, role in enumerate(mapping.roles)}
    values |= {"temperature_unit": mapping.temperature_unit, "length_unit": mapping.length_unit}
    values |= {"date_order": mapping.date_order, "clock": mapping.clock, "place": str(mapping.place_id or "")}
    values |= said | ({"take": ""} if take else {}) | ({"leave_bad": "on"} if leave_bad else {})
    return client.post(reverse("incoming", args=[garden.pk, waiting.pk]), values)


def test_a_plain_file_is_guessed_previewed_and_taken(signed_in: Client, garden: Garden, bed: Place) -> None:
    page = signed_in.get(upload(signed_in, garden, PLAIN.encode())["Location"]).content.decode()
    assert "3 rows of soil readings" in page
    page = answer(signed_in, garden, take=False).content.decode()
    assert "3 of 3 rows are new" in page
    assert bed.readings.count() == 0
    answer(signed_in, garden)
    assert bed.readings.count() == 3
    assert bed.readings.order_by("taken_at").first().taken_at == datetime(2026, 4, 20, 5, 30, tzinfo=UTC)  # type: ignore[union-attr]
    assert not IncomingFile.objects.exists()


def test_the_same_file_twice_adds_nothing(signed_in: Client, garden: Garden, bed: Place) -> None:
    for _ in range(2):
        upload(signed_in, garden, PLAIN.encode())
        answer(signed_in, garden)
    assert bed.readings.count() == 3


BAD = "date,time,temp\n2026-04-20,07:30,6.4\n2026-04-20,16:30,warm\n2026-04-31,07:30,6\n2026-04-21,07:30,640\n"
BAD += "2027-01-01,07:30,5\n2026-03-29,02:30,4\n2026-04-20,07:30,6.4\n,07:30,6\n2026-04-22,,6\n2026-04-22,06:00,\n"


def test_every_bad_row_is_named_with_line_and_reason(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, BAD.encode())
    page = answer(signed_in, garden, take=False).content.decode()
    for line, reason in [
        (3, "“warm” is not a number"),
        (4, "not a date"),
        (5, "640 °C is outside"),
        (6, "in the future"),
        (7, "did not exist"),
        (8, "Same as line 2"),
        (9, "The date is missing"),
        (10, "The time of day is missing"),
        (11, "The temperature is missing"),
    ]:
        assert f'<td class="num">{line}</td>' in page
        assert reason in page


def test_good_rows_are_kept_only_if_one_says_so(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, BAD.encode())
    page = answer(signed_in, garden).content.decode()
    assert "First confirm whether the 9 rows below can be left out" in page
    assert bed.readings.count() == 0
    answer(signed_in, garden, leave_bad=True)
    assert bed.readings.count() == 1


def test_another_value_at_a_known_time_is_refused_and_the_old_one_stays(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_reading(bed, datetime(2026, 4, 20, 5, 30, tzinfo=UTC), 7.0)
    upload(signed_in, garden, PLAIN.encode())
    page = answer(signed_in, garden, take=False).content.decode()
    assert "Another value is already recorded" in page
    answer(signed_in, garden, leave_bad=True)
    assert sorted(r.temperature_c for r in bed.readings.all()) == [6.9, 7.0, 9.1]


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "The file is empty"),
        (b"  \n \n", "The file is empty"),
        (b"date,time,temp\n", "headings but no rows"),
        (b"PK\x03\x04\x00\x00\x00binary", "damaged"),
    ],
)
def test_files_that_hold_nothing_are_refused_in_words(
    signed_in: Client, garden: Garden, bed: Place, content: bytes, said: str
) -> None:
    response = upload(signed_in, garden, content)
    assert response.status_code == 422
    assert said in response.content.decode()


def test_fifty_megabytes_are_refused_in_words_and_a_waiting_file_is_not_lost(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    upload(signed_in, garden, PLAIN.encode())
    response = upload(signed_in, garden, b"2026-04-20,07:30,6.4\n" * 2_400_000)
    assert response.status_code == 422
    assert "The file has 50 MB; at most 20 MB are accepted at a time" in response.content.decode()
    assert IncomingFile.objects.get().name == "soil.csv"


GERMAN = "Datum;Uhrzeit;Bodentemperatur [°C];Bemerkung\n20.04.2026;07:30;6,4;früh\n20.04.2026;16:30;9,1;\n"


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "latin-1", "cp1252", "utf-16"])
def test_semicolons_decimal_commas_and_any_encoding(signed_in: Client, garden: Garden, bed: Place, encoding: str) -> None:
    upload(signed_in, garden, GERMAN.encode(encoding))
    answer(signed_in, garden)
    early = bed.readings.order_by("taken_at").first()
    assert early is not None
    assert (early.temperature_c, early.note) == (6.4, "früh")


def test_windows_line_ends_tabs_and_blank_lines(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, PLAIN.replace(",", "\t").replace("\n", "\r\n\r\n").encode())
    answer(signed_in, garden)
    assert bed.readings.count() == 3


def test_fahrenheit_month_first_and_inches_are_read_from_the_heading(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, b"timestamp,soil temp [\xc2\xb0F],depth [in]\n4/20/2026 7:30 AM,60,2\n4/21/2026 4:30 PM,62,2\n")
    answer(signed_in, garden)
    early, late = bed.readings.order_by("taken_at")
    assert early.temperature_c == pytest.approx(15.56, abs=0.01)
    assert early.depth_m == pytest.approx(0.0508)
    assert late.taken_at == datetime(2026, 4, 21, 14, 30, tzinfo=UTC)


@pytest.mark.parametrize(("clock", "hour"), [("local", 5), ("standard", 6), ("utc", 7)])
def test_the_clock_of_a_logger_may_be_another(signed_in: Client, garden: Garden, bed: Place, clock: str, hour: int) -> None:
    upload(signed_in, garden, b"time stamp,temp\n2026-04-20 07:30,6.4\n")
    answer(signed_in, garden, clock=clock, column_0="datetime")
    assert bed.readings.get().taken_at.hour == hour


def test_places_may_be_named_in_a_column(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_place(garden, "Frame")
    upload(signed_in, garden, b"datetime,bed,temp\n2026-04-20 07:30,frame,6.4\n2026-04-20 07:30,nowhere,6.4\n")
    page = answer(signed_in, garden, take=False).content.decode()
    assert "No place in this garden is called “nowhere”" in page
    answer(signed_in, garden, leave_bad=True)
    assert Reading.objects.get().place.name == "Frame"


def test_what_is_not_said_is_asked_for(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_place(garden, "Frame")
    upload(signed_in, garden, b"a,b\nearly,6.4\n")
    response = answer(signed_in, garden)
    page = response.content.decode()
    assert response.status_code == 422
    for lack in ("the column with date and time", "the soil temperature column", "the place of these readings"):
        assert lack in page


def test_weather_comes_in_the_same_way(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, b"date,min,max,rain\n2026-04-20,1.5,11,0\n2026-04-21,12,3,0\n2026-04-22,2,13,\n", "weather")
    page = answer(signed_in, garden, take=False).content.decode()
    assert "The low is above the high" in page
    answer(signed_in, garden, leave_bad=True)
    assert garden.weather.count() == 2
    assert Place.objects.get(pk=bed.pk).input_revision > bed.input_revision


def test_readings_go_out_with_units_and_come_in_again_unchanged(
    signed_in: Client, garden: Garden, bed: Place, person: User
) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F", length_unit="in")
    for hour, value in ((5, 6.4), (14, 9.15)):
        make_reading(bed, datetime(2026, 4, 20, hour, 30, tzinfo=UTC), value, note='käse; "quoted"')
    make_reading(bed, datetime(2026, 4, 19, 5, tzinfo=UTC), 1.0, removed_at=datetime(2026, 4, 20, tzinfo=UTC))
    response = signed_in.get(reverse("take_out", args=[garden.pk, "readings"]))
    out = b"".join(response.streaming_content)  # type: ignore[attr-defined]
    rows = list(csv.DictReader(io.StringIO(out.decode())))
    assert list(rows[0])[2:4] == ["depth [in]", "soil temperature [°F]"]
    assert len(rows) == 2
    assert float(rows[0]["soil temperature [°F]"]) == pytest.approx(43.52)
    Reading.objects.all().delete()
    upload(signed_in, garden, out)
    answer(signed_in, garden)
    again = Reading.objects.order_by("taken_at")
    assert [r.temperature_c for r in again] == pytest.approx([6.4, 9.15], abs=0.006)
    assert again[0].taken_at == datetime(2026, 4, 20, 5, 30, tzinfo=UTC)
    assert again[0].note == 'käse; "quoted"'


def test_weather_goes_out_with_units(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, b"date,min,max,rain\n2026-04-20,1.5,11,4.2\n", "weather")
    answer(signed_in, garden)
    out = b"".join(signed_in.get(reverse("take_out", args=[garden.pk, "weather"])).streaming_content)  # type: ignore[attr-defined]
    assert out.decode().splitlines() == [
        "date,air low [°C],air high [°C],rain [mm],sky,wind [m/s],snow [cm]",
        "2026-04-20,1.50,11.00,4.2,,,",
    ]


def test_all_of_a_day_s_weather_goes_out_and_comes_in_again(signed_in: Client, garden: Garden) -> None:
    given = {"rain_mm": 4.2, "sky": "broken", "wind_m_s": 3.5, "snow_m": 0.12}
    record_day(garden, date(2026, 1, 20), -3.0, 1.5, **given)  # type: ignore[arg-type]
    out = b"".join(signed_in.get(reverse("take_out", args=[garden.pk, "weather"])).streaming_content)  # type: ignore[attr-defined]
    garden.weather.all().delete()
    upload(signed_in, garden, out, "weather")
    answer(signed_in, garden)
    line = garden.weather.get()
    assert {name: getattr(line, name) for name in given} == given


@pytest.mark.parametrize(
    ("cells", "said"),
    [
        ("9999,,,", "Rainfall of 9999 mm"),
        (",dull,,", "is not a known sky"),
        (",,80,", "Wind speed of 80 m/s"),
        (",,,700", "Snow of 700 cm"),
    ],
)
def test_weather_that_cannot_be_is_named(signed_in: Client, garden: Garden, cells: str, said: str) -> None:
    head = "date,air low,air high,rain,sky,wind,snow [cm]"
    upload(signed_in, garden, f"{head}\n2026-01-20,-3,1,{cells}\n".encode(), "weather")
    assert said in answer(signed_in, garden, take=False).content.decode()


def test_a_file_can_be_forgotten_and_is_its_owner_s(signed_in: Client, garden: Garden, bed: Place) -> None:
    upload(signed_in, garden, PLAIN.encode())
    signed_in.post(reverse("give_up", args=[garden.pk, IncomingFile.objects.get().pk]))
    assert not IncomingFile.objects.exists()


@pytest.mark.parametrize(
    ("text", "delimiter_wins"),
    [("a;b\n1,5;2\n", ["a", "b"]), ("a,b\n1,2\n", ["a", "b"]), ("a\tb,c\n1\t2,3\n", ["a", "b,c"]), ("a\n1\n", ["a"])],
)
def test_the_steadiest_delimiter_wins(text: str, delimiter_wins: list[str]) -> None:
    assert read_table(text).header == delimiter_wins


def test_line_numbers_count_blank_and_quoted_lines() -> None:
    table = read_table('a,b\n\n1,"two\nlines"\n3,4\n')
    assert table.line == [4, 5]


def test_too_many_rows_are_refused_in_words() -> None:
    with pytest.raises(UnreadableFile, match="more than 250,000 rows"):
        read_table("a\n" + "1\n" * 250_001)


def test_bytes_that_are_no_utf8_are_still_read() -> None:
    assert "höhe" in decode("höhe;5\n".encode("cp1252"))
