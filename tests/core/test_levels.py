"""Levels of the building out of the storeys of its models, and which alternative stands."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.federation.alternatives import Alternative, by_file_name, standing
from stairpath.core.federation.federate import federate
from stairpath.core.federation.levels import Level, level_at
from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from tests.samples import Sample


def model(name: str, storeys: dict[str, float]):
    sample = Sample()
    for storey, height in storeys.items():
        sample.box(sample.storey(storey, height), (0, 0, 0), (1, 1, 1))
    return outline(read_model(f"{name}.ifc", sample.content()))


def levels(*models):
    return [(level.name, level.elevation_m) for level in federate(list(models)).levels]


def test_storeys_of_one_name_are_one_level():
    one = model("A-ARC", {"Level 00": 0, "Level 01": 4})
    other = model("A-STR", {"Level 00": 0, "Level 01": 4})
    assert levels(one, other) == [("Level 00", 0), ("Level 01", 4)]


def test_storeys_of_other_names_at_the_same_height_are_one_level_too():
    one = model("A-ARC", {"Level 00": 0, "Level 01": 4})
    other = model("A-STR", {"Ground slab": -0.1, "First slab": 3.9})
    found = federate([one, other])
    assert [level.name for level in found.levels] == ["Level 00", "Level 01"]
    assert [list(m.level) for m in found.models] == [[0, 1], [0, 1]]


def test_a_storey_that_only_one_model_has_is_a_level_in_its_place():
    one = model("A-ARC", {"Level 00": 0, "Level 01": 4})
    other = model("A-AIR", {"Level 00": 0, "Plant deck": 2})
    assert levels(one, other) == [("Level 00", 0), ("Plant deck", 2), ("Level 01", 4)]


def test_most_models_decide_the_height_and_the_odd_one_is_told():
    found = federate([
        model("A-ARC", {"Level 00": 0, "Level 01": 4}),
        model("A-STR", {"Level 00": 0, "Level 01": 3.96}),
        model("A-AIR", {"Level 00": 0, "Level 01": 4}),
    ])  # fmt: skip
    assert [level.elevation_m for level in found.levels] == [0, 4]
    told = {m.outline.name: [p.text for p in m.problems] for m in found.models}
    assert told == {"A-ARC": [], "A-STR": ["Its Level 01 is 40 mm below the others'."], "A-AIR": []}


def test_a_component_on_no_storey_has_no_level():
    sample = Sample()
    sample.storey("Level 00", 0)
    sample.box(None, (0, 0, 0), (1, 1, 1))
    found = federate([outline(read_model("a.ifc", sample.content()))])
    assert list(found.models[0].level) == [-1]


def test_nothing_makes_an_empty_building():
    found = federate([])
    assert (found.levels, found.rooms, found.bounds_m) == ((), (), None)


@pytest.mark.parametrize(
    ("name", "wanted"),
    [
        ("QH-ARC-S1-ALT-A", Alternative("QH-ARC-S1", "A")),
        ("QH-ARC-S1-alt-b", Alternative("QH-ARC-S1", "B")),
        ("Stair ALT2", Alternative("Stair", "2")),
        ("QH-ARC-ZZ", None),
        ("Salt-ALTAR-piece", None),
        ("ALT-A", None),
    ],
)
def test_alternatives_by_file_name(name, wanted):
    assert by_file_name(name) == wanted


_NAMES = st.lists(
    st.builds(
        lambda what, option: f"{what}-ALT-{option}" if option else what, st.sampled_from("XYZ"), st.sampled_from(["", *"ABC"])
    ),
    unique=True,
)  # fmt: skip


@given(names=_NAMES, chosen=st.sets(st.sampled_from([f"{w}-ALT-{o}" for w in "XYZ" for o in "ABC"])))
def test_of_each_proposal_exactly_one_stands(names, chosen):
    stands = dict(zip(names, standing(names, chosen), strict=True))
    for what in "XYZ":
        options = [name for name in names if name.startswith(f"{what}-ALT-")]
        up = [name for name in options if stands[name]]
        assert len(up) == (1 if options else 0)
        if set(options) & chosen:
            assert up[0] in chosen
        elif options:
            assert up == [min(options)]
    assert all(stands[name] for name in names if "ALT" not in name)


def test_a_height_belongs_to_the_highest_level_that_begins_at_it_or_below():
    levels = [Level("Level 00", 0.0), Level("Level 01", 4.0)]
    assert [level_at(levels, h) for h in (-3, 0, 3.7, 3.8, 4, 90)] == [0, 0, 0, 1, 1, 1]
    assert level_at([], 1.0) == 0


@pytest.mark.parametrize(("height", "levels_found"), [(0.49, 1), (0.51, 2)])
def test_storeys_of_other_names_are_one_level_up_to_half_a_metre(height, levels_found):
    found = levels(model("A-ARC", {"Level 00": 0.0}), model("A-STR", {"Slab": height}))
    assert len(found) == levels_found
