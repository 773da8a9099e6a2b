"""The published description, tried with everything it allows and much it does not: never a 500, never an answer undescribed."""

import pytest
import schemathesis
from django.core.handlers.wsgi import WSGIHandler
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from cloche.apps.loggers.api import api
from cloche.apps.loggers.flows import devices
from cloche.apps.loggers.models import Device
from cloche.apps.shared.http import fingerprint
from tests.factories import make_garden, make_person, make_place

schema = schemathesis.openapi.from_dict(api.get_openapi_schema(path_prefix="/api/v1/"))
schema.app = WSGIHandler()
TOKEN = "a-token-of-the-tests"
CHECKS = (not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance)


@schema.parametrize()
@settings(max_examples=60, deadline=None, suppress_health_check=list(HealthCheck))
@pytest.mark.django_db(transaction=True)
def test_nothing_that_is_sent_breaks_it(case: schemathesis.Case) -> None:
    device = Device.objects.first()
    if device is None:
        device, _ = devices.let_device_in(make_garden(make_person("rowan")), "Logger", "C", None)
        devices.deploy(device, "1", make_place(device.garden), 0.05)
        device.mappings.create(value="/temperature")
        Device.objects.update(fingerprint=fingerprint(TOKEN))
    case.call_and_validate(headers={"Authorization": f"Bearer {TOKEN}", "Accept-Encoding": "identity"}, checks=CHECKS)


def test_the_description_names_every_operation() -> None:
    assert {op.label for op in (r.ok() for r in schema.get_all_operations())} == {
        "POST /api/v1/readings",
        "POST /api/v1/reading",
        "POST /api/v1/readings.csv",
        "POST /api/v1/messages",
        "POST /api/v1/sensorthings/Datastreams({stream})/Observations",
        "GET /api/v1/device",
    }
