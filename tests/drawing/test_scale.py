import base64
import io

import numpy as np
import pytest
from PIL import Image

from cloche.drawing import scale


@pytest.mark.parametrize("temperature", np.arange(-10, 45, 0.5))
def test_the_number_on_the_soil_can_be_read(temperature: float) -> None:
    """WCAG 2.2 asks 4.5 of text, 3 of large text; the numbers are large, all but the middle reach 4.5."""
    assert scale.contrast(scale.ink_on(temperature), scale.colour(temperature)) >= 4.0


def test_stops_are_met_and_ends_are_held() -> None:
    assert scale.colour(0) == "#3f6690"
    assert scale.colour(-40) == scale.colour(-6)
    assert scale.colour(80) == scale.colour(40)


def test_lightness_rises_to_straw_and_falls_again() -> None:
    light = [scale.luminance(colour) for _, colour in scale.STOPS]
    top = int(np.argmax(light))
    assert light[: top + 1] == sorted(light[: top + 1])
    assert light[top:] == sorted(light[top:], reverse=True)


def test_known_contrast_of_black_and_white() -> None:
    assert scale.contrast("#000000", "#ffffff") == pytest.approx(21.0)


def _protan(hex_colour: str) -> np.ndarray:
    """Red-blind view in linear light [Viénot, Brettel and Mollon 1999, from memory]."""
    rgb = np.array([int(hex_colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]) ** 2.2
    matrix = np.array([[0.11238, 0.88762, 0.0], [0.11238, 0.88762, 0.0], [0.00401, -0.00401, 1.0]])
    return matrix @ rgb


def test_cold_and_hot_of_the_same_lightness_differ_for_red_blind_eyes() -> None:
    for cold, hot in ((0, 30), (5, 25), (-6, 40)):
        assert np.abs(_protan(scale.colour(cold)) - _protan(scale.colour(hot))).max() > 0.04


def test_the_picture_is_a_png_with_a_pixel_a_value() -> None:
    data = scale.picture(np.zeros((3, 7)))
    image = Image.open(io.BytesIO(base64.b64decode(data.split(",")[1])))
    assert image.size == (7, 3)
    assert image.getpixel((0, 0)) == (0x3F, 0x66, 0x90)
