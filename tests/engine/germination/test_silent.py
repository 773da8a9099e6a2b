"""A silent row, dug up. Common practice, no source."""

import pytest

from cloche_engine.germination.silent import Advice, Cause, Dug, silent


@pytest.mark.parametrize(
    ("dug", "came", "alive", "cause", "advice"),
    [
        (Dug(sound=8), 0.2, 0.9, Cause.COLD, Advice.WAIT),
        (Dug(sound=8, dry=True), 1.4, 0.9, Cause.DRY, Advice.WATER),
        (Dug(sound=8), 1.6, 0.9, Cause.OLD, Advice.AGAIN),
        (Dug(swollen=5, sound=2), 0.8, 0.9, Cause.COMING, Advice.WAIT),
        (Dug(swollen=6, crusted=True), 1.3, 0.9, Cause.CRUST, Advice.BREAK),
        (Dug(swollen=6, crusted=True), 0.7, 0.9, Cause.COMING, Advice.WAIT),
        (Dug(rotten=6, sound=1), 0.6, 0.9, Cause.ROTTEN, Advice.AGAIN),
        (Dug(rotten=6), 0.6, 0.2, Cause.OLD, Advice.AGAIN),
        (Dug(eaten=7, sound=1), 0.6, 0.9, Cause.EATEN, Advice.AGAIN),
        (Dug(sound=2, swollen=3, depth_m=0.08), 1.5, 0.9, Cause.DEEP, Advice.AGAIN),
        (Dug(crusted=True), 1.2, 0.9, Cause.CRUST, Advice.BREAK),
        (Dug(), 1.2, 0.9, Cause.UNKNOWN, Advice.LOOK),
    ],
)
def test_what_the_seed_looks_like_tells_what_went_wrong(
    dug: Dug, came: float, alive: float, cause: Cause, advice: Advice
) -> None:
    finding = silent(dug, 0.02, came, alive)
    assert (finding.causes[0], finding.advice) == (cause, advice)


def test_several_causes_are_named_the_likeliest_first() -> None:
    finding = silent(Dug(sound=1, rotten=4, eaten=2), 0.02, 0.5, 0.9)
    assert finding.causes == (Cause.ROTTEN, Cause.EATEN, Cause.COLD)


def test_only_seed_that_failed_by_itself_tells_of_the_lot() -> None:
    assert silent(Dug(rotten=5), 0.02, 1.2, 0.9).teaches
    assert not silent(Dug(eaten=5), 0.02, 1.2, 0.9).teaches
    assert not silent(Dug(sound=5), 0.02, 0.2, 0.9).teaches
