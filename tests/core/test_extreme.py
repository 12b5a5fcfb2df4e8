"""The few points that decide frame as all points do."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.camera.extreme import telling_points
from stairpath.core.camera.framing import Borders, Slopes, frame, free_slopes
from stairpath.core.federation.placed import Placed
from stairpath.core.reading.model import Geometry, Shape


def cloud(seed: int, count: int) -> Placed:
    """So many components of random tetrahedra, one of them without a shape."""
    dice = np.random.default_rng(seed)
    shapes = tuple(Shape.bare(dice.uniform(-3, 3, (4, 3)), np.array([[0, 1, 2], [1, 2, 3]])) for _ in range(count))
    matrix = np.tile(np.eye(4), (count, 1, 1))
    matrix[:, :3, 3] = dice.uniform(-60, 60, (count, 3))
    geometry = Geometry(shapes, np.arange(count, dtype=np.int32), np.arange(count, dtype=np.int32), matrix)
    to = np.eye(4)
    to[:3, 3] = dice.uniform(-1e3, 1e3, 3)
    bounds = np.concatenate([geometry.bounds(count, to), np.full((1, 2, 3), np.nan)])
    return Placed(geometry, to, bounds, np.append(dice.uniform(size=count) < 0.6, True))


@given(
    seed=st.integers(0, 10_000),
    bearing=st.floats(0, 360),
    tilt=st.floats(-90, 90),
    aspect=st.floats(0.4, 3),
    lens=st.floats(5, 110),
    projection=st.sampled_from(["perspective", "parallel"]),
    sides=st.tuples(*[st.floats(0, 0.45)] * 4),
)
def test_the_pose_is_that_of_all_points(seed, bearing, tilt, aspect, lens, projection, sides):
    borders = Borders(*sides)
    parts = [cloud(seed, 7), cloud(seed + 1, 3)]
    every = [
        part.geometry.points_of(k, part.to) for part in parts for k in range(len(part.geometry.owner)) if part.wanted[k]
    ]
    few = telling_points(parts, bearing, tilt, [free_slopes(aspect, projection, lens, borders)])
    if not every:
        assert len(few) == 0
        return
    wanted = frame(np.concatenate(every), bearing, tilt, aspect, projection, lens, borders)
    found = frame(few, bearing, tilt, aspect, projection, lens, borders)
    assert found.eye_m == pytest.approx(wanted.eye_m, abs=1e-5)
    assert found.target_m == pytest.approx(wanted.target_m, abs=1e-5)
    assert found.height_m == pytest.approx(wanted.height_m, rel=1e-7)


def test_nothing_wanted_gives_no_points():
    part = cloud(1, 4)
    nothing = Placed(part.geometry, part.to, part.bounds_m, np.zeros(5, bool))
    assert telling_points([nothing], 0, 0, [Slopes(1, 1, 1, 1)]).shape == (0, 3)
    assert telling_points([], 0, 0, [Slopes(1, 1, 1, 1)]).shape == (0, 3)
