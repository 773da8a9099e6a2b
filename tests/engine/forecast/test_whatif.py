"""What a cover would buy: the same as when it is really there."""

import io
import json
from dataclasses import replace
from datetime import timedelta
from functools import cache

import numpy as np
import pytest

from cloche_engine.api import forecast, what_if
from cloche_engine.forecast.snapshots import pack, unpack
from cloche_engine.inputs import CoverSpan
from cloche_engine.queries import CoverGain, OutdatedSnapshot, WhatIfQuery
from tests.engine.forecast.test_forecasting import TODAY, inputs, usual

FRAME = CoverSpan("glass_frame", opens="above", above_c=22.0, opening=0.4)
EIGHT = tuple(
    CoverSpan(key, opens="closed" if "fleece" in key else "above")
    for key in ("glass_frame", "film_tunnel", "bent_sheet", "fleece", "bell", "twin_wall_arch", "film_on_soil", "bin")
)


@cache
def kept() -> bytes:
    return usual().snapshot


def query(*covers: CoverSpan, on_d: int = 0) -> list[CoverGain]:
    return what_if(kept(), inputs(), WhatIfQuery(on_d, 14, covers, ("carrot", "squash")))


def test_what_was_kept_comes_back_as_it_was() -> None:
    again = unpack(kept())
    assert pack(again) == kept()
    assert again.today == TODAY


@pytest.mark.parametrize("on_d", [0, 9], ids=["today", "in nine days"])
def test_it_agrees_with_a_whole_forecast_in_which_the_cover_is_there(on_d: int) -> None:
    """The bed is learned anew with the cover known, and run from its first day: within a tenth of a degree."""
    bare, under = query(FRAME, on_d=on_d)
    full = forecast(inputs(covers=[replace(FRAME, first=TODAY + timedelta(days=on_d))])).ground
    for row, given in zip(under.soil_c, (full.far_low_c, full.far_mid_c, full.far_high_c), strict=True):
        assert np.abs(np.array(row) - np.array(given[on_d : on_d + len(row)])).max() < 0.1
    assert np.abs(np.array(bare.soil_c[1][:9]) - np.array(usual().ground.far_mid_c[on_d : on_d + 9])).max() < 0.02


def test_any_day_of_the_coming_year_can_be_asked_about() -> None:
    """In eleven months it is spring again: as warm as the long run of the same place has it, and a frame still warms it."""
    bare, under = query(FRAME, on_d=320)
    assert len(under.soil_c[1]) == 45
    near, _ = query(FRAME, on_d=0)
    winter, _ = query(FRAME, on_d=270)
    assert winter.soil_c[1][0] < near.soil_c[1][0] - 3
    assert winter.soil_c[1][0] < bare.soil_c[1][0]
    assert under.gain_k[1] > 2.0
    last, _ = query(FRAME, on_d=365)
    assert len(last.soil_c[1]) == 45


def test_what_another_version_kept_is_not_misread() -> None:
    with np.load(io.BytesIO(kept())) as room:
        arrays = {name: room[name] for name in room.files}
    meta = json.loads(arrays["meta"].tobytes())
    del meta["format"]
    older = io.BytesIO()
    np.savez_compressed(older, **arrays | {"meta": np.frombuffer(json.dumps(meta).encode(), dtype=np.uint8)})
    with pytest.raises(OutdatedSnapshot):
        what_if(older.getvalue(), inputs(), WhatIfQuery(0, 14, (FRAME,), ("carrot",)))


def test_beyond_what_was_kept_is_said_and_not_made_up() -> None:
    with pytest.raises(OutdatedSnapshot):
        query(FRAME, on_d=400)


def test_a_closed_frame_warms_the_ground_and_cooks_what_stands_in_it() -> None:
    bare, under = query(FRAME)
    assert bare.gain_k == [0.0, 0.0, 0.0]
    assert 2.0 < under.gain_k[1] < 8.0
    assert under.gain_k[0] < under.gain_k[1] < under.gain_k[2]
    assert under.hottest_c[1] > bare.hottest_c[1] + 5
    assert under.hottest_c[2] > 30.0
    assert under.open_h > 0


def test_a_crop_is_up_sooner_and_more_of_it_under_a_frame() -> None:
    (bare, cold), (under, squash) = (gain.crops for gain in query(FRAME))
    assert under.half_d[1] is not None
    assert bare.half_d[1] is not None
    assert under.half_d[1] < bare.half_d[1]
    assert under.share >= bare.share
    assert squash.half_d[1] < cold.half_d[1] - 3
    assert squash.share > cold.share + 0.1


def test_a_forecast_of_yesterday_is_run_on_to_today() -> None:
    tomorrow = replace(inputs(), today=TODAY + timedelta(days=1))
    bare, _ = what_if(kept(), tomorrow, WhatIfQuery(0, 14, (FRAME,), ("carrot",)))
    assert bare.soil_c[1][:10] == pytest.approx(query(FRAME)[0].soil_c[1][1:11], abs=0.05)


def test_eight_covers_are_worked_out_at_once() -> None:
    under = query(*EIGHT)[1:]
    assert len(under) == 8
    assert all(len(gain.soil_c[1]) == len(under[0].soil_c[1]) for gain in under)
