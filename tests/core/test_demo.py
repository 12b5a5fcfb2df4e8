"""The demo building is what docs/demo.md says, and its planted problems are really there."""

import hashlib

import numpy as np
import pytest

from stairpath.core.federation.federate import Federation
from stairpath.core.picture.building import draw_picture
from stairpath.demo import air, electrical, fire, walls, write_models
from stairpath.demo import building as b


def placed(demo: Federation, model: str, tag: str):
    """Bounds of the components of a tag, in building coordinates."""
    found = next(m for m in demo.models if m.outline.name.startswith(model))
    turn = np.radians(-b.MAP_ROTATION_DEG)
    to_building = np.array([[np.cos(turn), -np.sin(turn), 0], [np.sin(turn), np.cos(turn), 0], [0, 0, 1]])
    matrix = np.eye(4)
    matrix[:3, :3] = to_building
    matrix[:3, 3] = -to_building @ np.array([b.MAP_EASTING_M, b.MAP_NORTHING_M, 0])
    geometry = found.outline.geometry
    tags = TAGS[found.outline.name]
    owners = [i for i, t in enumerate(tags) if t == tag]
    assert owners, f"{tag} is not in {model}"
    points = [
        geometry.points_of(k, matrix @ found.alignment.matrix)
        for k, owner in enumerate(geometry.owner)
        if owner in owners
    ]
    return np.concatenate(points)


TAGS: dict[str, list[str]] = {}


@pytest.fixture(autouse=True)
def _tags(demo_readings):
    for reading in demo_readings:
        TAGS[reading.name] = [c.tag for c in reading.components]


def box(points):
    return points.min(axis=0), points.max(axis=0)


def test_size_of_the_demo(demo, demo_readings):
    components = sum(len(r.components) for r in demo_readings)
    triangles = sum(r.geometry.triangle_count for r in demo_readings)
    assert 2_000 <= components <= 4_000
    assert 120_000 <= triangles <= 300_000
    assert {r.schema for r in demo_readings} == {"IFC2X3", "IFC4"}
    assert {r.length_unit for r in demo_readings} == {"metre", "millimetre", "foot"}
    assert {m.discipline for m in demo.models} == {"ARC", "STR", "AIR", "WTR", "ELE", "FIR", "FIT"}
    assert [m.alternative.option for m in demo.models if m.alternative] == ["A", "B"]
    assert len(demo.rooms) >= 40
    assert len({room.number for room in demo.rooms}) == len(demo.rooms)


def test_nothing_of_the_demo_is_broken(demo):
    problems = {m.outline.name: [p.text for p in m.problems] for m in demo.models if m.problems}
    assert problems == {"QH-STR-ZZ-ZZ-M3": ["Its Level 02 is 40 mm below the others'."]}


def test_every_model_meets_the_others_by_the_evidence_it_has(demo):
    assert {m.outline.name[3:6]: m.alignment.by for m in demo.models if m.alternative is None} == {
        "ARC": "map", "STR": "grid", "AIR": "grid", "WTR": "grid", "ELE": "map", "FIR": "grid", "FIT": "placement",
    }  # fmt: skip
    # The top of the sprinkler main and the corridor's walls agree to a tenth of a millimetre.
    low, high = box(placed(demo, "QH-STR", "C-A1"))
    assert (low + high)[:2] / 2 == pytest.approx([0, 0], abs=1e-4)


def test_writing_again_gives_the_same_files(demo_files, tmp_path):
    def marks(paths):
        return {p.name: hashlib.sha256(p.read_bytes()).hexdigest() for p in paths}

    assert marks(write_models(tmp_path)) == marks(demo_files)


def test_components_are_described_as_a_good_office_would(demo_readings):
    components = [c for r in demo_readings for c in r.components]
    assert sum(bool(c.tag and c.description and c.type_name) for c in components) > 0.98 * len(components)
    assert sum(bool(c.material) for c in components) > 0.95 * len(components)
    assert sum(bool(c.properties or c.quantities) for c in components) > 0.85 * len(components)
    services = [c for r in demo_readings if r.name[3:6] in ("AIR", "WTR", "FIR") for c in r.components]
    assert all(c.systems for c in services)


# -- planted problems, with the numbers of docs/demo.md ------------------------------------------


def test_an_air_duct_goes_through_a_beam(demo):
    duct_low, duct_high = box(placed(demo, "QH-AIR", air.PLANTED_DUCT))
    reading = next(m for m in demo.models if m.outline.name.startswith("QH-STR"))
    beams = [t for t in TAGS[reading.outline.name] if t.startswith("B-")]
    crossing = []
    for tag in beams:
        low, high = box(placed(demo, "QH-STR", tag))
        overlap = np.minimum(high, duct_high) - np.maximum(low, duct_low)
        if (overlap > 0.01).all():
            crossing.append((tag, overlap))
    assert len(crossing) == 1
    assert crossing[0][1][2] == pytest.approx(0.24, abs=0.005)


