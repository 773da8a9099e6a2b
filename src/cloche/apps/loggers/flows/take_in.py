"""Taking in what a device sends: each value once, faults kept apart, hours summed as they come.

HTTP and MQTT end here.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

from django.core.exceptions import ValidationError
from django.db import connection, transaction
from django.utils.translation import gettext as _

from cloche.apps.loggers.models import Device, Probe
from cloche.apps.loggers.selectors import values_in
from cloche.apps.places.flows import note_change_at
from cloche.apps.shared import clock
from cloche.apps.shared.quota import refuse_beyond
from cloche.bridge.services.readings import celsius, faults_of

MOST_ROWS = 20_000
GRACE = timedelta(minutes=10)
FIRST = datetime(2015, 1, 1, tzinfo=UTC)
DRIFT_S, CLOCK_OFF = 60, timedelta(days=1)
"""A minute's drift is none; a clock that is a day off is not running, and its times would meet themselves again."""
MOST_DRIFT_S = 2_000_000_000
"""Sixty years: what the column holds; a clock that says 2100 runs further ahead."""


@dataclass(frozen=True)
class Sent:
    """One value as sent. `at` is the time on the device’s clock, None for now."""

    channel: str
    temperature: float
    at: datetime | None = None


@dataclass(frozen=True)
class Refused:
    """A refused value: its index, a code for machines and a sentence for people."""

    index: int
    code: str
    message: str


@dataclass(frozen=True)
class Taken:
    """The result. `known` counts values already stored, `faulty` those stored but not used."""

    kept: int
    known: int
    faulty: int
    refused: list[Refused] = field(default_factory=list)


@dataclass
class _Rows:
    """Columns on their way to the table."""

    probe: list[int] = field(default_factory=list)
    at_s: list[int] = field(default_factory=list)
    value: list[float] = field(default_factory=list)


def take_in(device: Device, sent: Sequence[Sent], unit: str = "", sent_at: datetime | None = None) -> Taken:
    """Store what a device sends.

    `unit` is C, F or K, or else that of the device; `sent_at` is the present time on the device’s clock.
    """
    now = clock.now()
    drift_s = round((sent_at - now).total_seconds()) if sent_at else 0
    shift_s = -drift_s if abs(drift_s) >= DRIFT_S else 0
    rows, refused = _judged(device, sent, now, timedelta(seconds=shift_s))
    values_c = celsius(rows.value, unit or device.unit)
    faults = faults_of(values_c)
    with transaction.atomic():
        kept = _insert(rows, values_c, faults, shift_s)
        if sum(batch.number for batch in kept) < len(rows.at_s):
            kept += _insert_clashing(rows, values_c, faults, shift_s)
        heard = {"heard_at": now} | ({"drift_s": max(-MOST_DRIFT_S, min(drift_s, MOST_DRIFT_S))} if sent_at else {})
        Device.objects.filter(pk=device.pk).update(**heard)
        if kept:
            _note(kept)
    faulty, number = sum(1 for fault in faults if fault), sum(batch.number for batch in kept)
    return Taken(number, len(rows.at_s) - number, faulty, refused)


def _judged(device: Device, sent: Sequence[Sent], now: datetime, shift: timedelta) -> tuple[_Rows, list[Refused]]:
    try:
        refuse_beyond("values", values_in(device.garden_id) + len(sent))
    except ValidationError as full:
        return _Rows(), [Refused(index, "full", str(full.message)) for index in range(len(sent))]
    probes: dict[str, list[Probe]] = {}
    for probe in device.probes.all():
        probes.setdefault(probe.channel, []).append(probe)
    rows, refused = _Rows(), []
    for index, reading in enumerate(sent):
        at = (reading.at or now - shift).astimezone(UTC).replace(microsecond=0)
        why = _why_not(reading, at + shift, now, probes, shift)
        if why:
            refused.append(Refused(index, *why))
            continue
        probe = _stuck_then(probes[reading.channel], at + shift)
        rows.probe.append(probe.pk)
        rows.at_s.append(int(at.timestamp()))
        rows.value.append(reading.temperature)
    return rows, refused


def _why_not(
    sent: Sent, at: datetime, now: datetime, probes: dict[str, list[Probe]], shift: timedelta
) -> tuple[str, str] | None:
    if sent.channel not in probes:
        return "channel", _("Probe “{channel}” has not been assigned to a place. Assign it under Loggers.").format(
            channel=sent.channel
        )
    if sent.temperature != sent.temperature or abs(sent.temperature) > 1e6:
        return "value", _("{temperature} is not a temperature.").format(temperature=sent.temperature)
    if abs(shift) > CLOCK_OFF:
        return "clock", _("The device’s clock is more than a day off. Set it and send again.")
    if at > now + GRACE:
        return "future", _("{at} is in the future: the device’s clock runs ahead, or its time zone is missing.").format(
            at=f"{at:%Y-%m-%d %H:%M}"
        )
    if at < FIRST:
        return "past", _("{at} is before {first}: the device’s clock was not set.").format(
            at=f"{at:%Y-%m-%d}", first=f"{FIRST:%Y}"
        )
    return None


def _stuck_then(probes: list[Probe], at: datetime) -> Probe:
    """Return the position of the channel when a value was taken, the first one for older values."""
    for probe in probes:
        if (probe.since is None or probe.since <= at) and (probe.until is None or at < probe.until):
            return probe
    return min(probes, key=lambda p: p.since or FIRST) if at < min(p.since or FIRST for p in probes) else probes[0]


