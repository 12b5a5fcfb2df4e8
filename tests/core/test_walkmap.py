"""The walk map by tiles: the same whole, the same after packing, and made again only where something changed."""

import gzip
import json
from base64 import b64encode
from pathlib import Path

import numpy as np
import pytest
import shapely

from stairpath.core.geometry.axes import Axes
from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.landing import in_the_room
from stairpath.core.walking.place import NoPlaceError, Room
from stairpath.core.walking.tile import (
    NO_STEP,
    OPEN_CM,
    TILE_M,
    Tile,
    all_tiles,
    ground_print,
    margin_m,
    pack,
    places,
    tile_print,
    tiles_at,
    unpack,
)
from stairpath.core.walking.walkmap import NOWHERE, join
from tests.core.blocks import Blocks

BODY = BODIES["standing"]


def long_hall() -> Blocks:
    """A hall over three tiles with a dais across the first seam and a table on the second."""
    blocks = Blocks().room(0.5, 0.5, 30.5, 6)
    blocks.box("dais", (TILE_M - 1.03, 1, 0), (TILE_M + 0.98, 4, 0.17))
    return blocks.box("table", (2 * TILE_M - 0.6, 2, 0.72), (2 * TILE_M + 0.7, 3, 0.75))


FIXTURE = Path(__file__).resolve().parents[1] / "cases/walk_tile.json"


def test_the_page_s_tests_read_a_tile_as_it_is_packed_today():
    """Two cells by two with 1, 0, 2 and 1 floors; write it anew with ``python -m tests.core.test_walkmap``."""
    assert json.loads(FIXTURE.read_text()) == packed_tile()


def packed_tile() -> dict[str, object]:
    """A small tile, and its bytes as the page receives them."""
    steps = np.full((4, 8), NO_STEP, np.uint8)
    steps[2, 3] = 1
    heights, at = [-4200, 0, 4000, 12_345], [4, 132, 128, 136]
    floors = [1, 0, 2, 1]
    tile = Tile(
        (-3, 7), np.array(floors, np.uint8), np.array(heights, np.int32), np.full(4, OPEN_CM, np.uint16),
        np.full(4, 20, np.uint8), np.array(at, np.uint8), steps, np.zeros(4, np.int32), np.full(4, NOWHERE, np.int32),
        np.arange(1),
    )  # fmt: skip
    raw = gzip.decompress(pack(tile, [("model", "0abc")]))
    return {
        "bytes": b64encode(raw).decode(),
        "start": [0, 1, 1, 3, 4],
        "heights_mm": heights,
        "at": at,
        "step": [2, 3, 1],
    }


def test_a_floor_is_free_but_for_what_stands_on_it_and_a_body_s_breadth():
    # Off the cells' own grid, so that no middle is just as far away as the body is wide.
    blocks = Blocks().room(0.03, 0.03, 4.03, 3.03).box("cupboard", (1.03, 1.03, 0), (2.03, 2.03, 2))
    walk = blocks.walk().map
    free = walk.free & (np.abs(walk.height_m) < 0.01)
    around = 1.5 * 1.5 - (4 - np.pi) * 0.25**2
    assert free.sum() * 0.01 == pytest.approx(3.5 * 2.5 - around, rel=0.03)
    assert (walk.clear_cm[free] == OPEN_CM).all()


def test_clear_height_is_what_is_free_above_to_the_centimetre():
    walk = Blocks().room(0, 0, 4, 3).box("ceiling", (0, 0, 2.437), (4, 3, 2.6)).walk().map
    inside = (np.abs(walk.height_m) < 0.01) & (walk.clear_cm < 65535)
    assert set(walk.clear_cm[inside].tolist()) == {243}


def test_steps_lead_back_and_join_the_seams_of_tiles():
    walk = long_hall().walk().map
    assert len(np.unique(walk.region[walk.fits & (walk.height_m < 0.5)])) == 1
    west, east = walk.under(1.5, 5, 0), walk.under(29.5, 5, 0)
    assert walk.region[west] == walk.region[east] != NOWHERE
    here = walk.under(TILE_M - 0.05, 5, 0)
    assert walk.steps[here, 0] != 255
    assert walk.places(np.array([here]))[0] == pytest.approx([TILE_M - 0.05, 5.05, 0], abs=0.06)


