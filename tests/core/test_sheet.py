"""Cuts on paper: to scale in every form, with what lies behind and without what is hidden."""

import math
import re
import xml.etree.ElementTree as ET
from dataclasses import replace

import ezdxf
import numpy as np
import pytest
import shapely

from stairpath.core.cutting.behind import behind
from stairpath.core.cutting.cut import cut, rings_of
from stairpath.core.cutting.sheet.as_pdf import pdf
from stairpath.core.cutting.sheet.as_svg import svg
from stairpath.core.cutting.sheet.draw import draw
from stairpath.core.cutting.sheet.formats import FORMATS
from stairpath.core.cutting.sheet.papers import NoPaperError, paper_for, paper_named
from stairpath.core.cutting.sheet.pens import hatch_of, hatching
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.federation.placed import all_placed
from stairpath.core.geometry.plane import level_plane, upright_plane
from stairpath.core.reading.read import read_model
from tests.core.solids import box, placed
from tests.core.test_cli import run
from tests.samples import Sample

SVG = "{http://www.w3.org/2000/svg}"
NO_FACES = np.zeros((0, 3, 2))


def total(lines) -> float:
    return float(np.linalg.norm(lines[:, 1] - lines[:, 0], axis=1).sum())


# -- what lies behind ----------------------------------------------------------------------------


def test_of_a_box_below_one_sees_its_top():
    found = behind([placed(box([0, 0, -2], [4, 3, -1]))], level_plane(0), 5, NO_FACES)
    assert total(found.lines) == pytest.approx(14)
    assert set(found.of) == {0}


def test_what_another_covers_is_left_out():
    low, high = box([0, 0, -3], [4, 4, -2]), box([1, 1, -1], [9, 3, -0.5])
    found = behind([placed(low, high)], level_plane(0), 5, NO_FACES)
    seen_of_low = found.lines[found.of == 0]
    # The right side of the lower box is covered between 1 and 3.
    assert total(seen_of_low) == pytest.approx(16 - 2)
    assert total(found.lines[found.of == 1]) == pytest.approx(2 * (8 + 2))


def test_what_is_cut_hides_all_behind_it_and_depth_ends_what_is_drawn():
    two = placed(box([0, 0, -3], [4, 4, -2]), box([0, 0, -9], [20, 20, -8]))
    assert set(behind([two], level_plane(0), 5, NO_FACES).of) == {0}
    cover = np.array([[[-1, -1], [9, -1], [9, 9]], [[-1, -1], [9, 9], [-1, 9]]], dtype=float)
    assert not len(behind([two], level_plane(0), 5, cover).lines)


def test_of_a_slope_the_part_below_the_plane_is_drawn():
    tall = placed(box([0, 0, -2], [1, 1, 2]))
    found = behind([tall], level_plane(0), 5, np.array([[[0, 0], [1, 0], [1, 1]], [[0, 0], [1, 1], [0, 1]]], float))
    # Seen from above nothing of its sides shows beside its own cut face.
    assert total(found.lines) == pytest.approx(0, abs=1e-6)


def test_a_round_bar_shows_its_sides():
    import trimesh

    bar = trimesh.creation.cylinder(0.5, 4.0, sections=64)
    bar.apply_transform(trimesh.transformations.rotation_matrix(math.pi / 2, [0, 1, 0]))
    bar.apply_translation([0, 0, -2])
    found = behind([placed(bar)], level_plane(0), 5, NO_FACES)
    along = found.lines[np.abs(found.lines[:, 0, 1] - found.lines[:, 1, 1]) < 1e-6]
    assert total(along) == pytest.approx(8, rel=1e-3)
    assert np.abs(along[..., 1]) == pytest.approx(0.5, abs=1e-3)


# -- on paper ------------------------------------------------------------------------------------


