"""CoverageJSON read: units by UCUM, names by CF, hours gathered into a site's own days, the nearest cell of a grid."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest

from cloche.bridge.services.coverages import (
    NotUnderstood,
    Quantity,
    air_at,
    days_of,
    days_of_runs,
    meant,
    series_of,
)

BEGIN = datetime(2026, 4, 20, tzinfo=UTC)
VIENNA, DENVER = ZoneInfo("Europe/Vienna"), ZoneInfo("America/Denver")


def parameter(name: str, unit: str, method: str = "", duration: str = "") -> dict[str, Any]:
    described = {
        "type": "Parameter",
        "observedProperty": {"id": f"http://vocab.nerc.ac.uk/standard_name/{name}/", "label": {"en": name}},
        "unit": {"symbol": {"value": unit, "type": "http://www.opengis.net/def/uom/UCUM/"}},
    }
    return described | ({"measurementType": {"method": method, "duration": duration}} if method else {})


def coverage(
    parameters: dict[str, Any], values: dict[str, list[float | None]], step: timedelta = timedelta(hours=1), **more: Any
) -> dict[str, Any]:
    times = [(BEGIN + i * step).isoformat() for i in range(len(next(iter(values.values()))))]
    ranges = {
        key: {"type": "NdArray", "dataType": "float", "axisNames": ["t"], "shape": [len(row)], "values": row}
        for key, row in values.items()
    }
    axes = {"x": {"values": [15.0]}, "y": {"values": [48.0]}, "t": {"values": times}}
    domain = {"type": "Domain", "domainType": "PointSeries", "axes": axes}
    return {"type": "Coverage", "domain": domain, "parameters": parameters, "ranges": ranges} | more


@pytest.mark.parametrize(
    ("name", "unit", "value", "quantity", "expected"),
    [
        # Conversions are by definition of the units.
        ("air_temperature", "Cel", 12.5, Quantity.AIR, 12.5),
        ("air_temperature", "K", 285.65, Quantity.AIR, 12.5),
        ("air_temperature", "[degF]", 54.5, Quantity.AIR, 12.5),
        ("precipitation_amount", "kg/m2", 3.0, Quantity.RAIN, 3.0),
        ("precipitation_amount", "kg m-2", 3.0, Quantity.RAIN, 3.0),
        ("lwe_thickness_of_precipitation_amount", "m", 0.003, Quantity.RAIN, 3.0),
        ("lwe_thickness_of_precipitation_amount", "[in_i]", 1.0, Quantity.RAIN, 25.4),
        ("wind_speed", "km/h", 36.0, Quantity.WIND, 10.0),
        ("wind_speed", "[kn_i]", 10.0, Quantity.WIND, 5.14444),
        ("cloud_area_fraction", "%", 40.0, Quantity.CLOUD, 0.4),
    ],
)
def test_units_and_names(name: str, unit: str, value: float, quantity: Quantity, expected: float) -> None:
    series = series_of(coverage({"p": parameter(name, unit)}, {"p": [value]}), 48.0, 15.0)[0]
    assert list(series) == [quantity]
    assert series[quantity][BEGIN] == pytest.approx(expected)


@pytest.mark.parametrize(
    ("described", "key"),
    [
        ({"observedProperty": {"label": "Air temperature"}, "unit": {"symbol": "Cel"}}, "t2m"),
        ({"observedProperty": {"label": {"en": "air_temperature"}}, "unit": {"symbol": {"value": "Cel"}}}, "0"),
        ({"observedProperty": {"label": "2 m"}, "unit": {"symbol": "Cel"}}, "air_temperature"),
        ({"label": "air temperature", "observedProperty": {"label": "T"}, "unit": {"symbol": "Cel"}}, "x"),
    ],
)
def test_shapes_of_other_services(described: dict[str, Any], key: str) -> None:
    meaning = meant(described, key)
    assert meaning is not None
    assert meaning.quantity is Quantity.AIR


def test_what_cannot_be_used_is_left_out_not_guessed() -> None:
    assert meant(parameter("air_temperature", "degrees"), "t") is None
    assert meant(parameter("sea_water_temperature", "Cel"), "t") is None
    with pytest.raises(NotUnderstood):
        series_of(coverage({"p": parameter("sea_water_temperature", "Cel")}, {"p": [1.0]}), 48.0, 15.0)


def test_hours_become_the_sites_own_days() -> None:
    air = [float(hour % 24) for hour in range(72)]
    series = series_of(coverage({"p": parameter("air_temperature", "Cel")}, {"p": air}), 48.0, 15.0)[0]
    assert list(days_of(series, ZoneInfo("UTC"))) == [date(2026, 4, 20), date(2026, 4, 21), date(2026, 4, 22)]
    # In summer Vienna's day begins at 22 UTC of the day before; its first and last are not whole.
    vienna = days_of(series, VIENNA)
    assert list(vienna) == [date(2026, 4, 20), date(2026, 4, 21), date(2026, 4, 22)]
    assert (vienna[date(2026, 4, 21)]["low_c"], vienna[date(2026, 4, 21)]["high_c"]) == (0.0, 23.0)
    denver = days_of(series, DENVER)
    assert date(2026, 4, 19) not in denver


def test_rain_fell_before_the_hour_at_which_it_stands() -> None:
    air, rain = [5.0] * 49, [0.0] * 49
    rain[24] = 6.0
    both = {"a": parameter("air_temperature", "Cel"), "r": parameter("precipitation_amount", "mm")}
    days = days_of(series_of(coverage(both, {"a": air, "r": rain}), 48.0, 15.0)[0], ZoneInfo("UTC"))
    assert days[date(2026, 4, 20)]["rain_mm"] == 6.0
    assert days[date(2026, 4, 21)]["rain_mm"] == 0.0


def test_daily_extremes_bear_their_own_date_wind_comes_down_to_two_metres_and_clouds_are_words() -> None:
    described = {
        "low": parameter("air_temperature", "Cel", "minimum", "P1D"),
        "high": parameter("air_temperature", "Cel", "maximum", "P1D"),
        "wind": parameter("wind_speed", "m/s"),
        "cloud": parameter("cloud_area_fraction", "1"),
    }
    values: dict[str, list[float | None]] = {
        "low": [2.0, None, 4.0],
        "high": [12.0, 13.0, 14.0],
        "wind": [10.0, 1.0, 1.0],
        "cloud": [0.1, 0.5, 0.9],
    }
    days = days_of(series_of(coverage(described, values, timedelta(days=1)), 48.0, 15.0)[0], DENVER)
    assert list(days) == [date(2026, 4, 20), date(2026, 4, 22)]
    # FAO-56, equation 47: 4.87 / ln(67.8 · 10 − 5.42) = 0.748 of the wind at ten metres.
    assert days[date(2026, 4, 20)] == {"low_c": 2.0, "high_c": 12.0, "rain_mm": None, "wind_m_s": 7.48, "sky": "clear"}
    assert days[date(2026, 4, 22)]["sky"] == "overcast"


def test_of_a_grid_the_nearest_cell_that_tells_anything_counts() -> None:
    document = coverage({"p": parameter("air_temperature", "Cel")}, {"p": [0.0, 0.0]})
    document["domain"]["domainType"] = "Grid"
    document["domain"]["axes"] |= {"x": {"start": 14.0, "stop": 16.0, "num": 3}, "y": {"values": [47.0, 48.0]}}
    values = [float(10 * cell + hour) for cell in range(6) for hour in range(2)]
    document["ranges"]["p"] |= {"axisNames": ["y", "x", "t"], "shape": [2, 3, 2], "values": values}
    series = series_of(document, 48.1, 15.1)[0][Quantity.AIR]
    assert list(series.values()) == [40.0, 41.0]
    for hour in (0, 1):
        document["ranges"]["p"]["values"][4 * 2 + hour] = None
    assert list(series_of(document, 48.1, 15.1)[0][Quantity.AIR].values()) == [50.0, 51.0]


def test_a_collection_of_coverages_shares_its_parameters() -> None:
    cell = coverage({}, {"p": [7.0]})
    two = coverage({}, {"r": [1.0]})
    for part in (cell, two):
        del part["parameters"]
    shared = {"p": parameter("air_temperature", "Cel"), "r": parameter("precipitation_amount", "mm")}
    document = {"type": "CoverageCollection", "parameters": shared, "coverages": [cell, two]}
    assert set(series_of(document, 48.0, 15.0)[0]) == {Quantity.AIR, Quantity.RAIN}
    # A document that names its parameters only is read by what the collection says of them.
    assert set(series_of(cell, 48.0, 15.0, shared)[0]) == {Quantity.AIR}


@pytest.mark.parametrize(
    "document",
    [None, [], {}, {"type": "Coverage"}, {"type": "CoverageCollection", "coverages": [1]}, "text"],
)
def test_nonsense_is_refused(document: Any) -> None:
    with pytest.raises(NotUnderstood):
        series_of(document, 48.0, 15.0)


def test_values_that_do_not_fit_their_times_are_refused() -> None:
    document = coverage({"p": parameter("air_temperature", "Cel")}, {"p": [1.0, 2.0]})
    document["domain"]["axes"]["t"]["values"].append((BEGIN + timedelta(days=9)).isoformat())
    with pytest.raises(NotUnderstood):
        series_of(document, 48.0, 15.0)


def test_the_air_now_is_the_last_that_was_told() -> None:
    series = series_of(coverage({"p": parameter("air_temperature", "Cel")}, {"p": [1.0, 2.0, 3.0]}), 48.0, 15.0)
    assert air_at(series, BEGIN + timedelta(minutes=90), timedelta(hours=2)) == 2.0
    assert air_at(series, BEGIN + timedelta(hours=9), timedelta(hours=2)) is None


def of_runs(runs: list[list[float]], rain: list[float] | None = None) -> dict[str, Any]:
    """Air by run and hour, rain told once."""
    both = {"a": parameter("air_temperature", "Cel")} | ({"r": parameter("precipitation_amount", "mm")} if rain else {})
    document = coverage(both, {"a": runs[0]} | ({"r": list(rain)} if rain else {}))
    del document["domain"]["domainType"]
    document["domain"]["axes"]["realization"] = {"values": list(range(len(runs)))}
    # Time before runs: axes come in any order.
    values = [value for at in zip(*runs, strict=True) for value in at]
    document["ranges"]["a"] |= {"axisNames": ["t", "realization"], "shape": [len(runs[0]), len(runs)], "values": values}
    return document


def test_an_ensemble_is_told_by_run_and_its_days_by_their_mean() -> None:
    cold, warm = [float(h) for h in range(24)], [h + 4.0 for h in range(24)]
    runs = series_of(of_runs([cold, warm], rain=[0.0] * 12 + [1.0] * 12), 48.0, 15.0)
    assert [list(run[Quantity.AIR].values()) for run in runs] == [cold, warm]
    day = days_of_runs(runs, ZoneInfo("UTC"))[date(2026, 4, 20)]
    assert (day["low_c"], day["high_c"]) == (2.0, 25.0)
    assert [run[:2] for run in day["runs"]] == [[0.0, 23.0], [4.0, 27.0]]
    assert day["runs"][0][2] == day["runs"][1][2] == day["rain_mm"]
    assert air_at(runs, BEGIN + timedelta(hours=3), timedelta(hours=2)) == 5.0


def test_an_hour_that_a_run_leaves_out_is_nobodys() -> None:
    cold = [float(h) for h in range(24)]
    gap = [*cold[:5], float("nan"), *cold[6:]]
    document = of_runs([cold, gap])
    document["ranges"]["a"]["values"] = [None if v != v else v for v in document["ranges"]["a"]["values"]]
    assert [len(run[Quantity.AIR]) for run in series_of(document, 48.0, 15.0)] == [23, 23]


def one_by_one(*coverages: dict[str, Any]) -> dict[str, Any]:
    return {"type": "CoverageCollection", "domainType": "PointSeries", "coverages": list(coverages)}


def test_an_ensemble_may_come_as_one_coverage_a_run() -> None:
    cold, warm = [float(h) for h in range(24)], [float(h + 4) for h in range(24)]
    temperature, fall = {"a": parameter("air_temperature", "Cel")}, {"r": parameter("precipitation_amount", "mm")}
    rain = coverage(fall, {"r": [0.0] * 12 + [1.0] * 12})
    runs = series_of(one_by_one(coverage(temperature, {"a": [*cold]}), rain, coverage(temperature, {"a": [*warm]})), 48.0, 15.0)
    assert [list(run[Quantity.AIR].values()) for run in runs] == [cold, warm]
    assert runs[0][Quantity.RAIN] == runs[1][Quantity.RAIN]
    day = days_of_runs(runs, ZoneInfo("UTC"))[date(2026, 4, 20)]
    assert [run[:2] for run in day["runs"]] == [[0.0, 23.0], [4.0, 27.0]]


def test_an_hour_that_one_of_the_runs_leaves_out_is_of_none() -> None:
    temperature = {"a": parameter("air_temperature", "Cel")}
    whole, gap = [float(h) for h in range(24)], [None, *(float(h) for h in range(1, 24))]
    for first, second in ((whole, gap), (gap, whole)):
        runs = series_of(
            one_by_one(coverage(temperature, {"a": [*first]}), coverage(temperature, {"a": [*second]})), 48.0, 15.0
        )
        assert [len(run[Quantity.AIR]) for run in runs] == [23, 23]


def test_points_beside_each_other_are_no_runs_and_the_nearest_is_taken() -> None:
    temperature = {"a": parameter("air_temperature", "Cel")}
    near, far = (coverage(temperature, {"a": [value] * 24}) for value in (8.0, 3.0))
    far["domain"]["axes"]["x"]["values"] = [15.4]
    for both in ((near, far), (far, near)):
        (run,) = series_of(one_by_one(*both), 48.0, 15.1)
        assert set(run[Quantity.AIR].values()) == {8.0}


def test_days_one_after_another_in_coverages_of_their_own_are_one_series() -> None:
    temperature = {"a": parameter("air_temperature", "Cel")}
    first, second = (coverage(temperature, {"a": [value] * 24}) for value in (8.0, 3.0))
    second["domain"]["axes"]["t"]["values"] = [(BEGIN + timedelta(hours=24 + h)).isoformat() for h in range(24)]
    (run,) = series_of(one_by_one(first, second), 48.0, 15.0)
    assert len(run[Quantity.AIR]) == 48


def test_what_is_nested_beyond_measure_is_refused_in_words() -> None:
    odd: list[Any] = []
    for _ in range(5000):
        odd = [odd]
    with pytest.raises(NotUnderstood):
        series_of({"type": "CoverageCollection", "coverages": odd}, 48.0, 15.0)
