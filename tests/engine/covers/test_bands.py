"""The band under a cover that nobody has read, and after a week: made-up gardens, also such as lie outside what is expected.

The benchmark counts more of them (`./run bench bands`).
"""

from bench.undercover import OUTSIDE, garden, mean


def test_covers_outside_the_priors_stay_in_the_band_two_times_in_three_and_a_week_narrows_it() -> None:
    keys = ("glass_frame", "film_tunnel", "bell", "glass_frame", "film_tunnel")
    shares = [garden(seed, key, beyond) for seed, (key, beyond) in enumerate(zip(keys, OUTSIDE, strict=True))]
    shares.append(garden(9, "fleece", permeable=1.0))
    unread, read = (mean([pair[part] for pair in shares]) for part in (0, 1))
    for held in (unread, read):
        assert held.inside >= 0.65
        assert held.air_inside >= 0.65
    assert read.half_k < unread.half_k / 1.5
    assert read.air_half_k < unread.air_half_k / 1.5


def test_without_a_reading_the_band_is_as_wide_as_gardens_differ() -> None:
    """Eight of ten made-up gardens within it, give or take what eight gardens can tell."""
    unread = mean([garden(seed, key)[0] for seed, key in enumerate(("glass_frame", "film_tunnel", "fleece", "bell") * 2)])
    assert unread.inside >= 0.7
    assert unread.air_inside >= 0.65
    assert 1.5 < unread.half_k < 6