def yard(axis_m=0.0):
    """A wall of 10 m, a block behind it, on a grid; and what each is made of."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.grid({"1": 0.0, "2": 10.0}, {"A": axis_m, "B": 6.0}, 8.0)
    sample.box(storey, (0, 0, 0), (10, 0.2, 3), Name="Wall")
    sample.box(storey, (4, 2, 0), (2, 1, 0.8), "IfcFurnishingElement", Name="Block")
    sample.room(storey, "0.01", "Yard", (0, 0.2, 0), (10, 5, 3))
    reading = read_model("Yard-ARC.ifc", sample.content())
    return federate([outline(reading)]), ["Concrete C30/37"] * len(reading.components)


@pytest.fixture(scope="module")
def sheet():
    federation, materials = yard()
    return draw(federation, level_plane(1.2), materials, scale=50, title="Level 00 + 1.20", project="Yard")


def paths(document, layer):
    """The closed and open ways of a layer of an SVG, as points in millimetres."""
    found = []
    for group in document.iter(f"{SVG}g"):
        if group.attrib.get("data-layer") == layer:
            for path in group.iter(f"{SVG}path"):
                found.append(
                    np.array([list(map(float, p.split(","))) for p in re.split("[MLZ]", path.attrib["d"]) if p])
                )
    return found


def test_ten_metres_at_one_to_fifty_are_200_mm_in_svg(sheet):
    document = ET.fromstring(svg(sheet))
    width, height = (float(document.attrib[k].removesuffix("mm")) for k in ("width", "height"))
    assert document.attrib["viewBox"] == f"0 0 {width:g} {height:g}"
    assert (width, height) == (sheet.paper.width_mm, sheet.paper.height_mm)
    (wall,) = paths(document, "ARC-CUT")
    assert np.ptp(wall, axis=0) == pytest.approx([200, 4], abs=0.01)
    words = {e.text for e in document.iter(f"{SVG}text")}
    assert {"Yard", "0.01", "Level 00 + 1.20", "1:50", "A", "2", "+1.200 m"} <= words


@pytest.mark.parametrize(("name", "unit", "per_m"), [("dxf", ezdxf.units.M, 1), ("dxf_mm", ezdxf.units.MM, 1000)])
def test_in_dxf_the_building_is_in_model_space_where_it_stands_and_the_sheet_in_paper_space(
    sheet, tmp_path, name, unit, per_m
):
    (tmp_path / "a.dxf").write_bytes(FORMATS[name].write(sheet))
    document = ezdxf.readfile(tmp_path / "a.dxf")
    assert document.units == unit
    assert not document.audit().errors
    model, paper = document.modelspace(), document.paperspace("Sheet")
    (wall,) = model.query('LWPOLYLINE[layer=="ARC-CUT-HEAVY"]')
    assert wall.closed
    corners = np.array(list(wall.get_points("xy"))) / per_m
    assert [*corners.min(axis=0), *corners.max(axis=0)] == pytest.approx([0, 0, 10, 0.2], abs=1e-6)
    assert document.layers.get("ARC-CUT-HEAVY").dxf.lineweight == 50
    assert document.layers.get("ARC-BEHIND-THIN").dxf.lineweight == 25
    assert {text.dxf.text for text in model.query("TEXT")} == {"Yard", "0.01"}
    assert {text.dxf.text for text in paper.query("TEXT")} >= {"Yard", "1:50", "Level 00 + 1.20"}
    assert {ref.get_attrib_text("TAG") for ref in model.query("INSERT")} == {"1", "2", "A"}
    (hatch,) = model.query("HATCH")
    assert hatch.dxf.layer == "ARC-HATCH-FINE"
    assert not hatch.dxf.solid_fill
    assert [line.angle for line in hatch.pattern.lines] == [45, 45]
    low, high = np.array(document.header["$EXTMIN"])[:2], np.array(document.header["$EXTMAX"])[:2]
    assert (low <= 0).all()
    assert (high >= np.array([10, 0.2]) * per_m).all()
    assert (high - low < 20 * per_m).all()


@pytest.mark.parametrize("turned_deg", [0.0, 28.0])
def test_the_view_of_a_dxf_shows_the_building_on_paper_where_the_other_forms_draw_it(sheet, turned_deg, tmp_path):
    federation, materials = yard()
    drawn = draw(replace(federation, building_north_deg=turned_deg), level_plane(1.2), materials, scale=50)
    (tmp_path / "a.dxf").write_bytes(FORMATS["dxf"].write(drawn))
    document = ezdxf.readfile(tmp_path / "a.dxf")
    view = document.paperspace("Sheet").query("VIEWPORT")[-1]
    (wall,) = document.modelspace().query('LWPOLYLINE[layer=="ARC-CUT-HEAVY"]')
    to_paper = view.get_transformation_matrix()
    on_paper = np.array([(p.x, p.y) for p in to_paper.transform_vertices(wall.vertices_in_wcs())])
    (area,) = [a for a in drawn.areas if a.layer == "ARC-CUT"]
    assert on_paper == pytest.approx(area.rings[0][1], abs=1e-6)
    assert view.get_scale() == pytest.approx(1000 / 50)


def test_the_pdf_is_a_page_of_the_sheet_with_the_wall_to_scale(sheet):
    import zlib
    from base64 import a85decode

    document = pdf(sheet)
    box_of = re.search(rb"/MediaBox \[ ?0 0 ([\d.]+) ([\d.]+)", document)
    assert box_of
    points = 72 / 25.4
    assert [float(v) / points for v in box_of.groups()] == pytest.approx(
        [sheet.paper.width_mm, sheet.paper.height_mm], abs=0.1
    )
    stream = re.search(rb"stream\r?\n(.*?)endstream", document, re.DOTALL)
    assert stream
    content = zlib.decompress(a85decode(b"<~" + stream[1].strip(), adobe=True))
    moves = [np.array(list(map(float, m)), float) for m in re.findall(rb"([\d.]+) ([\d.]+) [ml]\b", content)]
    assert np.ptp(np.array(moves)[:, 0]) >= 200 * points


def test_the_drawing_has_the_polygons_of_the_cut(sheet):
    federation, _ = yard()
    (part,) = cut(all_placed(federation), level_plane(1.2)).parts
    (area,) = [a for a in sheet.areas if a.layer == "ARC-CUT"]
    ((_, ring),) = area.rings
    ((_, own),) = rings_of(part.polygons[0])
    assert shapely.Polygon(ring).area == pytest.approx(shapely.Polygon(own).area * (1000 / 50) ** 2)
    drawn = [line for line in sheet.lines if line.layer == "ARC-BEHIND"]
    assert sum(np.linalg.norm(line.points[1] - line.points[0]) for line in drawn) == pytest.approx(6 * 20)
    hatch = [line for line in sheet.lines if line.layer == "ARC-HATCH"]
    inside = shapely.Polygon(ring).buffer(1e-6)
    assert hatch
    assert all(inside.contains(shapely.LineString(line.points)) for line in hatch)


def test_an_upright_cut_has_level_marks_and_the_grid_lines_that_cross_it():
    federation, materials = yard()
    drawn = draw(federation, upright_plane((5.0, 2.5), 90.0), materials, scale=100, depth_m=1)
    words = {text.words for text in drawn.all_texts}
    assert {"A", "Level 00 +0.000", "090\N{DEGREE SIGN}"} <= words
    assert "B" not in words  # it lies beyond what is drawn; 1 and 2 run along the cut
    (mark,) = drawn.bubbles
    wall = np.concatenate([ring for area in drawn.areas if area.layer == "ARC-CUT" for _, ring in area.rings])
    # Looking east, north is to the left: the axis stands at the wall's right face.
    assert mark.at[0] == pytest.approx(wall[:, 0].max(), abs=1e-6)


@pytest.mark.parametrize("turned_deg", [0.0, 1e-9, 0.01, -0.5])
def test_a_grid_line_in_the_plane_of_a_cut_is_not_one_that_comes_through_it(turned_deg):
    federation, materials = yard(0.1)
    drawn = draw(federation, upright_plane((5.0, 0.1), 180.0 + turned_deg), materials, scale=100, depth_m=1)
    assert sorted(bubble.tag for bubble in drawn.bubbles) == ["1", "2"]


def test_nothing_cut_is_an_empty_sheet():
    federation, materials = yard()
    drawn = draw(federation, level_plane(90), materials, depth_m=1)
    assert drawn.paper.name == "A4"
    assert [a for a in drawn.areas if a.layer.endswith("CUT")] == []
    assert ET.fromstring(svg(drawn)) is not None


def test_the_smallest_sheet_is_taken_and_what_fits_none_has_one_of_its_own_size():
    assert paper_for(200, 150).name == "A4"
    assert paper_for(300, 150).name == "A3"
    own = paper_for(2400, 900)
    assert (own.name, own.inside_mm) == ("2430 by 920 mm", (2400, 900))
    assert paper_named("ansi d", 200, 150, 50).width_mm == pytest.approx(34 * 25.4)
    with pytest.raises(NoPaperError, match="no sheet B7; give one of A4"):
        paper_named("B7", 200, 150, 50)
    with pytest.raises(NoPaperError, match=r"does not fit on A4; draw it at about 1:75, or leave the size"):
        paper_named("a4", 400, 150, 50)


def test_a_cut_too_large_for_every_standard_sheet_is_drawn_in_every_form():
    federation, materials = yard()
    large = draw(federation, level_plane(1.2), materials, scale=2)
    assert large.paper.width_mm > 5000
    assert ET.fromstring(svg(large)).attrib["width"] == f"{large.paper.width_mm:g}mm"
    assert all(len(form.write(large)) > 1000 for form in FORMATS.values())


def test_hatches():
    square = shapely.box(0, 0, 30, 30)
    (angle, apart), *_ = hatch_of("Concrete C30/37")
    lines = hatching(square, ((angle, apart),))
    slopes = {round(math.degrees(math.atan2(b[1] - a[1], b[0] - a[0])) % 180) for a, b in lines}
    assert slopes == {45}
    assert len(lines) == pytest.approx(30 * math.sqrt(2) / apart, abs=2)
    assert hatching(square, hatch_of("Float glass")) == []
    assert hatch_of("Something else") != hatch_of("Concrete C30/37")


def test_the_command_writes_all_three(tmp_path):
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (0, 0, 0), (10, 0.2, 3), Name="Wall")
    path = tmp_path / "a.ifc"
    path.write_bytes(sample.content())
    written = [tmp_path / f"out.{kind}" for kind in ("svg", "dxf", "pdf")]
    options = [word for kind, out in zip(("--svg", "--dxf", "--pdf"), written, strict=True) for word in (kind, out)]
    result = run("cut", path, "--storey", "00", "--height", "1.2", *options, "--sheet", "A3", "--json")
    assert result.exit_code == 0, result.stderr
    assert [out.stat().st_size > 1000 for out in written] == [True, True, True]
    assert ET.parse(written[0]).getroot().attrib["width"] == "420mm"
    for more, said in (
        (("--scale", "0"), "not a scale"), (("--depth", "-1"), "zero or more"), (("--sheet", "B7"), "no sheet B7"),
        (("--scale", "1", "--sheet", "A3"), "does not fit on A3"),
    ):  # fmt: skip
        refused = run("cut", path, "--storey", "00", "--height", "1.2", "--svg", written[0], *more, "--json")
        assert refused.exit_code == 2
        assert said in refused.stderr.splitlines()[-1]
    nowhere = run("cut", path, "--storey", "00", "--height", "1.2", "--svg", tmp_path / "no" / "a.svg", "--json")
    assert nowhere.exit_code == 2
    assert "cannot be written" in nowhere.stderr
