"""The sheet that goes on from what one garden takes to a hundred thousand. The namespaces themselves are the bench to try."""

import re

import pytest

from bench import hosts, sheet


def rows(text: str) -> list[list[float]]:
    return [
        [float(cell.replace(",", "")) for cell in line.strip("| ").split(" | ")]
        for line in text.splitlines()
        if re.match(r"\| \d", line)
    ]


def test_what_gardens_take_grows_as_they_do(capsys: pytest.CaptureFixture[str]) -> None:
    sheet.print_sheet(forecast_s=1.5, garden_bytes=2e6)
    text = capsys.readouterr().out
    few, some, many = rows(text)
    assert [row[0] for row in (few, some, many)] == [1_000, 10_000, 100_000]
    assert many[1:] == pytest.approx([10 * value for value in some[1:]], rel=0.05)
    assert many[3] == pytest.approx(100_000 * 2e6 / 1e9)
    # Six places within six hours by processors three fifths busy, or all day long for four more forecasts and two readings.
    night, all_day = 1e5 * 6 * 1.5 / (6 * 3600) / 0.6, 1e5 * (6 * 5 + 2) * 1.5 / 86_400 / 0.6
    assert many[1] == pytest.approx(max(night, all_day), rel=0.01)
    assert "Assumed" in text


def test_twice_the_work_takes_twice_the_cores(capsys: pytest.CaptureFixture[str]) -> None:
    sheet.print_sheet(1.0, 1e6)
    sheet.print_sheet(2.0, 1e6)
    printed = rows(capsys.readouterr().out)
    assert printed[5][1] == pytest.approx(2 * printed[2][1], rel=0.01)
    assert printed[5][2:] == printed[2][2:]


@pytest.mark.parametrize(
    ("values", "said"), [([5.0], "5 | 5 | 5"), ([0.0, 10.0], "5 | 10 | 10"), (list(range(101)), "50 | 95 | 100")]
)
def test_a_row_says_the_middle_the_slow_and_the_slowest(values: list[float], said: str) -> None:
    assert hosts._row(values) == said