def test_a_packed_tile_is_the_same_tile():
    blocks = long_hall()
    space = Space(blocks.solids())
    (tile,) = tiles_at(space, (0, 0), [BODY])
    names = [("model", f"c{k}") for k in tile.components]
    data = pack(tile, names)
    again, known = unpack(data)
    assert known == names
    assert again.place == tile.place
    for column in ("floors", "height_mm", "clear_cm", "room_cm", "at", "steps", "owner", "taker"):
        assert np.array_equal(getattr(again, column), getattr(tile, column)), column
    assert len(data) < 0.2 * len(gzip.decompress(data))


def test_a_change_makes_only_the_tiles_around_it_again():
    before = Space(long_hall().solids())
    after = Space(long_hall().box("post", (28, 3, 0), (28.2, 3.2, 3)).solids())
    margin = margin_m([BODY], 0.1)

    def prints(space):
        names = np.arange(100)
        return {p: tile_print(ground_print(space, p, margin, names), BODY, 0.1) for p in places(space)}

    old, new = prints(before), prints(after)
    changed = {p for p in new if old[p] != new[p]}
    assert changed == {(2, 0)}
    made_anew = {t.place: t for t in all_tiles(after, [BODY])["standing"]}
    kept = [t for t in all_tiles(before, [BODY])["standing"] if t.place not in changed]
    whole = join(made_anew.values(), BODY, Axes())
    patched = join([*kept, *(made_anew[p] for p in changed)], BODY, Axes())
    assert np.array_equal(whole.steps, patched.steps)
    assert np.array_equal(whole.height_m, patched.height_m)


def test_another_body_or_cell_is_another_tile():
    ground = b"the same"
    first = tile_print(ground, BODY, 0.1)
    assert first != tile_print(ground, BODIES["trolley"], 0.1)
    assert first != tile_print(ground, BODY, 0.05)
    assert first == tile_print(ground, BODY, 0.1)


def test_turned_axes_lead_there_and_back():
    axes = Axes((412_000.0, 88_000.0, 0.0), -17.0)
    points = np.array([[412_323.0, 88_664.0, 3.0], [412_000.0, 88_010.0, 0.0]])
    assert axes.to_project(axes.to_own(points)) == pytest.approx(points)
    # Own y points 17 degrees to the left of the project's.
    assert axes.to_project(np.array([0.0, 10.0, 0.0])) == pytest.approx(
        [412_000 - 10 * np.sin(np.radians(17)), 88_000 + 10 * np.cos(np.radians(17)), 0]
    )


@pytest.mark.parametrize("cell_m", [0.05, 0.07, 0.13])
def test_any_cell_joins_its_tiles(cell_m):
    walk = long_hall().walk(cell_m=cell_m).map
    assert walk.region[walk.under(1.5, 5, 0)] == walk.region[walk.under(29.5, 5, 0)] != NOWHERE


def test_nothing_solid_has_no_floor():
    walk = join([], BODY, Axes())
    assert len(walk) == 0
    assert walk.under(0, 0, 0) == NOWHERE


def test_one_stands_where_most_is_free_and_looks_along_the_longest_clear_line():
    blocks = Blocks().room(0, 0, 12, 4).box("column", (5.8, 1.8, 0), (6.2, 2.2, 3))
    walk = blocks.walk().map
    hall = Room("Hall", shapely.box(0, 0, 12, 4), 0.0, 3.0)
    landing = in_the_room(walk, hall)
    at = walk.place(landing.floor)
    assert at[1] == pytest.approx(2, abs=0.2)
    assert np.hypot(*(at[:2] - [6, 2])) > 1.7
    assert landing.look_deg is not None
    assert abs(np.sin(np.radians(landing.look_deg))) < 0.35
    duct = Room("Duct", shapely.box(0, 0, 0.45, 4), 0.0, 3.0)
    with pytest.raises(NoPlaceError, match="no room for standing in Duct"):
        in_the_room(Blocks().room(0, 0, 0.45, 4).walk().map, duct)


if __name__ == "__main__":
    FIXTURE.write_text(json.dumps(packed_tile(), indent=2) + "\n")
