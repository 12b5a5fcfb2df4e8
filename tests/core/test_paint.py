"""The file's own surface colours, from styled items and materials down to the vertices that are drawn."""

import io

import numpy as np
import pytest

from stairpath.core.mesh.chunks import build_chunks
from stairpath.core.reading.pack import pack, unpack
from stairpath.core.reading.paint import GLASS, NONE, paint
from stairpath.core.reading.read import read_model
from tests.core.test_mesh import decoded
from tests.samples import Sample

OAK = (0.5, 0.25, 0.125)
OAK_PAINT = 0x804020FF


def styled(sample: Sample, rgb, transparency=0.0):
    """A surface style of a colour."""
    colour = sample.make("IfcColourRgb", None, *map(float, rgb))
    rendering = sample.make("IfcSurfaceStyleRendering", colour, float(transparency), ReflectanceMethod="FLAT")
    return sample.make("IfcSurfaceStyle", None, "BOTH", [rendering])


def door(sample: Sample, storey):
    """A component of three parts: one of oak, one of glass, and one to which the file gives nothing."""
    items = [sample.solid((1, 0.1, 2)), sample.solid((0.5, 0.2, 1)), sample.solid((0.2, 0.3, 0.2))]
    sample.make("IfcStyledItem", items[0], [styled(sample, OAK)], None)
    sample.make("IfcStyledItem", items[1], [styled(sample, (0.8, 0.9, 1.0), 0.7)], None)
    rep = sample.make("IfcShapeRepresentation", sample.context, "Body", "SweptSolid", items)
    body = sample.make("IfcProductDefinitionShape", None, None, [rep])
    return sample.box(storey, (0, 0, 0), (1, 1, 1), "IfcDoor", Representation=body)


def paints_of(reading, component=0):
    geometry = reading.geometry
    placed = np.flatnonzero(geometry.owner == component)
    return np.concatenate([geometry.shapes[geometry.shape[p]].paints for p in placed])


@pytest.mark.parametrize(
    ("rgb", "transparency", "expected"),
    [
        ((1, 0, 0.5), 0.0, 0xFF0080FF),
        ((0, 0, 0), float("nan"), 0x000000FF),
        ((2, -1, 0), 0.0, 0xFF0000FF),
        ((0, 0, 0), 1.0, 0x00000001),
    ],
)
def test_a_paint_is_a_colour_and_what_it_covers(rgb, transparency, expected):
    red, green, blue = rgb
    assert paint(red, green, blue, transparency) == expected


def test_parts_of_one_component_have_their_own_colours():
    sample = Sample()
    door(sample, sample.storey("Level 00", 0))
    reading = read_model("a.ifc", sample.content())
    paints = paints_of(reading)
    glass = paint(0.8, 0.9, 1.0, 0.7)
    assert {int(each): int((paints == each).sum()) for each in np.unique(paints)} == {
        NONE: 12,
        OAK_PAINT: 12,
        glass: 12,
    }
    (chunk,) = build_chunks(reading)
    assert chunk.see_through == 12
    doc, _, _, triangles = decoded(chunk.glb)
    assert doc["meshes"][0]["extras"]["kinds"][:2] == ["opaque", "see-through"]
    assert doc["meshes"][0]["extras"]["paints"] == sorted([NONE, OAK_PAINT, glass])
    assert len(triangles) == 24


def test_the_style_of_a_material_is_that_of_what_is_made_of_it():
    sample = Sample()
    wall = sample.box(sample.storey("Level 00", 0), (0, 0, 0), (3, 0.2, 2))
    material = sample.make("IfcMaterial", "Oak")
    item = sample.make("IfcStyledItem", None, [styled(sample, OAK)], None)
    shown = sample.make("IfcStyledRepresentation", sample.context, "Style", "Material", [item])
    sample.make("IfcMaterialDefinitionRepresentation", None, None, [shown], material)
    sample.relate("IfcRelAssociatesMaterial", RelatedObjects=[wall], RelatingMaterial=material)
    assert set(paints_of(read_model("a.ifc", sample.content()))) == {OAK_PAINT}


def test_what_has_no_style_has_no_colour_of_its_own():
    sample = Sample()
    sample.box(sample.storey("Level 00", 0), (0, 0, 0), (3, 0.2, 2))
    assert set(paints_of(read_model("a.ifc", sample.content()))) == {NONE}


def test_paints_are_kept_with_the_geometry():
    sample = Sample()
    door(sample, sample.storey("Level 00", 0))
    geometry = read_model("a.ifc", sample.content()).geometry
    again = unpack(pack(geometry))
    assert [s.paints.tolist() for s in again.shapes] == [s.paints.tolist() for s in geometry.shapes]


def test_glass_that_was_kept_without_its_colour_is_glass():
    sample = Sample()
    door(sample, sample.storey("Level 00", 0))
    geometry = read_model("a.ifc", sample.content()).geometry
    with np.load(io.BytesIO(pack(geometry))) as kept:
        older = {name: kept[name] for name in kept.files if name != "paints"}
    older["see_through"] = np.concatenate([s.see_through for s in geometry.shapes])
    out = io.BytesIO()
    np.savez(out, **older)
    again = np.concatenate([s.paints for s in unpack(out.getvalue()).shapes])
    assert sorted(set(again.tolist())) == [NONE, GLASS]
    assert (again == GLASS).sum() == 12
