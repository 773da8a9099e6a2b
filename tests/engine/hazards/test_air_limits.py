from cloche_engine.crops.catalogue import crop
from cloche_engine.hazards.air_limits import HOT_C, LYING_HOT_C, Stage, cold_c, limits_of
from cloche_engine.windows.limits import TOLD_K


def test_the_tenderest_of_all_sets_the_cold_and_the_coolest_the_heat() -> None:
    limits = limits_of([(crop("squash"), Stage.SEEDLING), (crop("lettuce"), Stage.GROWN)])
    assert limits.hot_c == HOT_C["cool"]
    assert (limits.hot_by, limits.cold_by) == (1, 0)
    assert limits.cold_c == crop("squash").frost_limit_c


def test_seed_that_is_not_up_minds_neither_frost_nor_warm_air() -> None:
    limits = limits_of([(crop("carrot"), Stage.LYING)])
    assert (limits.hot_c, limits.cold_c) == (LYING_HOT_C, None)


def test_where_nothing_is_noted_care_is_taken() -> None:
    limits = limits_of([])
    assert limits.hot_c == HOT_C["cool"]
    assert limits.cold_c is not None
    assert limits.hot_by is None


def test_grown_plants_stand_more_cold_than_seedlings() -> None:
    seedling, grown = (limits_of([(crop("chard"), stage)]).cold_c for stage in (Stage.SEEDLING, Stage.GROWN))
    assert grown is not None
    assert seedling is not None
    assert grown <= seedling


def test_hardy_crops_are_warned_of_as_windows_judge_them() -> None:
    """Common practice, no source: handbooks tell what hardy crops stand by the weather report, tender ones by the leaf."""
    hardy, tender = crop("lettuce"), crop("squash")
    assert cold_c(hardy, Stage.SEEDLING) == hardy.frost_limit_c - TOLD_K
    assert cold_c(tender, Stage.SEEDLING) == tender.frost_limit_c
