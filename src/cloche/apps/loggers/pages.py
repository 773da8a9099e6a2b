"""The loggers' page: who is heard, who is not, and what they sent."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db.models import Count
from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers import selectors
from cloche.apps.loggers.flows.take_in import Sent
from cloche.apps.loggers.models import Device, LoggedReading, MessageMapping, Probe
from cloche.apps.loggers.selectors import HourPoint
from cloche.apps.shared import words
from cloche.bridge.services.readings import celsius, fault_words
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.spark import Spark, spark

LATELY = timedelta(days=7)
DRIFT_SHOWN_S = 60
MOST_TRIED = 6


@dataclass(frozen=True)
class ProbeLine:
    """Position and latest value of a channel."""

    pk: int
    channel: str
    place: str
    url: str
    depth: str
    last: str
    silent: str
    faults: str
    picture: Spark


@dataclass(frozen=True)
class DeviceLine:
    """A device and its probes."""

    pk: int
    name: str
    state: str
    revoked: bool
    drift: str
    probes: list[ProbeLine]


@dataclass(frozen=True)
class LoggersPage:
    """Context of the page."""

    headline: str
    devices: list[DeviceLine]


def loggers_page(garden: Garden, units: Units, now: datetime) -> LoggersPage:
    """Return every device, silent ones first."""
    devices = list(garden.devices.prefetch_related("probes__place", "probes__room"))
    quiet = selectors.silences(garden, now)
    silent = {silence.probe.pk: silence for silence in quiet}
    faulty = _faults([probe.pk for device in devices for probe in device.probes.all()], now)
    week = selectors.hours_by_probe(garden, now - LATELY, now)
    lines = [_device(device, silent, faulty, week, units, now, garden) for device in devices]
    return LoggersPage(_headline(lines, _text(quiet, garden, now)), lines)


def silence_lines(garden: Garden, now: datetime) -> list[str]:
    """Return a sentence for each probe that should have reported."""
    return list(silences_by_probe(garden, now).values())


def silences_by_probe(garden: Garden, now: datetime) -> dict[int, str]:
    """Return these sentences by number of the probe."""
    quiet = selectors.silences(garden, now)
    return dict(zip((silence.probe.pk for silence in quiet), _text(quiet, garden, now), strict=True))


def _text(quiet: list[selectors.Silence], garden: Garden, now: datetime) -> list[str]:
    lines = []
    for silence in quiet:
        since = silence.since.astimezone(garden.timezone)
        when = f"{words.clock(since)}, {words.day(since.date(), now.astimezone(garden.timezone).date())}"
        lines.append(
            _("{name} in {name2} has been silent since {when}. Is its battery flat, or is it out of range?").format(
                name=silence.device.name, name2=silence.probe.where.name, when=when
            )
        )
    return lines


def _headline(lines: list[DeviceLine], silent: list[str]) -> str:
    live = [line for line in lines if not line.revoked]
    if not live:
        return _("No logger has sent anything yet.")
    if silent:
        return silent[0] if len(silent) == 1 else _("{len} probes have fallen silent.").format(len=len(silent))
    return _("{count}, and none has been silent for longer than expected.").format(
        count=words.count(len(live), "logger", "loggers")
    )


def _faults(probes: list[int], now: datetime) -> dict[int, list[tuple[int, int]]]:
    rows = LoggedReading.objects.filter(probe_id__in=probes, at__gte=now - LATELY).exclude(fault=0)
    faults: dict[int, list[tuple[int, int]]] = {}
    for probe, fault, number in rows.values_list("probe_id", "fault").annotate(number=Count("fault")):
        faults.setdefault(probe, []).append((fault, number))
    return faults


def _device(
    device: Device,
    silent: dict[int, selectors.Silence],
    faulty: dict[int, list[tuple[int, int]]],
    week: dict[int, list[HourPoint]],
    units: Units,
    now: datetime,
    garden: Garden,
) -> DeviceLine:
    probes = [
        _probe(probe, silent.get(probe.pk), faulty.get(probe.pk, []), week.get(probe.pk, []), units, now, garden)
        for probe in device.probes.all()
        if probe.until is None
    ]
    state = (
        _("blocked")
        if device.revoked_at
        else _("last heard {ago}").format(ago=_ago(device.heard_at, now, garden))
        if device.heard_at
        else _("nothing received yet")
    )
    drift = ""
    if abs(device.drift_s) >= DRIFT_SHOWN_S:
        drift = _("Its clock is {minutes}; times are corrected.").format(minutes=_minutes(device.drift_s))
    return DeviceLine(device.pk, device.name, state, device.revoked_at is not None, drift, probes)


def _minutes(drift_s: int) -> str:
    minutes = round(abs(drift_s) / 60)
    return f"{words.count(minutes, 'minute', 'minutes')} {_('ahead') if drift_s > 0 else _('behind')}"


def _ago(at: datetime, now: datetime, garden: Garden) -> str:
    local, today = at.astimezone(garden.timezone), now.astimezone(garden.timezone).date()
    return f"{words.day(local.date(), today)} {words.clock(local)}"


def _probe(
    probe: Probe,
    silence: selectors.Silence | None,
    faulty: list[tuple[int, int]],
    hours: list[HourPoint],
    units: Units,
    now: datetime,
    garden: Garden,
) -> ProbeLine:
    last = _("nothing yet")
    if probe.last_at and probe.last_c is not None:
        last = f"{units.temperature_text(probe.last_c)}, {_ago(probe.last_at, now, garden)}"
    text = "; ".join(f"{words.count(number, 'time', 'times')} {fault_words(fault)}" for fault, number in sorted(faulty))
    return ProbeLine(
        pk=probe.pk,
        channel=probe.channel,
        place=probe.where.name,
        url=reverse("room" if probe.room_id else "place", args=[garden.pk, probe.where.pk]),
        depth=_("in the air") if probe.in_air else units.length_text(probe.depth_m),
        last=last,
        silent=_("silent") if silence else "",
        picture=spark(now - LATELY, now, [(h.taken_at, h.temperature_c, False) for h in hours], joined=True),
        faults=_("In the last week: {text}. These values are not used.").format(text=text) if text else "",
    )


@dataclass(frozen=True)
class MappingLine:
    """A mapping in words, and its channels without a place."""

    pk: int
    whence: str
    how: str
    unplaced: str


def mapping_lines(device: Device) -> list[MappingLine]:
    """Return all mappings of a device."""
    placed = set(device.probes.filter(until__isnull=True).values_list("channel", flat=True))
    return [_mapping(mapping, placed) for mapping in device.mappings.all()]


def _mapping(mapping: MessageMapping, placed: set[str]) -> MappingLine:
    parts = [_("temperature at {path}").format(path=mapping.value) if mapping.value else _("the message is the temperature")]
    parts.append(_("time at {path}").format(path=mapping.at) if mapping.at else _("time: on arrival"))
    if mapping.channel:
        parts.append(_("channel at {path}").format(path=mapping.channel))
    if mapping.each:
        parts.append(_("many, in a list at {path}").format(path=mapping.each))
    strangers = [channel for channel in mapping.unplaced if channel not in placed]
    return MappingLine(mapping.pk, mapping.topic or _("over HTTP"), ", ".join(parts), ", ".join(strangers))


def tried_lines(sent: list[Sent], device: Device, units: Units) -> list[str]:
    """Return the values found in a message, one per line."""
    zone = device.garden.timezone
    values_c = celsius([reading.temperature for reading in sent], device.unit)
    lines = []
    for reading, value_c in list(zip(sent, values_c, strict=True))[:MOST_TRIED]:
        at = reading.at.astimezone(zone) if reading.at else None
        when = f"{words.day_with_weekday(at.date())}, {words.clock(at)}" if at else _("on arrival")
        value = number_text(f"{units.temperature_from_c(value_c):.1f} {units.degree}")
        lines.append(_("channel {channel}: {value}, {when}").format(channel=reading.channel, value=value, when=when))
    if len(sent) > MOST_TRIED:
        lines.append(_("and {n} more").format(n=len(sent) - MOST_TRIED))
    return lines
