"""What forms accept the archive accepts, and the other way round: a garden can always come back."""

import io
import json
import zipfile
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from cloche.apps.covers.forms import OwnCoverForm
from cloche.apps.gardens.forms import SiteForm
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.forms import CoverForm, OperationForm, PlaceForm
from cloche.apps.places.models import CoverPeriod, Operation, Place
from cloche.apps.readings.files.tables import as_meant, inert
from cloche.apps.readings.models import Reading
from cloche.apps.records.archive.read import NotTaken, read_archive
from cloche.apps.records.archive.tables import GARDEN, TABLES
from cloche.apps.records.archive.write import write_archive
from cloche.apps.seed.forms import PacketForm
from cloche.apps.seed.models import Packet
from cloche.apps.seed.values import ALL, check_values
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from tests.apps.records.test_archive import cell, changed, full, parts, zipped  # noqa: F401 - a fixture among them
from tests.conftest import NOW
from tests.factories import make_place, make_reading

QUIET = settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
texts = st.text(max_size=30) | st.sampled_from(["=1+1", "@x", "'=", "-5", "+A1", "\tx", "a\r\nb", "\x00", "🌱", "x" * 90])
numbers = st.floats(-1e9, 1e9).map(str) | st.sampled_from(["", "nan", "inf", "1e400", "5,5", "79", "-76", "-1", "0", "²"])
days = st.dates().map(str) | st.sampled_from(["", "2026-04-22", "0001-01-01", "9999-12-31", "1900-01-01", "2100-12-31"])
units = st.sampled_from([Units("C", "cm"), Units("F", "in")])


def comes_back(row: Any) -> None:
    """Every cell of the row, as the archive writes it, is read again as the same value; and nothing in it contradicts."""
    columns = GARDEN if isinstance(row, Garden) else next(table for table in TABLES if table.model is type(row)).columns
    for column in columns:
        if column.name in ("number", "place", "item", "crops"):
            continue
        value = getattr(row, column.name)
        assert column.read(column.write(value)) == value, column.name
    row.clean()


def typed(**good: str) -> st.SearchStrategy[dict[str, str]]:
    """What a form of these fields is sent: what is good, but for one or two of them, which are odd of the same kind."""

    def odd(field: str) -> st.SearchStrategy[tuple[str, str]]:
        meant = good[field]
        kind = days if meant.count("-") == 2 else numbers if meant.isdecimal() else numbers | texts
        return st.tuples(st.just(field), kind)

    some = st.lists(st.sampled_from(sorted(good)).flatmap(odd), max_size=2).map(dict)
    return some.map(lambda changed: good | changed)


PLACE = {"name": "Bed", "seed_depth": "5", "width": "120", "slope_deg": "3", "shaded_from_h": "7", "shaded_to_h": "9"}
COVER = {"first": "2026-04-22", "last": "2026-05-22", "above": "26", "from_h": "9", "to_h": "17"}
OWN = {"name": "Fleece", "length": "120", "width": "120", "price": "5", "weight": "1", "purchase_year": "2020"}
PACKET = {said.field: "" for said in ALL} | {"variety": "Amber", "price": "2", "packed_year": "2025"}
PACKET |= {"tested_of": "50", "tested_up": "40"}
WORK = {"work": "watered", "day": "2026-04-20", "amount": "10"}
SITE = {"name": "Plot", "latitude_deg": "48", "longitude_deg": "15", "height": "300", "timezone_name": "UTC", "zone": "7a"}


@QUIET
@given(params=typed(**PLACE), of=units)
@pytest.mark.django_db
def test_whatever_place_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    more = {"kind": "open", "texture": "loam", "aspect_deg": "180.0"}
    form = PlaceForm(params | more, instance=Place(garden=garden), garden=garden, units=of)
    assume(form.is_valid())
    comes_back(form.save(commit=False))


@QUIET
@given(params=typed(**PACKET), of=units)
@pytest.mark.django_db
def test_whatever_packet_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    packet = Packet(garden=garden, crop_key="pea")
    form = PacketForm(params | {"meant": "on"}, instance=packet, crop=crops.crop("pea"), units=of, year=2026)
    assume(form.is_valid())
    comes_back(form.save())


@QUIET
@given(params=typed(**COVER), of=units)
@pytest.mark.django_db
def test_whatever_cover_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    place = garden.places.first() or make_place(garden)
    more = {"cover": "fleece", "opens": "hours", "opening": "0.4"}
    form = CoverForm(params | more, instance=CoverPeriod(place=place), place=place, units=of)
    assume(form.is_valid())
    comes_back(form.save())


@QUIET
@given(params=typed(**OWN), of=units)
@pytest.mark.django_db
def test_whatever_own_cover_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    form = OwnCoverForm(params | {"kind": "fleece"}, garden=garden, units=of, today=NOW.date())
    assume(form.is_valid())
    comes_back(form.save())


@QUIET
@given(params=typed(**WORK), of=units)
@pytest.mark.django_db
def test_whatever_work_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    place = garden.places.first() or make_place(garden)
    form = OperationForm(params, place=place, units=of)
    assume(form.is_valid())
    comes_back(Operation(place=place, work=params["work"], at=form.at, amount=form.cleaned_data["amount"] or 0.0))


