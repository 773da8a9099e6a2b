"""What so many gardens would take of machines, from what one was measured to take. Assumptions stand in the sheet."""

from __future__ import annotations

GARDENS = (1_000, 10_000, 100_000)
PLACES, WEATHER_A_DAY, READINGS_A_DAY = 6, 4, 2
"""A garden's places; answers of the weather that say something new, after each of which all of its places are worked out;
places read by hand or by a logger's new hour that somebody looks at."""
NIGHT_H, BUSY = 6.0, 0.6
"""The new day's work is to be done in so long, by processors that are kept so busy."""
PAGES_A_DAY, PAGE_S, PEAK = 12, 0.15, 8.0
"""Looked at per garden; processor time of one; the busiest hour against the mean."""
A_YEAR = 365.0


def print_sheet(forecast_s: float, garden_bytes: float) -> None:
    """forecast_s: processor time of one place worked out [s]; garden_bytes: in the database [B]."""
    a_day = PLACES * (1 + WEATHER_A_DAY) + READINGS_A_DAY
    spent_s = a_day * forecast_s
    hours = spent_s * A_YEAR / 3600
    print(f"A place takes {forecast_s:.2f} s of a processor, a garden {a_day} of them a day: {hours:.0f} hours of one a year,")
    print(f"and {garden_bytes / 1e6:.1f} MB of the database so far.\n")
    print("| gardens | cores for the work | cores for pages | database GB |\n|---|---|---|---|")
    for gardens in GARDENS:
        night = gardens * PLACES * forecast_s / (NIGHT_H * 3600) / BUSY
        all_day = gardens * spent_s / 86_400 / BUSY
        pages = gardens * PAGES_A_DAY * PAGE_S / 86_400 * PEAK / BUSY
        print(f"| {gardens:,} | {max(night, all_day):.1f} | {pages:.1f} | {gardens * garden_bytes / 1e9:.1f} |")
    print(
        f"\nAssumed: {PLACES} places a garden; all of them worked out for the new day within {NIGHT_H:.0f} hours and again for "
        f"{WEATHER_A_DAY} new forecasts of the weather; {READINGS_A_DAY} places after readings; {PAGES_A_DAY} pages a day of "
        f"{PAGE_S} s each, {PEAK:.0f} times as many in the busiest hour; processors kept {100 * BUSY:.0f} % busy. "
        "Not in it: years of loggers, pictures."
    )
