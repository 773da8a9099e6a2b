"""Pieces of drawings that are written in one go."""

from xml.etree import ElementTree

from cloche.apps.shared.templatetags.slices import gradient
from cloche.drawing.ribbon import ribbon
from cloche.drawing.slice import Stop


def test_a_gradient_is_all_of_its_stops_in_order_and_no_other_markup() -> None:
    stops = ribbon(range(60), [0.8] * 60, [4 + 0.3 * day for day in range(60)], 120).stops
    read = ElementTree.fromstring(f"<g>{gradient(stops)}</g>")  # noqa: S314 - our own
    assert [element.tag for element in read] == ["stop"] * len(stops)
    assert [Stop(float(element.attrib["offset"]), element.attrib["stop-color"]) for element in read] == stops
    assert len({stop.colour for stop in stops}) > 5


def test_where_nothing_is_known_there_is_no_stop() -> None:
    assert gradient([]) == ""
