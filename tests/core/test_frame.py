"""A file's frame: map conversion in both schemas, true north, storeys, grids, relations."""

import math

import pytest

from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple


def read(sample: Sample):
    return read_model("sample.ifc", sample.content())


def test_a_map_conversion_in_millimetres_comes_out_in_metres():
    sample = simple("IFC4", "mm")
    sample.map_conversion(412_300.0, 88_650.0, 6.2, 30.0)
    found = read(sample).map_conversion
    assert found is not None
    assert (found.crs, found.eastings_m, found.northings_m, found.height_m) == (
        "Made-up grid",
        412_300.0,
        88_650.0,
        6.2,
    )
    assert found.rotation_deg == pytest.approx(30.0)


def test_without_a_map_unit_the_files_own_length_unit_counts():
    sample = simple("IFC4", "mm")
    target = sample.make("IfcProjectedCRS", Name="Made-up grid")
    sample.make("IfcMapConversion", sample.context, target, 5_000_000.0, 7_000_000.0, 1000.0, 1.0, 0.0)
    found = read(sample).map_conversion
    assert found is not None
    assert (found.eastings_m, found.northings_m, found.height_m) == (5000.0, 7000.0, 1.0)


def test_ifc2x3_says_it_with_a_property_set():
    sample = simple("IFC2X3", "mm")
    make = sample.make
    values = {
        "TargetCRS": make("IfcLabel", "Made-up grid"),
        "Eastings": make("IfcLengthMeasure", 5_000_000.0),
        "Northings": make("IfcLengthMeasure", 7_000_000.0),
        "OrthogonalHeight": make("IfcLengthMeasure", 2500.0),
        "XAxisAbscissa": make("IfcReal", 0.0),
        "XAxisOrdinate": make("IfcReal", 1.0),
    }
    bundle = sample.root(
        "IfcPropertySet",
        Name="ePset_MapConversion",
        HasProperties=[make("IfcPropertySingleValue", name, None, value, None) for name, value in values.items()],
    )
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[sample.site], RelatingPropertyDefinition=bundle)
    found = read(sample).map_conversion
    assert found is not None
    assert (found.crs, found.eastings_m, found.northings_m, found.height_m) == ("Made-up grid", 5000.0, 7000.0, 2.5)
    assert found.rotation_deg == pytest.approx(90.0)


def test_true_north_is_a_direction_of_length_one():
    sample = simple()
    sample.context.TrueNorth = sample.make("IfcDirection", (3.0, 4.0))
    assert read(sample).true_north == pytest.approx((0.6, 0.8))
    assert read(simple()).true_north is None


def test_storeys_come_from_the_lowest_up_at_the_height_of_their_placement():
    sample = Sample("IFC4", "mm")
    upper = sample.storey("Upper", 4000.0)
    sample.storey("Lower", -3000.0)
    upper.Elevation = 9999.0  # the placement counts, not what is written beside it
    assert [(s.name, s.elevation_m) for s in read(sample).storeys] == [("Lower", -3.0), ("Upper", 4.0)]


def test_a_site_that_is_lifted_lifts_its_storeys():
    sample = simple()
    sample.move_site((0, 0, 37.5), 0.0)
    assert read(sample).storeys[0].elevation_m == pytest.approx(37.5)


def test_grid_axes_are_turned_and_moved_with_their_site():
    sample = simple("IFC2X3", "ft")
    per_m = 1 / 0.3048
    sample.grid({"1": 6.0 * per_m}, {"A": 0.0}, reach=10.0 * per_m)
    sample.move_site((100 * per_m, 0, 0), 90.0)
    axes = {axis.tag: axis for axis in read(sample).grid_axes}
    assert axes["1"].start_m == pytest.approx((110.0, 6.0))
    assert axes["1"].end_m == pytest.approx((90.0, 6.0))
    assert axes["A"].start_m == pytest.approx((100.0, -10.0))


def test_an_axis_drawn_against_its_sense_is_reversed():
    sample = simple()
    grid = sample.grid({"1": 0.0}, {"A": 0.0})
    grid.UAxes[0].SameSense = False
    axes = {axis.tag: axis for axis in read(sample).grid_axes}
    assert axes["1"].start_m == pytest.approx((0.0, 10.0))


