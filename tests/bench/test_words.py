"""A word that the benchmark does not know is told so."""

import pytest

from bench.__main__ import main


def test_an_unknown_word_is_told_what_there_is(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["bench", "nonsense"]) == 64
    said = capsys.readouterr().err
    assert "“nonsense” is neither a part of the benchmark" in said
    assert "faults" in said