INSERT = """
WITH fresh AS (
  INSERT INTO loggers_reading (probe_id, at, temperature_c, shift_s, fault)
  SELECT p, to_timestamp(s) + %(late)s * interval '1 microsecond', t, %(shift)s, f
  FROM unnest(%(probe)s::int[], %(at)s::bigint[], %(value)s::real[], %(fault)s::smallint[]) AS u(p, s, t, f)
  ORDER BY p, s
  ON CONFLICT DO NOTHING
  RETURNING probe_id, at, temperature_c, fault
), hours AS (
  INSERT INTO loggers_hour AS h (probe_id, hour, number, sum_c, low_c, high_c)
  SELECT probe_id, date_trunc('hour', at + %(shift)s * interval '1 second', 'UTC'),
    count(*), sum(temperature_c::float8), min(temperature_c), max(temperature_c)
  FROM fresh WHERE fault = 0 GROUP BY 1, 2 ORDER BY 1, 2
  ON CONFLICT (probe_id, hour) DO UPDATE SET
    number = h.number + EXCLUDED.number, sum_c = h.sum_c + EXCLUDED.sum_c,
    low_c = least(h.low_c, EXCLUDED.low_c), high_c = greatest(h.high_c, EXCLUDED.high_c)
), spaced AS (
  SELECT *, at - lag(at) OVER (PARTITION BY probe_id ORDER BY at) AS gap FROM fresh
)
SELECT probe_id, count(*), min(at), percentile_disc(0.5) WITHIN GROUP (ORDER BY gap), min(at) FILTER (WHERE fault = 0),
  max(at) FILTER (WHERE fault = 0), (array_agg(temperature_c ORDER BY at DESC) FILTER (WHERE fault = 0))[1]
FROM spaced GROUP BY probe_id
"""


@dataclass(frozen=True)
class _Fresh:
    """New values of a probe: `gap` is its usual interval, `sound` its first and last valid times with the last value."""

    probe_id: int
    number: int
    first: datetime
    gap: timedelta | None
    first_sound: datetime | None
    last_sound: datetime | None
    last_c: float | None


CLASHING = """
SELECT DISTINCT i FROM unnest(%(probe)s::int[], %(at)s::bigint[], %(value)s::real[]) WITH ORDINALITY AS u(p, s, t, i)
JOIN loggers_reading AS r ON r.probe_id = p AND r.at = to_timestamp(s)
WHERE abs(r.shift_s - %(shift)s) >= %(drift)s AND r.temperature_c::real <> t ORDER BY i
"""


def _insert_clashing(rows: _Rows, values_c: list[float], faults: list[int], shift_s: int) -> list[_Fresh]:
    """Insert values whose device time was already used while its clock was wrong.

    A device whose clock was put back lives through the same hours twice. The second value is kept a microsecond later, so
    that each is still kept once; returns what is new of each probe.
    """
    params: dict[str, Any] = {"shift": shift_s, "drift": DRIFT_S, "probe": _column(rows.probe), "at": _column(rows.at_s)}
    with connection.cursor() as cursor:
        cursor.execute(CLASHING, params | {"value": _column(values_c)})
        which = [number - 1 for (number,) in cursor.fetchall()]
    some = _Rows([rows.probe[i] for i in which], [rows.at_s[i] for i in which], [])
    return _insert(some, [values_c[i] for i in which], [faults[i] for i in which], shift_s, late=1)


def _insert(rows: _Rows, values_c: list[float], faults: list[int], shift_s: int, late: int = 0) -> list[_Fresh]:
    """Insert new values and update the hourly sums in one statement, and return what is new of each probe.

    `late` is the time in microseconds added to the device time.
    """
    if not rows.at_s:
        return []
    params: dict[str, Any] = {"shift": shift_s, "late": late, "probe": _column(rows.probe), "at": _column(rows.at_s)}
    params |= {"value": _column(values_c), "fault": _column(faults)}
    with connection.cursor() as cursor:
        cursor.execute(INSERT, params)
        return [_Fresh(*row) for row in cursor.fetchall()]


def _column(values: Sequence[float]) -> str:
    return "{" + ",".join(map(repr, values)) + "}"


def _note(kept: list[_Fresh]) -> None:
    """Record each probe's latest value and interval, and that its place has new data.

    A place is worked out again once an hour at most for what comes in as it is measured: its forecast rests on hours.
    """
    fresh: dict[int, _Fresh] = {}
    for batch in kept:
        fresh.setdefault(batch.probe_id, batch)  # what clashed comes last, and is seldom the newest
    # In one order everywhere: two devices that share two places must not wait for each other.
    probes = Probe.objects.filter(pk__in=fresh).select_related("place", "room")
    for probe in probes.order_by("room_id", "place_id", "pk"):
        new, before = fresh[probe.pk], probe.last_at
        if new.gap is not None:
            probe.every_s = round(new.gap.total_seconds())
        elif before is not None and new.first > before and probe.every_s is None:
            probe.every_s = round((new.first - before).total_seconds())
        if new.last_sound is not None and (before is None or new.last_sound > before):
            probe.last_at, probe.last_c = new.last_sound, new.last_c
        probe.save(update_fields=["last_at", "last_c", "every_s"])
        if _matters(new, before):
            for place in probe.feeling:
                note_change_at(place, by_itself=True)


def _matters(new: _Fresh, before: datetime | None) -> bool:
    """Return whether a forecast could change: a late valid value, or one in a new hour."""
    if new.first_sound is None or new.last_sound is None:
        return False
    return before is None or new.first_sound < before or _hour(new.last_sound) != _hour(before)


def _hour(at: datetime) -> datetime:
    return at.replace(minute=0, second=0, microsecond=0)