def test_material_system_type_host_and_properties_of_the_type():
    sample = simple()
    make = sample.make
    wall = sample.ifc.by_type("IfcWall")[0]
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    door = sample.root(
        "IfcDoor",
        Name="Door",
        ObjectPlacement=sample.place(wall.ObjectPlacement, (1, 0, 0)),
        Representation=sample.shape(sample.solid((1, 0.1, 2))),
    )
    hole = sample.root(
        "IfcOpeningElement",
        ObjectPlacement=sample.place(wall.ObjectPlacement, (1, -0.5, 0)),
        Representation=sample.shape(sample.solid((1, 1, 2))),
    )
    sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
    sample.relate("IfcRelFillsElement", RelatingOpeningElement=hole, RelatedBuildingElement=door)
    layers = [make("IfcMaterialLayer", make("IfcMaterial", name), 0.1) for name in ("Brick", "Wool")]
    usage = make("IfcMaterialLayerSetUsage", make("IfcMaterialLayerSet", layers), "AXIS2", "POSITIVE", 0.0)
    sample.relate("IfcRelAssociatesMaterial", RelatedObjects=[wall], RelatingMaterial=usage)
    common = sample.root(
        "IfcPropertySet", Name="Pset_WallCommon",
        HasProperties=[make("IfcPropertySingleValue", "FireRating", None, make("IfcLabel", "EI60"), None)],
    )  # fmt: skip
    kind = sample.root("IfcWallType", Name="W60", PredefinedType="SOLIDWALL", HasPropertySets=[common])
    sample.relate("IfcRelDefinesByType", RelatedObjects=[wall], RelatingType=kind)
    system = sample.root("IfcSystem", Name="Smoke control")
    sample.relate("IfcRelAssignsToGroup", RelatedObjects=[door], RelatingGroup=system)
    found = {c.ifc_class: c for c in read(sample).components}
    assert found["IfcWall"].material == "Brick + Wool"
    assert (found["IfcWall"].type_name, found["IfcWall"].type_class) == ("W60", "IfcWallType")
    assert found["IfcWall"].properties == {"Pset_WallCommon": {"FireRating": "EI60"}}
    assert found["IfcDoor"].systems == ("Smoke control",)
    assert found["IfcDoor"].hosted_in == wall.GlobalId
    # A door without a storey of its own is on that of the wall that holds it.
    assert found["IfcDoor"].storey == storey.GlobalId


