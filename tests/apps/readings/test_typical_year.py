"""A typical year brought in from an EPW file."""

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from tests.engine.weather.test_epw import year


def bring(client: Client, garden: Garden, text: str):  # type: ignore[no-untyped-def]
    file = SimpleUploadedFile("upper-field.EPW", text.encode())
    return client.post(reverse("files", args=[garden.pk]), {"kind": "weather", "file": file}, follow=True)


def test_it_becomes_the_garden_s_normals(signed_in: Client, garden: Garden) -> None:
    shown = bring(signed_in, garden, year()).content.decode()
    assert "typical year of Upper Field" in shown
    garden.refresh_from_db()
    assert garden.normal_highs_c is not None
    assert garden.normal_highs_c[6] == pytest.approx(23.6, abs=0.5)


def test_what_is_none_is_said_at_the_field(signed_in: Client, garden: Garden) -> None:
    response = bring(signed_in, garden, "low;high\n1;2\n")
    assert response.status_code == 422
    assert "LOCATION" in response.content.decode()
    garden.refresh_from_db()
    assert garden.normal_lows_c is None
