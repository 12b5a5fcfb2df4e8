"""Coordinates that cannot be are left out and named; nothing far away costs what lies near."""

import numpy as np
import pytest

from stairpath.core.cutting.keyplan import draw_key_plan
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outliers import apart
from stairpath.core.federation.outline import outline
from stairpath.core.mesh.chunks import build_chunks
from stairpath.core.picture.building import draw_picture
from stairpath.core.reading.read import read_model
from stairpath.core.reading.validate import sound_triangles
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.solids import solids_of
from stairpath.core.walking.tile import places
from tests.samples import Sample, simple


def house() -> Sample:
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.box(storey, (0, 0, -0.3), (9, 9, 0.3), "IfcSlab", Name="Floor", Tag="S-1")
    return sample


def with_box_at(x: float) -> bytes:
    """The house with a box whose placement is moved to x."""
    sample = house()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.box(storey, (77.5, 0, 0), (1, 1, 1), Name="Lost", Tag="L-1")
    return sample.content().replace(b"77.5,", f"{x!r},".upper().encode())


@pytest.mark.parametrize("x", [1e30, -1e12, 2e5, 1e300])
def test_what_is_too_far_away_is_left_out_everywhere_and_named(x):
    reading = read_model("T-ARC.ifc", with_box_at(x))
    problem = next(p for p in reading.problems if p.code == "coordinates")
    (lost,) = [c.global_id for c in reading.components if c.name == "Lost"]
    assert problem.components == (lost,)
    federation = federate([outline(reading)])
    assert federation.bounds_m is not None
    assert np.abs(federation.bounds_m).max() < 20
    for chunk in build_chunks(reading):
        assert np.isfinite(chunk.bounds_m).all()
        assert np.abs(chunk.bounds_m).max() < 20
    assert len(places(Space(solids_of(federation)))) == 1
    assert draw_picture(federation) is not None


def test_numbers_that_are_none_are_left_out():
    reading = read_model("T-ARC.ifc", with_box_at(1e30).replace(b"1E+30,", b"1.E400,").replace(b"1E30,", b"1.E400,"))
    bounds = federate([outline(reading)]).bounds_m
    assert bounds is not None
    assert np.isfinite(bounds).all()
    assert [c.name for c in reading.components].count("Lost") == 1


def test_one_bad_vertex_takes_its_triangles_and_no_others():
    vertices = np.array([[0, 0, 0], [1, 0, 0], [0, 1, 0], [np.nan, 0, 0], [1e9, 0, 0], [1, 1, 0]])
    triangles = np.array([[0, 1, 2], [0, 1, 3], [1, 2, 4], [1, 5, 2]], np.int32)
    cleaned, keep = sound_triangles(vertices, triangles)
    assert keep.tolist() == [True, False, False, True]
    assert np.isfinite(cleaned).all()
    assert np.abs(cleaned).max() < 10


def test_quantities_and_properties_hold_only_what_json_can_carry():
    sample = house()
    wall = sample.ifc.by_type("IfcWall")[0]
    make = sample.make
    values = [
        make("IfcPropertySingleValue", "Reach", None, make("IfcReal", 123.456), None),
        make("IfcPropertySingleValue", "Length", None, make("IfcLengthMeasure", 123.456), None),
        make("IfcPropertySingleValue", "Word", None, make("IfcLabel", "a"), None),
    ]
    bundle = sample.root("IfcPropertySet", Name="Odd", HasProperties=values)
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=bundle)
    size = make("IfcQuantityLength", "Length", None, None, 123.456)
    takeoff = sample.root("IfcElementQuantity", Name="Sizes", Quantities=[size])
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=takeoff)
    reading = read_model("a.ifc", sample.content().replace(b"123.456", b"1.E400"))
    component = next(c for c in reading.components if c.name == "Wall")
    assert component.properties["Odd"]["Word"] == "a"
    assert component.properties["Odd"]["Reach"] == "1e+300"
    assert not [v for v in component.properties["Odd"].values() if isinstance(v, float) and not np.isfinite(v)]
    assert component.quantities["Sizes"] == {}