def test_a_turned_component_stands_where_its_placements_say():
    """A box 2 x 1 turned by 30 degrees about its corner at (10, 5): its far corner by hand."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    box = sample.box(storey, (0, 0, 0), (2, 1, 1))
    box.ObjectPlacement = sample.place(storey.ObjectPlacement, (10, 5, 0), 30.0)
    bounds = read(sample).geometry.bounds(1)[0]
    c, s = math.cos(math.pi / 6), math.sin(math.pi / 6)
    assert bounds[1] == pytest.approx([10 + 2 * c, 5 + 2 * s + c, 1.0], abs=1e-6)
    assert bounds[0] == pytest.approx([10 - s, 5.0, 0.0], abs=1e-6)


@pytest.mark.parametrize(
    ("unit", "scale", "map_unit", "eastings", "wanted_m", "said"),
    [
        # A map unit counts, whatever the scale says.
        ("mm", None, "METRE", 412_300.0, 412_300.0, ""),
        ("mm", 0.001, "METRE", 412_300.0, 412_300.0, ""),
        ("mm", 1.0, "METRE", 412_300.0, 412_300.0, ""),
        ("m", 0.9996, "METRE", 412_300.0, 412_300.0, "grid factor of 0.999600"),
        # The scale stands for the unit: millimetres times 0.001 are metres.
        ("mm", 0.001, None, 412_300.0, 412_300.0, "scale of 0.001 stands for the unit: taken in metres"),
        ("ft", 0.3048, None, 412_300.0, 412_300.0, "scale of 0.3048 stands for the unit: taken in metres"),
        ("m", 1 / 0.3048, None, 1000.0, 304.8, "stands for the unit: taken in feet"),
        # Neither: the file's own unit, as IFC has it.
        ("mm", None, None, 5_000_000.0, 5000.0, "names no map unit: taken in the file's own, millimetres"),
        ("mm", 1.0, None, 5_000_000.0, 5000.0, "names no map unit"),
        ("m", None, None, 5000.0, 5000.0, ""),
        ("m", 7.0, None, 5000.0, 5000.0, "scale of 7 fits no unit"),
    ],
)
def test_map_conversions_as_real_files_write_them(unit, scale, map_unit, eastings, wanted_m, said):
    sample = simple("IFC4", unit)
    unit_entity = sample.make("IfcSIUnit", None, "LENGTHUNIT", None, map_unit) if map_unit else None
    target = sample.make("IfcProjectedCRS", Name="Made-up grid", MapUnit=unit_entity)
    sample.make("IfcMapConversion", sample.context, target, eastings, eastings, 0.0, 1.0, 0.0, scale)
    found = read(sample).map_conversion
    assert found is not None
    assert found.eastings_m == pytest.approx(wanted_m)
    assert said in found.reading
    assert bool(said) == bool(found.reading)


def _with_sets(sample: Sample, **sets) -> Sample:
    make = sample.make
    for name, values in sets.items():
        bundle = sample.root(
            "IfcPropertySet",
            Name=name,
            HasProperties=[make("IfcPropertySingleValue", key, None, value, None) for key, value in values.items()],
        )
        sample.relate("IfcRelDefinesByProperties", RelatedObjects=[sample.site], RelatingPropertyDefinition=bundle)
    return sample


def test_ifc2x3_says_its_scale_and_system_in_sets_of_their_own():
    sample = simple("IFC2X3", "mm")
    make = sample.make
    _with_sets(
        sample,
        ePSet_MapConversion={
            "Eastings": make("IfcReal", 412_300.0),
            "Northings": make("IfcReal", 88_650.0),
            "Scale": make("IfcReal", 0.001),
        },
        ePset_ProjectedCRS={"Name": make("IfcLabel", "Made-up grid")},
    )
    found = read(sample).map_conversion
    assert found is not None
    assert (found.crs, found.eastings_m, found.northings_m) == ("Made-up grid", 412_300.0, 88_650.0)
    assert "stands for the unit" in found.reading


def test_ifc2x3_names_its_map_unit_in_words():
    sample = simple("IFC2X3", "mm")
    make = sample.make
    _with_sets(
        sample,
        ePset_MapConversion={"Eastings": make("IfcReal", 1000.0), "Northings": make("IfcReal", 2000.0)},
        ePset_ProjectedCRS={"Name": make("IfcLabel", "Made-up grid"), "MapUnit": make("IfcLabel", "FOOT")},
    )
    found = read(sample).map_conversion
    assert found is not None
    assert found.eastings_m == pytest.approx(304.8)


def test_ifc4x3_says_it_with_a_rigid_operation():
    sample = simple("IFC4X3", "mm")
    make = sample.make
    metre = make("IfcSIUnit", None, "LENGTHUNIT", None, "METRE")
    target = make("IfcProjectedCRS", Name="Made-up grid", MapUnit=metre)
    first, second = make("IfcLengthMeasure", 412_300.0), make("IfcLengthMeasure", 88_650.0)
    sample.make("IfcRigidOperation", sample.context, target, first, second, 6.2)
    found = read(sample).map_conversion
    assert found is not None
    assert (found.eastings_m, found.northings_m, found.height_m, found.rotation_deg) == (412_300.0, 88_650.0, 6.2, 0.0)


@pytest.mark.parametrize("bad", ["1.E400", "*", "$"])
def test_a_map_conversion_without_usable_figures_is_named_and_not_used(bad):
    sample = simple("IFC4")
    sample.map_conversion(412_300.25, 88_650.0, 6.2, 30.0)
    content = sample.content().replace(b"412300.25", bad.encode())
    reading = read_model("sample.ifc", content)
    assert reading.map_conversion is None
    assert "map-unusable" in {p.code for p in reading.problems}
