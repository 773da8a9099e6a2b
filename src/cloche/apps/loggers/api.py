"""What devices speak over HTTP: single and many values, as JSON or CSV. The description stands at /api/v1/openapi.json."""

from __future__ import annotations

import csv
import io
from datetime import datetime
from typing import Annotated, Any, Literal

from django.core.cache import cache, caches
from django.http import HttpRequest
from django.utils.translation import gettext as _
from ninja import NinjaAPI, Schema, Status
from ninja.errors import HttpError
from ninja.parser import Parser
from ninja.security import HttpBearer
from ninja.throttling import AuthRateThrottle
from pydantic import AfterValidator, AwareDatetime, BaseModel, BeforeValidator, ConfigDict, Field, TypeAdapter, ValidationError

from cloche.apps.loggers.flows.devices import mapping_over_http, take_message
from cloche.apps.loggers.flows.take_in import MOST_ROWS, Sent, Taken, take_in
from cloche.apps.loggers.mapped import SENSOR_THINGS_OF_ONE, Unreadable, channel_from, values_of
from cloche.apps.loggers.models import Device
from cloche.apps.shared import clock
from cloche.apps.shared.http import fingerprint
from cloche.apps.shared.words import lazy
from cloche.bridge.values import border

MOST_BYTES = 4_000_000
"""Of one message: 20,000 values with their times."""
MOST_A_MINUTE, MOST_GUESSES_A_MINUTE, KEPT_S = 600, 60, 120
"""Messages of one device, by each process that serves, and tokens that are none from one address, by all of them."""


class Token(HttpBearer):
    """A device's token; it reaches its own garden's probes and nothing else."""

    def authenticate(self, request: HttpRequest, token: str) -> Device | None:
        device = Device.objects.filter(fingerprint=fingerprint(token), revoked_at__isnull=True).first()
        if device is None and _guesses(request) > MOST_GUESSES_A_MINUTE:
            raise HttpError(429, _("Too many unknown tokens from this address. Wait a minute."))
        return device


def _guesses(request: HttpRequest) -> int:
    """One more unknown token from this address; returns how many within the minute. Good ones from there are not held up."""
    key = f"guesses-{request.META.get('REMOTE_ADDR', '')}-{clock.now():%H:%M}"
    tried = int(cache.get(key, 0)) + 1
    cache.set(key, tried, KEPT_S)
    return tried


class DeviceThrottle(AuthRateThrottle):
    """A device's messages, counted in the process that answers."""

    cache = caches["process"]


class Careful(Parser):
    """Reads the body of a request; what is too large, too deep or no JSON is refused in a sentence."""

    def parse_body(self, request: HttpRequest) -> Any:
        try:
            return border.read_json(request.body, MOST_BYTES)
        except border.NotAllowed as refusal:
            raise HttpError(400, str(refusal)) from refusal


api = NinjaAPI(
    title=lazy("Cloche for loggers"),
    version="1",
    docs_url=None,
    auth=Token(),
    urls_namespace="loggers-api",
    parser=Careful(),
    throttle=[DeviceThrottle(f"{MOST_A_MINUTE}/m")],
)


def _no_truth(value: Any) -> Any:
    if isinstance(value, bool):
        raise ValueError(_("a number, not true or false"))
    return value


Temperature = Annotated[float, BeforeValidator(_no_truth), Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Channel = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_.:-]+$")]


def _sane(at: datetime) -> datetime:
    return border.instant(at)


Instant = Annotated[AwareDatetime, AfterValidator(_sane)]


class Strict(BaseModel):
    """What is not known is refused, so that a slip in a name is found on the first day. Not ninja's Schema, which also reads
    models of the database, at ten times the cost of a value."""

    model_config = ConfigDict(extra="forbid")


class ReadingIn(Strict):
    """A value. at: when, with its offset; left out: now."""

    channel: Channel = "1"
    temperature: Temperature
    at: Instant | None = None


CSV_ROWS = TypeAdapter(list[tuple[Instant, Channel, Temperature]])
"""All lines at once: one by one they would take five times as long."""


class ManyIn(Strict):
    """Values of a device. unit: of their temperatures, else the device's own; sent_at: what time the device thinks it is."""

    readings: Annotated[list[ReadingIn], Field(max_length=MOST_ROWS)]
    unit: Literal["C", "F", "K"] | None = None
    sent_at: Instant | None = None


class OneIn(ReadingIn):
    """One value on its own."""

    unit: Literal["C", "F", "K"] | None = None
    sent_at: Instant | None = None


class RefusedOut(Schema):
    """A value that was not taken. index: its number in what was sent, from 0."""

    index: int
    code: Literal["channel", "value", "clock", "future", "past", "row", "full"]
    message: str


class TakenOut(Schema):
    """How it went. known: here already; faulty: kept, though it is the code of a fault and no temperature."""

    kept: int
    known: int
    faulty: int
    refused: list[RefusedOut]


class Problem(Schema):
    """What is amiss."""

    detail: str


class Misread(Schema):
    """What in a message is not as described: where, and why."""

    detail: list[dict[str, Any]]


class DeviceOut(Schema):
    """A device as Cloche knows it. drift_s: how far its clock ran ahead when it last said its time."""

    name: str
    unit: Literal["C", "F", "K"]
    channels: list[str]
    heard_at: datetime | None
    drift_s: int


REFUSALS: dict[Any, Any] = {400: Problem, 401: Problem, 413: Problem, 429: Problem, 503: Problem}
ANSWERS = {200: TakenOut, 422: Misread} | REFUSALS


