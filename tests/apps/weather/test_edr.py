"""Weather by the open standard: the stand-in against the standard's own models, asked by position and by cube; providers in
turn, one that keeps failing, and a cell that is asked once."""

from __future__ import annotations

import json
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, urlsplit
from zoneinfo import ZoneInfo

import pytest
from covjson_pydantic.coverage import Coverage
from edr_pydantic.capabilities import ConformanceModel, LandingPageModel
from edr_pydantic.collections import Collection, Collections

from bench import edr as edr_bench
from cloche.apart.running import Misasked, Refused
from cloche.apps.gardens.models import Garden
from cloche.apps.weather import asking, edr, flows, provider, selectors
from cloche.apps.weather.models import ProviderState, WeatherCell
from cloche.apps.weather.provider import NoAnswer, NotHere, ProviderAnswer, answer_from
from cloche.apps.work import turns
from cloche.demo import edr_service, weather_service
from tests.conftest import NOW

ROOT = "http://weather.test/edr"
HOURS, DAYS = f"{ROOT}/collections/hours", f"{ROOT}/collections/days"


def answered(path: str, now: datetime = NOW, **words: str) -> dict[str, Any]:
    return edr_service.answer(path, words, ROOT, now, 7)


@pytest.fixture
def addresses(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The stand-in behind its addresses, without a socket; what it was asked."""
    asked_for: list[str] = []

    def read(address: str) -> Any:
        asked_for.append(address)
        url = urlsplit(address)
        words = {key: values[0] for key, values in parse_qs(url.query).items()}
        return edr_service.answer(url.path.removeprefix("/edr"), words, ROOT, NOW, 7)

    monkeypatch.setattr(edr, "read_from", read)
    return asked_for


def test_the_stand_in_speaks_as_the_standards_models_have_it() -> None:
    LandingPageModel.model_validate_json(json.dumps(answered("/")))
    ConformanceModel.model_validate_json(json.dumps(answered("/conformance")))
    assert {
        collection.id for collection in Collections.model_validate_json(json.dumps(answered("/collections"))).collections
    } == {
        "hours",
        "days",
        "runs",
    }
    for name in ("hours", "days"):
        collection = Collection.model_validate_json(json.dumps(answered(f"/collections/{name}")))
        assert collection.data_queries is not None
        assert collection.data_queries.position
        assert collection.data_queries.cube
        point = Coverage.model_validate_json(json.dumps(answered(f"/collections/{name}/position", coords="POINT(15 48)")))
        assert point.domain.domainType == "PointSeries"
        cube = Coverage.model_validate_json(json.dumps(answered(f"/collections/{name}/cube", bbox="14,47,16,49")))
        assert cube.domain.domainType == "Grid"
        assert set(point.ranges) == set(cube.ranges) == set(collection.parameter_names.root)


def test_its_ensemble_is_what_the_standard_calls_one() -> None:
    """The models know the usual axes alone: beyond its own the coverage is one of theirs."""
    document = answered("/collections/runs/position", coords="POINT(15 48)")
    runs = document["domain"]["axes"].pop("realization")["values"]
    assert runs == list(range(1, 21))
    point = Coverage.model_validate_json(json.dumps(document))
    for values in point.ranges.values():
        assert values.axisNames == ["realization", "t"]
        assert values.shape == [20, len(document["domain"]["axes"]["t"]["values"])]
    custom = Collection.model_validate_json(json.dumps(answered("/collections/runs"))).extent.custom
    assert custom is not None
    assert [dimension.id for dimension in custom] == ["realization"]


def test_an_ensembles_runs_come_with_its_days(garden: Garden, addresses: list[str]) -> None:
    garden.timezone_name = "UTC"
    days = edr.EdrProvider([f"{ROOT}/collections/runs", DAYS]).ask(garden)
    assert len(days.ahead) >= 7
    for day in days.ahead[1:7]:
        lows = [run[0] for run in day["runs"]]
        assert len(lows) == edr_service.MANY
        assert day["low_c"] == pytest.approx(sum(lows) / len(lows), abs=0.01)
    spread = [max(run[0] for run in day["runs"]) - min(run[0] for run in day["runs"]) for day in days.ahead[1:7]]
    assert spread[-1] > spread[0] > 0.5
    assert days.past["low_c"]  # the other collection's
    flows.keep(garden, days)
    ahead = [day for day in selectors.reported_days(garden) if day.lead_d]
    assert len(ahead[0].runs) == edr_service.MANY


@pytest.mark.parametrize("runs", [[[5.0, 3.0, None]], [[5.0, 9.0]], [[5.0, 9.0, -1.0]], [["cold", 9.0, 0.0]], 7])
def test_runs_that_cannot_be_are_no_answer(runs: Any) -> None:
    given = weather_service.report(48.0, 15.0, 300.0, ZoneInfo("UTC"), NOW)
    given["forecast"][2]["runs"] = runs
    with pytest.raises(NoAnswer):
        answer_from(given)


@pytest.mark.parametrize(
    "words",
    [
        {"coords": "48, 15"},
        {"coords": "POINT(15 88)"},
        {"coords": "POINT(15 48)", "datetime": "yesterday"},
        {"coords": "POINT(15 48)", "datetime": "1800-01-01T00:00:00Z/1800-01-02T00:00:00Z"},
        {"coords": "POINT(15 48)", "parameter-name": "mood"},
    ],
)
def test_what_the_standard_does_not_know_is_refused(words: dict[str, str]) -> None:
    with pytest.raises(edr_service.Unasked):
        answered("/collections/hours/position", **words)
    with pytest.raises(LookupError):
        answered("/collections/moods/position", coords="POINT(15 48)")


def test_hours_and_days_together_are_the_same_sky_as_the_plain_answer(garden: Garden, addresses: list[str]) -> None:
    garden.timezone_name = "UTC"
    garden.elevation_m = 0.0
    days = edr.EdrProvider([HOURS, DAYS]).ask(garden)
    plain = answer_from(weather_service.report(48.0, 15.0, 0.0, ZoneInfo("UTC"), NOW))
    assert [day["day"] for day in days.ahead] == [day["day"] for day in plain.ahead]
    for mine, other in zip(days.ahead, plain.ahead, strict=True):
        assert mine["low_c"] == pytest.approx(other["low_c"], abs=0.06)
        assert mine["high_c"] == pytest.approx(other["high_c"], abs=0.06)
        assert mine["rain_mm"] == pytest.approx(other["rain_mm"], abs=0.06)
        assert mine["wind_m_s"] == pytest.approx(other["wind_m_s"], abs=0.06)
    assert days.past["first"] == plain.past["first"] == "1996-01-01"
    assert days.past["low_c"][-40:] == pytest.approx(plain.past["low_c"][-40:], abs=0.06)
    assert len(days.past["rain_mm"]) == len(plain.past["rain_mm"])
    assert days.current_c is not None
    # A collection by the hour is not asked for thirty years.
    spans = [parse_qs(urlsplit(address).query)["datetime"][0].split("/") for address in addresses if "/position" in address]
    first, last = (datetime.fromisoformat(at) for at in spans[0])
    assert last - first < timedelta(days=15)


def test_a_collection_that_knows_cubes_only_is_asked_for_one(
    garden: Garden, addresses: list[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    whole = edr_service.collection

    def without(name: str, root: str, now: datetime) -> dict[str, Any]:
        document = whole(name, root, now)
        del document["data_queries"]["position"]
        return document

    monkeypatch.setattr(edr_service, "collection", without)
    assert edr.EdrProvider([HOURS]).ask(garden).ahead
    assert any("/cube?bbox=14.85" in address for address in addresses)


@pytest.mark.parametrize(
    "document",
    [
        {},
        [],
        {"parameter_names": {}},
        {"parameter_names": {"x": {"observedProperty": {"label": "mood"}}}},
        {"parameter_names": {"air_temperature": {"unit": {"symbol": "warm"}}}},
        {"parameter_names": 3},
    ],
)
def test_a_collection_that_describes_nothing_of_use_gives_no_answer(document: Any) -> None:
    with pytest.raises(NoAnswer):
        edr.described(HOURS, document)


def test_parameters_in_a_list_and_open_intervals_are_read() -> None:
    parameter = edr_service.parameters("days")["lowest"] | {"id": "lowest"}
    document = {"parameter_names": [parameter], "extent": {"temporal": {"interval": ["2020-01-01T00:00:00", ".."]}}}
    collection = edr.described(DAYS, document)
    assert (collection.first, collection.last) == (datetime(2020, 1, 1, tzinfo=UTC), None)
    assert collection.daily
    assert collection.query == "position"


PYGEOAPI = Path(__file__).parent / "pygeoapi"
"""What pygeoapi 0.21.0 answered of the station's hours (see bench/edr.py): another server's shapes, as they came."""


def test_another_server_is_read_as_it_is(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its formats have other names and are not listed, its instants bear no zone, its symbols no address."""
    garden.timezone_name = "UTC"
    addresses: list[str] = []

    def read(address: str) -> Any:
        addresses.append(address)
        query = "position" if "/position?" in address else "collection"
        return json.loads((PYGEOAPI / f"{query}.json").read_text(encoding="utf-8"))

    monkeypatch.setattr(edr, "read_from", read)
    monkeypatch.setattr(edr.clock, "now", lambda: datetime(2025, 4, 20, 6, tzinfo=UTC))
    answered = edr.EdrProvider(["http://station.test/collections/station"]).ask(garden)
    assert "f=" not in urlsplit(addresses[1]).query
    days = {date.fromisoformat(answered.past["first"]) + timedelta(days=i): i for i in range(len(answered.past["low_c"]))}
    for day in (date(2025, 4, 18), date(2025, 4, 19)):
        low, high, _rain = edr_bench.station_days()[day]
        assert (answered.past["low_c"][days[day]], answered.past["high_c"][days[day]]) == pytest.approx((low, high), abs=0.01)
    assert [day["day"] for day in answered.ahead] == ["2025-04-20"]
    assert answered.current_c is not None


@pytest.mark.parametrize(
    ("own", "general", "name"),
    [
        (["CoverageJSON", "GeoJSON"], [], "CoverageJSON"),
        (None, ["netcdf", "application/prs.coverage+json"], "application/prs.coverage+json"),
        (None, ["covjson"], "covjson"),
        (["GeoJSON"], ["covjson"], None),
        (None, None, None),
    ],
)
def test_a_format_is_asked_for_by_the_name_that_it_has_there(
    own: list[str] | None, general: list[str] | None, name: str | None
) -> None:
    document = answered("/collections/hours") | {"output_formats": general}
    document["data_queries"]["position"]["link"]["variables"]["output_formats"] = own
    assert edr.described(HOURS, document).format == name


def test_a_service_without_a_whole_day_gives_no_answer(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(edr, "_series", lambda *given: [{}])
    monkeypatch.setattr(edr, "read_from", lambda address: answered("/collections/hours"))
    with pytest.raises(NoAnswer, match="no complete day"):
        edr.EdrProvider([HOURS]).ask(garden)


class Counted:
    """A provider that counts, and fails as long as it is told to."""

    def __init__(self, fails: Exception | None = None) -> None:
        self.count, self.fails = 0, fails

    def ask(self, garden: Garden) -> ProviderAnswer:
        self.count += 1
        if self.fails:
            raise self.fails
        return answer_from(weather_service.report(48.0, 15.0, 300.0, ZoneInfo("UTC"), NOW))


def test_the_next_is_asked_where_one_fails(garden: Garden) -> None:
    first, second = Counted(NoAnswer("gone")), Counted()
    both = asking.InTurn([asking.Guarded("a", first), asking.Guarded("b", second)])
    assert both.ask(garden).ahead
    second.fails = NoAnswer("gone too")
    with pytest.raises(NoAnswer, match="gone too"):
        both.ask(garden)


def test_one_that_keeps_failing_is_left_alone_and_tried_again(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    service = Counted(NoAnswer("gone"))
    guarded = asking.Guarded("a", service)
    for _ in range(5):
        with pytest.raises(NoAnswer):
            guarded.ask(garden)
    assert service.count == asking.FAILS
    with pytest.raises(NoAnswer, match="failed 3 times and will be tried again at"):
        guarded.ask(garden)
    now = turns.database_now()
    monkeypatch.setattr(turns, "database_now", lambda: now + asking.PAUSE + timedelta(minutes=1))
    with pytest.raises(NoAnswer, match="gone"):
        guarded.ask(garden)
    state = ProviderState.objects.get()
    assert state.rests_until is not None
    assert state.rests_until > now + asking.PAUSE + 2 * asking.PAUSE
    service.fails = None
    monkeypatch.setattr(turns, "database_now", lambda: now + timedelta(hours=3))
    assert guarded.ask(garden).ahead
    state.refresh_from_db()
    assert (state.failures, state.rests_until) == (0, None)


def test_a_site_that_a_provider_does_not_serve_is_no_fault_of_it(garden: Garden) -> None:
    guarded = asking.Guarded("a", Counted(NotHere("not in this garden")))
    for _ in range(asking.FAILS + 1):
        with pytest.raises(NotHere):
            guarded.ask(garden)
    assert not ProviderState.objects.exists()


@pytest.mark.parametrize(("raised", "kind"), [(Misasked("It answers with 404."), NotHere), (Refused("It is gone."), NoAnswer)])
def test_what_an_address_answers_tells_the_one_from_the_other(
    raised: Exception, kind: type[Exception], monkeypatch: pytest.MonkeyPatch
) -> None:
    def run(*given: Any) -> bytes:
        raise raised

    monkeypatch.setattr(provider, "run_apart", run)
    with pytest.raises(NoAnswer) as refused:
        provider.read_from("http://x")
    assert type(refused.value) is kind


def test_gardens_of_a_cell_ask_once(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    service = Counted()
    by_cell = asking.ByCell("a", service)
    first = by_cell.ask(garden)
    garden.latitude_deg += 0.01
    assert by_cell.ask(garden) == first
    assert service.count == 1
    garden.latitude_deg += 0.5
    by_cell.ask(garden)
    assert (service.count, WeatherCell.objects.count()) == (2, 2)
    now = turns.database_now()
    monkeypatch.setattr(turns, "database_now", lambda: now + timedelta(minutes=20))
    by_cell.ask(garden)
    assert service.count == 3
    monkeypatch.setattr(turns, "database_now", lambda: now + timedelta(days=4))
    by_cell.ask(garden)
    assert WeatherCell.objects.count() == 1, "old ones are thrown away"


def test_addresses_say_what_they_are(settings: Any) -> None:
    settings.CLOCHE_WEATHER_URL = f"{HOURS},{DAYS} http://127.0.0.1:8077"
    chosen = asking.provider()
    assert isinstance(chosen, asking.InTurn)
    by_the_standard, plain = chosen.providers
    assert isinstance(by_the_standard.provider, asking.ByCell)
    assert by_the_standard.provider.provider.urls == [HOURS, DAYS]  # type: ignore[attr-defined]
    assert isinstance(plain.provider, provider.HttpProvider)