def test_a_model_far_from_the_others_costs_them_nothing():
    """The other is 40,000 km away by its map conversion; the walk map, the plan and the picture stay the house's."""
    near, far = house(), house()
    near.map_conversion(412_300.0, 88_650.0, 0.0, 0.0)
    far.map_conversion(40_412_300.0, 88_650.0, 0.0, 0.0)
    far.box(far.ifc.by_type("IfcBuildingStorey")[0], (0, 3, 0), (9, 0.2, 3))
    near.box(near.ifc.by_type("IfcBuildingStorey")[0], (0, 3, 0), (9, 0.2, 3))
    near.box(near.ifc.by_type("IfcBuildingStorey")[0], (0, 5, 0), (9, 0.2, 3))
    alone = federate([outline(read_model("T-ARC.ifc", near.content()))])
    both = federate([outline(read_model(n, s.content())) for n, s in (("T-ARC.ifc", near), ("T-AIR.ifc", far))])
    assert [m.elsewhere for m in both.models] == [False, True]
    assert "It stands 39,9" in next(p.text for p in both.models[1].problems if p.code == "far-away")
    assert both.origin_m == alone.origin_m
    assert np.array_equal(solids_of(both).triangles, solids_of(alone).triangles)
    assert len(draw_key_plan(both, 0).solid) == len(draw_key_plan(alone, 0).solid)


def test_without_a_map_the_building_is_where_most_is():
    """Of two models far apart the larger one is the building, whichever comes first."""
    small, large = simple(), house()
    small.move_site((90_000, 0, 0), 0.0)
    found = federate([outline(read_model(n, s.content())) for n, s in (("A.ifc", small), ("B.ifc", large))])
    assert [m.elsewhere for m in found.models] == [True, False]


def test_a_file_with_bad_heights_is_set_aside_however_much_it_holds():
    good, damaged = house(), house()
    damaged.move_site((0, 0, -4000), 0.0)
    for k in range(40):
        damaged.box(damaged.ifc.by_type("IfcBuildingStorey")[0], (0, 3 + k, 0), (9, 0.2, 3))
    alone = federate([outline(read_model("T-ARC.ifc", good.content()))])
    both = federate([outline(read_model(n, s.content())) for n, s in (("T-ARC.ifc", good), ("T-STR.ifc", damaged))])
    assert [m.elsewhere for m in both.models] == [False, True]
    assert "stands 3,9" in next(p.text for p in both.models[1].problems if p.code == "far-away")
    assert both.origin_m == alone.origin_m
    assert np.array_equal(solids_of(both).triangles, solids_of(alone).triangles)


def test_components_far_from_the_rest_of_their_model_are_named_and_no_part_of_the_building():
    reading = read_model("T-ARC.ifc", with_box_at(30_000.0))
    federation = federate([outline(reading)])
    (lost,) = [c.global_id for c in reading.components if c.name == "Lost"]
    assert next(p for p in federation.models[0].problems if p.code == "apart").components == (lost,)
    assert federation.models[0].apart.sum() == 1
    assert len(places(Space(solids_of(federation)))) == 1


def box(x: float, y: float = 0.0, size: float = 9.0) -> list[list[float]]:
    return [[x, y, 0], [x + size, y + size, 3]]


@pytest.mark.parametrize(
    ("boxes", "wanted"),
    [
        ([box(0), box(900), box(1800)], [0, 0, 0]),
        ([box(900.0 * k) for k in range(60)], [0] * 60),  # a long site with no gap
        ([box(0), box(20), box(5000)], [0, 0, 1]),
        ([box(5000), box(0), box(20)], [1, 0, 0]),
        ([box(0), box(20), box(0, 90_000)], [0, 0, 1]),
        ([box(0, size=3_900), box(2_900), box(3_800)], [0, 0, 0]),  # terrain under all of it
        ([box(0, size=30_000), box(29_000), box(29_100)], [1, 0, 0]),  # nothing that is built reaches so far
        ([box(0), box(20), [[0, 0, 9000], [9, 9, 9003]]], [0, 0, 1]),  # as far up
        ([[[np.nan] * 3] * 2, box(0), box(9e4), box(9e4)], [0, 1, 0, 0]),
    ],
)
def test_what_stands_apart(boxes, wanted):
    assert apart(np.array(boxes, float)).astype(int).tolist() == wanted


def test_nothing_stands_apart_from_nothing():
    assert apart(np.zeros((0, 2, 3))).tolist() == []
    assert apart(np.full((2, 2, 3), np.nan)).tolist() == [False, False]
