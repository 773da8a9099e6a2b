"""Towns by name: as people type them."""

import pytest

from cloche_engine.site.towns import Town, find, is_latin, pack, people_near, plain, shipped


@pytest.mark.parametrize(
    ("typed", "name", "lies_in"),
    [
        ("Vienna", "Vienna", "Austria"),
        ("wien", "Vienna", "Austria"),
        ("München", "Munich", "Germany"),
        ("munchen", "Munich", "Germany"),
        ("Portland, Maine", "Portland", "Maine, United States"),
        ("portland, or", "Portland", "Oregon, United States"),
        ("Hamilton, Ontario", "Hamilton", "Ontario, Canada"),
        ("newport, wales", "Newport", "Wales, United Kingdom"),
        ("Perth, western", "Perth", "Western Australia, Australia"),
        ("St. Albans", "St Albans", "England, United Kingdom"),
    ],
)
def test_a_town_is_found_as_it_is_typed(typed: str, name: str, lies_in: str) -> None:
    first = find(typed)[0]
    assert (first.name, first.lies_in) == (name, lies_in)


def test_the_largest_comes_first_and_whole_names_before_beginnings() -> None:
    assert [town.name for town in find("lond", most=1)] == ["London"]
    rows = ("yorkshire\tYorkshire\tA", "new york|york\tNew York\tB", "york\tYork\tC")
    own = "".join(f"\n{row}\t\t1\t2\t5" for row in rows)
    assert [town.lies_in for town in find("york", lines=f"{own}\n")] == ["C", "B", "A"]


@pytest.mark.parametrize("typed", ["", "   ", ",", ", Austria", "qqqqq", "London, Peru", "(.*", "\n", "London\t"])
def test_nothing_is_found_for_nothing_and_nothing_breaks(typed: str) -> None:
    assert find(typed) == [] or typed.startswith("London\t")


def test_lines_are_those_that_were_packed() -> None:
    import lzma

    town = Town("Old Ford", "Nowhere", 1.25, -3.5, "no", ("alte furt",), 7)
    lines = lzma.decompress(pack([town])).decode()
    assert find("alte f", lines=lines) == find("OLD FORD", lines=lines) == [town]


def test_names_are_looked_for_without_marks() -> None:
    assert plain("  St.-Étienne ") == "st etienne"
    assert is_latin("Žďár nad Sázavou")
    assert not is_latin("Вена")


def test_every_line_has_a_place_on_earth() -> None:
    for line in shipped().strip("\n").split("\n"):
        _names, _name, _lies_in, _codes, latitude, longitude, thousands = line.split("\t")
        assert -90 <= float(latitude) <= 90
        assert -180 <= float(longitude) <= 180
        assert int(thousands) >= 5


def test_more_people_live_about_a_city_than_about_a_village_and_fewest_at_sea() -> None:
    city, village, sea = people_near(51.5, -0.1), people_near(46.6, 14.0), people_near(0.0, -140.0)
    assert city > 1_000_000 > village > 1_000 > sea
