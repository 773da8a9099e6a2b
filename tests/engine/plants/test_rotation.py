"""When a family may come back."""

from cloche_engine.plants.rotation import Before, too_soon

PAST = [Before("kale", "brassicas", 2024), Before("cabbage", "brassicas", 2022), Before("lettuce", "daisies", 2026)]


def test_a_family_that_was_there_two_years_ago_comes_too_soon() -> None:
    result = too_soon("brassicas", 2026, PAST)
    assert result
    assert (result.before.crop_key, result.again_from) == ("kale", 2028)


def test_what_waits_long_enough_may_come_back() -> None:
    assert too_soon("brassicas", 2028, PAST) is None


def test_lettuce_may_follow_itself_and_a_second_sowing_is_no_rotation() -> None:
    assert too_soon("daisies", 2027, PAST) is None
    assert too_soon("brassicas", 2024, [Before("kale", "brassicas", 2024)]) is None