@QUIET
@given(params=typed(**SITE), of=units)
@pytest.mark.django_db
def test_whatever_site_a_form_takes(garden: Garden, of: Units, params: dict[str, str]) -> None:
    more = {"sowing_rule": "minimum", "uncover_rule": "nights", "watered": "on"}
    form = SiteForm(params | more, instance=Garden.objects.get(pk=garden.pk), units=of)
    assume(form.is_valid())
    comes_back(form.save(commit=False))


@given(st.text(max_size=40))
def test_no_cell_that_goes_out_is_a_formula_and_each_comes_in_as_it_was(text: str) -> None:
    cell = inert(text)
    assert as_meant(cell) == text
    if cell[:1] in ("=", "+", "-", "@", "\t", "\r") and cell:
        float(cell)  # a number, and nothing else


def test_formulas_in_names_and_notes_are_inert_in_files_that_go_out(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden, "=cmd|' /C calc'!A0")
    make_reading(place, NOW, note="@SUM(1)")
    out = b"".join(signed_in.get(reverse("take_out", args=[garden.pk, "readings"])).streaming_content).decode()  # type: ignore[attr-defined]
    assert "'=cmd|" in out
    assert "'@SUM(1)" in out
    with zipfile.ZipFile(write_archive(garden, NOW)) as packed:
        assert "'=cmd|" in packed.read("places.csv").decode()


def spoilt(files: dict[str, bytes], person: User) -> str:
    gardens, readings = Garden.objects.count(), Reading.objects.count()
    with pytest.raises(NotTaken) as why:
        read_archive(zipped(files), person)
    assert (Garden.objects.count(), Reading.objects.count()) == (gardens, readings)
    return str(why.value)


DEEP = "[" * 40 + "]" * 40


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (cell("garden", 1, 4, "Europe"), "is not a time zone"),
        (cell("garden", 1, 0, "Evil\nBcc: x"), ""),
        (cell("garden", 1, 0, "Evil\u202e"), "cannot be displayed"),
        (cell("garden", 1, 1, "nan"), "is not a number"),
        (cell("garden", 1, 13, "mandrake"), "is not a crop"),
        (cell("garden", 1, 8, ""), "Enter both hours"),
        (cell("packets", 1, 7, '{"base_c": "x"}'), "that packets do not have"),
        (cell("packets", 1, 7, '{"minimum_c": "x"}'), "Enter a number"),
        (cell("packets", 1, 7, '{"minimum_c": true}'), "Enter a number"),
        (cell("packets", 1, 7, '{"minimum_c": 1e39}'), "outside"),
        (cell("packets", 1, 7, f'{{"minimum_c": {DEEP}}}'), "nested"),
        (cell("packets", 1, 7, '{"minimum_c": NaN}'), "not a number"),
        (cell("packets", 1, 4, "10"), "Enter both numbers of a test"),
        (cell("weather", 1, 0, "9999-12-31"), "1900 to 2100"),
        (cell("weather", 1, 1, "50"), "The high is below the low"),
        (cell("readings", 1, 1, "0001-01-01T00:00:00Z"), "1900 to 2100"),
        (cell("readings", 1, 4, "a\x00b"), "cannot be displayed"),
        (cell("readings", 1, 4, "x" * 70_000), "line is too long"),
        (cell("probes", 1, 10, "99999999999"), "outside"),
        (cell("probes", 1, 2, "a b"), "Letters, digits"),
        (cell("logged", 1, 3, "1e39"), "is not a valid integer"),
        (cell("logged", 1, 3, "9999999999"), "outside"),
        (cell("logged", 1, 2, "1e39"), "outside"),
        (cell("places", 1, 1, "FRAME"), "say the same thing twice"),
        (changed("covers", lambda rows: rows.append([*rows[1]])), "too many covers on Frame"),
        (changed("normals", lambda rows: rows.pop()), "each month once"),
        (changed("garden", lambda rows: rows.append([*rows[1]])), "needs one row"),
        (lambda files: files.__setitem__("datapackage.json", b"[" * 5000), "no description"),
        (lambda files: files.__setitem__("datapackage.json", b"[]"), "no description"),
        (lambda files: files.__setitem__("datapackage.json", b'{"cloche_format": "\xff"}'), "no description"),
        (lambda files: files.__setitem__("photos/1.jpg", b"GIF89a"), "picture cannot be read"),
    ],
)
def test_what_no_form_would_take_the_archive_does_not_take(full: Garden, person: User, spoil: Any, said: str) -> None:  # noqa: F811
    files = parts(full)
    spoil(files)
    assert said in spoilt(files, person)


def test_values_of_packets_that_the_archive_takes_a_form_takes_too(garden: Garden) -> None:
    for said in ALL:
        for value in said.limits:
            values = {said.name: value}
            check_values(values)
            packet = Packet(garden=garden, crop_key="pea", values=values)
            form = PacketForm(None, instance=packet, crop=crops.crop("pea"), units=Units(), year=2026)
            typed = {name: form.initial.get(name, "") for name in form.fields} | {"meant": "on"}
            again = PacketForm(typed, instance=packet, crop=crops.crop("pea"), units=Units(), year=2026)
            assert again.is_valid(), (said.name, value, again.errors)


def test_a_zip_within_a_zip_is_only_a_name(full: Garden, person: User) -> None:  # noqa: F811
    out = io.BytesIO()
    with zipfile.ZipFile(write_archive(full, NOW)) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            new.writestr(name, old.read(name))
        new.writestr("inner.zip", write_archive(full, NOW).read())
        new.writestr("extra.json", json.dumps({}))
    out.seek(0)
    assert read_archive(out, person).places.count() == 3