@api.post("/readings", response=ANSWERS, summary="Send many values", operation_id="send_readings")
def send_readings(request: HttpRequest, sent: ManyIn) -> TakenOut:
    """Values are kept once by channel and time: send again whatever was not answered. Those that cannot be taken come back."""
    rows = [Sent(reading.channel, reading.temperature, reading.at) for reading in sent.readings]
    return _out(take_in(_device(request), rows, sent.unit or "", sent.sent_at))


@api.post("/reading", response=ANSWERS, summary="Send one value", operation_id="send_reading")
def send_reading(request: HttpRequest, sent: OneIn) -> TakenOut:
    """For devices that send as they measure. A value without a time gets a new one each time it is sent."""
    row = Sent(sent.channel, sent.temperature, sent.at)
    return _out(take_in(_device(request), [row], sent.unit or "", sent.sent_at))


@api.post(
    "/readings.csv",
    response={200: TakenOut} | REFUSALS,
    summary="Send many values as CSV",
    operation_id="send_csv",
    openapi_extra={"requestBody": {"required": True, "content": {"text/csv": {"schema": {"type": "string"}}}}},
)
def send_csv(request: HttpRequest) -> TakenOut:
    """A heading “at,channel,temperature” and a line a value; times with their offset. Lines that cannot be read come back."""
    rows, numbers, refused = _csv_rows(request.body)
    taken = take_in(_device(request), rows)
    moved = [RefusedOut(index=numbers[refusal.index], code=refusal.code, message=refusal.message) for refusal in taken.refused]  # type: ignore[arg-type]
    return TakenOut(kept=taken.kept, known=taken.known, faulty=taken.faulty, refused=sorted([*refused, *moved], key=_index))


OWN_WORDS = {"requestBody": {"required": True, "content": {"application/json": {"schema": {}}}}}
"""Any JSON."""


@api.post(
    "/messages",
    response={200: TakenOut} | REFUSALS,
    summary="Send a message in the device’s own words",
    operation_id="send_message",
    openapi_extra=OWN_WORDS,
)
def send_message(request: HttpRequest) -> TakenOut:
    """Where its values stand is told once, under Loggers. Channels that have no place yet are listed there."""
    mapping = mapping_over_http(_device(request))
    if mapping is None:
        raise HttpError(400, _("The format of this logger’s messages has not been set up. Set it up under Loggers."))
    try:
        return _out(take_message(mapping, request.body))
    except Unreadable as refusal:
        raise HttpError(400, str(refusal)) from refusal


@api.post(
    "/sensorthings/Datastreams({stream})/Observations",
    response={201: TakenOut, 422: Misread} | REFUSALS,
    summary="Send an Observation as SensorThings words it",
    operation_id="send_observation",
    openapi_extra=OWN_WORDS,
)
def send_observation(request: HttpRequest, stream: str) -> Status[TakenOut]:
    """result and phenomenonTime are read [SensorThings]; the Datastream’s number is the channel."""
    try:
        rows = values_of(SENSOR_THINGS_OF_ONE, request.body, channel_from(stream))
    except Unreadable as refusal:
        raise HttpError(400, str(refusal)) from refusal
    return Status(201, _out(take_in(_device(request), rows)))


@api.get("/device", response={200: DeviceOut} | REFUSALS, summary="Ask how the device stands", operation_id="device")
def device(request: HttpRequest) -> dict[str, Any]:
    """Whether its token is good, which channels stick somewhere, when it was heard."""
    own = _device(request)
    channels = sorted(set(own.probes.filter(until__isnull=True).values_list("channel", flat=True)))
    return {"name": own.name, "unit": own.unit, "channels": channels, "heard_at": own.heard_at, "drift_s": own.drift_s}


def _device(request: HttpRequest) -> Device:
    return request.auth  # type: ignore[attr-defined, no-any-return]


def _index(refusal: RefusedOut) -> int:
    return refusal.index


def _out(taken: Taken) -> TakenOut:
    refused = [RefusedOut(index=refusal.index, code=refusal.code, message=refusal.message) for refusal in taken.refused]  # type: ignore[arg-type]
    return TakenOut(kept=taken.kept, known=taken.known, faulty=taken.faulty, refused=refused)


def _csv_rows(body: bytes) -> tuple[list[Sent], list[int], list[RefusedOut]]:
    """Values, their line numbers, and lines that are none; raises HttpError 400 for what is no such CSV."""
    try:
        reader = csv.DictReader(io.StringIO(body.decode("utf-8-sig")), strict=True)
        if not {"at", "temperature"} <= set(reader.fieldnames or ()):
            raise HttpError(400, _("The first line must be: at,channel,temperature"))
        lines = [line for line, _unused in zip(reader, range(MOST_ROWS + 1), strict=False)]
    except (UnicodeDecodeError, csv.Error) as broken:
        raise HttpError(400, _("This is not CSV in UTF-8: {broken}").format(broken=broken)) from broken
    if len(lines) > MOST_ROWS:
        raise HttpError(400, _("At most {most_rows} rows are accepted at a time.").format(most_rows=MOST_ROWS))
    cells = [(line["at"], line.get("channel") or "1", line["temperature"]) for line in lines]
    wrong: set[int] = set()
    try:
        read = CSV_ROWS.validate_python(cells)
    except ValidationError as broken:
        wrong = {int(error["loc"][0]) for error in broken.errors(include_url=False, include_context=False, include_input=False)}
        read = CSV_ROWS.validate_python([row for index, row in enumerate(cells) if index not in wrong])
    rows = [Sent(channel, temperature, at) for at, channel, temperature in read]
    numbers = [index for index in range(len(cells)) if index not in wrong]
    return rows, numbers, [_unread(index, lines[index]) for index in sorted(wrong)]


def _unread(index: int, line: dict[str, Any]) -> RefusedOut:
    message = _("Row {index} cannot be read: {dict}").format(index=index + 2, dict=dict(line))[:200]
    return RefusedOut(index=index, code="row", message=message)
