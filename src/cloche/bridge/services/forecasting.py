"""The making of a forecast, step by step. Pure: same inputs, same answer to the digit.

Each step is a function of `forecast_steps`; what the pages draw is put together in `forecast_summary`. Storing is the rooms'.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from cloche.bridge.services import forecast_steps as step
from cloche.bridge.services import outlooks, own
from cloche.bridge.services.forecast_summary import summary
from cloche.bridge.services.frosts import frost_dates
from cloche.bridge.services.heat_watch import alarm_of, without_failed_heat
from cloche.bridge.services.places import ALWAYS_H, cover_over
from cloche.bridge.services.snapshots import pack
from cloche.bridge.services.soundness import check
from cloche.bridge.services.watching import growing_in, watch
from cloche.bridge.values.inputs import CoverSpan, ForecastInputs
from cloche.bridge.values.packing import short
from cloche.bridge.values.stored import CoverEvidence, CropDays, FrostDates, NightsAhead, PlaceForecast, SowingOutlook, Watch
from cloche.core.protection.cover_benefit import even_lows_c
from cloche.core.protection.felt import felt_c


@dataclass(frozen=True)
class ForecastResult:
    """All that is worked out of a place. sown: by the sowing's number; snapshot: what it takes to run the place again (see
    bridge.services.snapshots); watch: None indoors; cover_evidence: None where nothing was learned of a cover."""

    ground: PlaceForecast
    frosts: FrostDates
    cover_evidence: CoverEvidence | None
    crops: list[CropDays]
    sown: dict[int, SowingOutlook]
    watch: Watch | None
    snapshot: bytes
    nights: NightsAhead


def forecast(inputs: ForecastInputs) -> ForecastResult:
    """Learn the place and run it over the coming year. Raises Unsound where what comes out cannot be true."""
    own.use(inputs.own)
    weather = step.know_weather(inputs)
    members = step.draw_members(inputs, weather)
    described = step.describe_place(inputs, weather)
    observed = step.gather_observations(inputs, described)
    behind = step.behind(inputs, members)
    alarm = alarm_of(inputs, described, observed, behind)
    observed = without_failed_heat(inputs, described, observed, behind)
    learned = step.learn_place(inputs, described, observed, members)
    run = step.run_ahead(inputs, described, learned, members, weather)

    today = run.trajectory.after(run.run_up_d * 24)
    judged = step.judge_crops(inputs, run, today, run.is_sheltered, weather.frosts.frosts)
    sown = step.follow_sowings(inputs, run)
    felt_behind = felt_c(run.trajectory.cut(run.run_up_d * 24 + 12), run.is_sheltered)
    result = ForecastResult(
        ground=replace(summary(inputs, run, weather, observed), alarm=alarm),
        frosts=frost_dates(weather.frosts, inputs.latitude_deg, inputs.today),
        cover_evidence=step.evidence_of_cover(inputs, described, learned, observed),
        crops=outlooks.crop_days(step.crops_of(inputs), judged, inputs.today),
        sown=sown,
        watch=watch(inputs, run.checkpoint, run.situation, growing_in(inputs, sown), run.outside, run.run_up_d, felt_behind),
        snapshot=pack(run.snapshot),
        nights=NightsAhead(short(even_lows_c(run.snapshot.weather.low_c[run.snapshot.run_up_d :]))),
    )
    check(result.ground, result.frosts, result.crops)
    return result


def windows_under(inputs: ForecastInputs, spans: Sequence[CoverSpan | None]) -> list[list[CropDays]]:
    """Every crop's outlook with each cover in turn standing there all year, as it is aired, and bare where it is None."""
    own.use(inputs.own)
    weather = step.know_weather(inputs)
    members = step.draw_members(inputs, weather)
    described = step.describe_place(inputs, weather)
    observed = without_failed_heat(inputs, described, step.gather_observations(inputs, described), step.behind(inputs, members))
    learned = step.learn_place(inputs, described, observed, members)
    run = step.run_ahead(inputs, described, learned, members, weather)

    covers = [() if span is None else (cover_over(span, inputs, 0.0, ALWAYS_H),) for span in spans]
    judged = (
        step.judge_crops(inputs, run, trajectory, bool(over), weather.frosts.frosts)
        for over, trajectory in zip(covers, run.checkpoint.on(covers, step.SOIL_D), strict=True)
    )
    return [outlooks.crop_days(step.crops_of(inputs), ground, inputs.today) for ground in judged]
