"""Files on the way of a reading are counted by what is called in them."""

from bench.crossing import crossed
from cloche.bridge.values.units import Units, parse_soil


def test_files_count_in_which_something_is_called() -> None:
    with crossed() as files:
        parse_soil("50 °F", Units())
    assert "cloche/bridge/values/units.py" in files
    with crossed() as none:
        sorted([3, 1, 2])
    assert none == set()


def test_what_merely_loads_a_module_does_not_count() -> None:
    import importlib

    from cloche_engine import layout

    with crossed() as files:
        importlib.reload(layout)
    assert "cloche_engine/layout.py" not in files