def test_a_pipe_crosses_the_escape_stair_at_1_86_m_above_the_nosings(demo):
    pipes = [
        t
        for m in demo.models
        if m.outline.name.startswith("QH-WTR")
        for t in TAGS[m.outline.name]
        if t.startswith("WP-")
    ]
    flights = b.escape_flights("Level 00")
    clear = []
    for tag in pipes:
        points = placed(demo, "QH-WTR", tag)
        low, high = box(points)
        over = low[0] > 42.9 and high[0] < 44.8 and low[1] > 14.6 and high[1] < 18 and 0 < low[2] < 4
        if over and high[0] - low[0] > 1:
            clear.append((points[:, 2] - np.array([flights.nosing_z(y) for y in points[:, 1]])).min())
    assert clear == [pytest.approx(1.86, abs=0.005)]


def test_a_socket_is_behind_a_tall_cabinet(demo):
    socket_low, socket_high = box(placed(demo, "QH-ELE", electrical.HIDDEN_SOCKET))
    hidden = []
    for tag in {t for t in TAGS["QH-FIT-ZZ-ZZ-M3"] if t.startswith("CB-")}:
        low, high = box(placed(demo, "QH-FIT", tag))
        behind = 0 <= low[0] - socket_high[0] < 0.03
        covers = (low[1:] <= socket_low[1:]).all() and (high[1:] >= socket_high[1:]).all()
        if behind and covers:
            hidden.append(tag)
    assert len(hidden) == 1


def test_a_door_swing_meets_a_column(demo):
    room = next(r for r in b.rooms() if r.name == "Specimen store")
    assert walls.SWING_DOOR_X0_M == 30.12
    column = placed(demo, "QH-STR", "C-C6")
    low, high = box(column[column[:, 2] > 8.0])
    assert low[0] < 30.0 < high[0]
    # The leaf turns about the frame's edge; fully open it lies along the column's side.
    hinge = walls.SWING_DOOR_X0_M
    assert high[0] > hinge
    assert high[0] - hinge == pytest.approx(0.03, abs=0.005)
    assert low[1] < room.y1 - walls.INSIDE_M


def test_a_cable_tray_is_12_mm_from_a_sprinkler_branch(demo):
    trays = [t for t in TAGS["QH-ELE-ZZ-ZZ-M3"] if t.startswith("CT-2")]
    branch = max(
        (placed(demo, "QH-FIR", t) for t in TAGS["QH-FIR-ZZ-ZZ-M3"] if t.startswith("SP-2")),
        key=lambda points: np.ptp(points[:, 0]) if abs(points[:, 1].mean() - fire.CLOSE_BRANCH_Y_M) < 0.01 else 0,
    )
    tray = max(
        (placed(demo, "QH-ELE", t) for t in trays),
        key=lambda points: np.ptp(points[:, 0]) if abs(points[:, 1].mean() - 20.18) < 0.03 else 0,
    )
    gap = tray[:, 1].min() - branch[:, 1].max()
    assert gap == pytest.approx(b.TRAY_TO_BRANCH_M, abs=1e-4)


def test_structures_level_02_is_40_mm_low(demo):
    structure = next(m for m in demo.models if m.outline.name.startswith("QH-STR"))
    heights = {s.name: s.elevation_m for s in structure.outline.storeys}
    assert heights["Level 02"] == pytest.approx(7.96)
    _, high = box(placed(demo, "QH-STR", "S-02"))
    assert high[2] == pytest.approx(8.0 - 0.04 - b.FLOOR_BUILDUP_M, abs=1e-4)


def test_a_hanger_before_the_escape_stair_is_65_mm_lower_than_the_others(demo):
    tags = [t for t in TAGS["QH-AIR-ZZ-ZZ-M3"] if t.startswith("AH-1")]
    assert len(tags) == 32
    extract = {t: low[2] for t in tags for low, high in [box(placed(demo, "QH-AIR", t))] if low[1] > 12}
    lowest = min(extract, key=lambda t: extract[t])
    assert extract[lowest] == pytest.approx(4.0 + 2.86, abs=1e-4)
    assert sorted(extract.values())[1] - extract[lowest] == pytest.approx(0.065, abs=1e-4)
    assert box(placed(demo, "QH-AIR", lowest))[0][0] == pytest.approx(42.85, abs=0.02)
    assert lowest == "AH-131"


def test_equipment_narrows_a_corridor_to_0_72_m(demo):
    low, high = box(placed(demo, "QH-FIT", "IM-1"))
    south, north = b.CORRIDOR_Y_M
    assert low[1] - south == pytest.approx(0.72, abs=1e-4)
    assert high[1] == pytest.approx(north, abs=1e-4)


def test_the_picture_shows_the_building(demo):
    from io import BytesIO

    from PIL import Image

    png = draw_picture(demo)
    assert png is not None
    image = np.asarray(Image.open(BytesIO(png)))
    film = (np.abs(image.astype(int) - [243, 241, 236]).max(axis=2) < 3).mean()
    assert 0.3 < film < 0.8
