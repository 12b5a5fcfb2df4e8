"""Pictures without a graphics card: nearer things lie before farther ones, and a view shows what it says."""

from io import BytesIO

import numpy as np
import pytest
from PIL import Image

from stairpath.core.cutting.cuts import Cut, PlaneCut
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.picture.building import draw_picture
from stairpath.core.picture.scene import scene_of
from stairpath.core.picture.view import Dimension, draw_view
from stairpath.core.reading.read import read_model
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import Style, placed
from stairpath.core.review.view import Limits, View
from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import All
from stairpath.core.visibility.traits import federation_traits
from tests.samples import Sample

PAPER = [243, 241, 236]


def picture(*files):
    png = draw_picture(federate([outline(read_model(name, sample.content())) for name, sample in files]))
    return None if png is None else np.asarray(Image.open(BytesIO(png))).astype(int)


def box(at, size):
    sample = Sample()
    sample.box(sample.storey("Level 00", 0), at, size)
    return sample


def test_nothing_has_no_picture():
    assert picture() is None


def test_a_box_stands_in_the_middle_and_touches_no_border():
    image = picture(("a.ifc", box((0, 0, 0), (4, 4, 4))))
    assert image.shape == (300, 480, 3)
    drawn = np.abs(image - PAPER).max(axis=2) > 6
    rows, columns = np.nonzero(drawn)
    assert 0 < rows.min() < rows.max() < 299
    assert 0 < columns.min() < columns.max() < 479
    assert abs((columns.min() + columns.max()) / 2 - 240) < 12
    assert drawn.mean() > 0.2


def test_the_order_of_files_does_not_show():
    near, far = box((0, -6, 0), (4, 1, 4)), box((0, 6, 0), (4, 1, 4))
    one = picture(("x-STR.ifc", near), ("x-AIR.ifc", far))
    other = picture(("x-AIR.ifc", far), ("x-STR.ifc", near))
    assert (np.abs(one - other).max(axis=2) > 8).mean() < 0.002


def test_an_alternative_that_does_not_stand_is_not_drawn():
    alone = picture(("s-ALT-A.ifc", box((0, 0, 0), (4, 4, 4))))
    both = picture(("s-ALT-A.ifc", box((0, 0, 0), (4, 4, 4))), ("s-ALT-B.ifc", box((0, 0, 0), (4, 4, 4))))
    assert np.array_equal(alone, both)


def looking(eye, target, projection="perspective", angle_deg=60.0, height_m=6.0):
    return Eye(eye, target, (0.0, 0.0, 1.0), projection, angle_deg, height_m)


def drawn_view(sample, view, size=(120, 80), name="x-STR.ifc", measured=()):
    reading = read_model(name, sample.content())
    building = federate([outline(reading)])
    seen = draw_view(scene_of(building.models), federation_traits(building, [reading]), view, size, measured)
    return np.asarray(seen).astype(int)


def is_paper(image):
    return np.abs(image - PAPER).max(axis=2) <= 6


CUBE = box((0, 0, 0), (4, 4, 4))
BEFORE = looking((2.0, -10.0, 2.0), (2.0, 0.0, 2.0))


def test_a_view_shows_what_its_rules_show():
    whole = drawn_view(CUBE, View(BEFORE))
    assert not is_paper(whole)[40, 60]
    assert is_paper(drawn_view(CUBE, View(BEFORE, rules=(Rule(All(), "hide"),)))).all()
    red = drawn_view(CUBE, View(BEFORE, rules=(Rule(All(), "tint", "#c00000"),)))[40, 60]
    assert red[0] > 3 * red[1]
    faded = drawn_view(CUBE, View(BEFORE, rules=(Rule(All(), "fade"),)))[40, 60]
    assert np.abs(faded - PAPER).max() < np.abs(whole[40, 60] - PAPER).max() / 2


def test_a_cut_takes_away_what_is_beyond_it_and_shows_what_is_cut_open():
    cut = Cut("a", PlaneCut((0.0, 0.0, 2.0), (0.0, 0.0, 1.0)))
    image = drawn_view(CUBE, View(looking((2.0, -10.0, 8.0), (2.0, 2.0, 1.0)), cuts=(cut,)))
    whole = drawn_view(CUBE, View(looking((2.0, -10.0, 8.0), (2.0, 2.0, 1.0))))
    assert is_paper(image).sum() > is_paper(whole).sum()
    # From above one looks into the box: its inner faces are dark.
    rows, columns = np.nonzero(~is_paper(image))
    upper = image[rows.min() + 3, int(np.median(columns[rows == rows.min() + 3]))]
    assert upper.sum() < whole[40, 60].sum()
    aside = Cut("a", PlaneCut((0.0, 0.0, 2.0), (0.0, 0.0, 1.0)), off=True)
    assert (drawn_view(CUBE, View(BEFORE, cuts=(aside,))) == drawn_view(CUBE, View(BEFORE))).all()


def test_what_stands_across_the_eye_is_drawn_as_far_as_it_is_before_it():
    # The floor runs from far behind the eye to far before it.
    floor = box((-20, -20, -0.3), (40, 40, 0.3))
    image = drawn_view(floor, View(looking((0.0, 0.0, 1.6), (0.0, 5.0, 1.6))))
    paper = is_paper(image)
    assert paper[:30].all()
    assert not paper[-20:].any()


def test_nearer_and_farther_than_is_seen_is_left_out():
    both = Sample()
    storey = both.storey("Level 00", 0)
    both.box(storey, (0, 0, 0), (4, 0.2, 4))
    both.box(storey, (-20, 20, -20), (40, 0.2, 40))
    near = View(BEFORE, limits=Limits(0.0, 5.0))
    assert is_paper(drawn_view(both, near))[2, 2]
    assert not is_paper(drawn_view(both, View(BEFORE)))[2, 2]
    beyond = drawn_view(both, View(BEFORE, limits=Limits(12.0, None)))
    assert not is_paper(beyond)[40, 60]


def test_a_parallel_view_is_as_high_as_it_says():
    image = drawn_view(CUBE, View(looking((2.0, -10.0, 2.0), (2.0, 0.0, 2.0), "parallel", height_m=8.0)))
    rows, columns = np.nonzero(~is_paper(image))
    assert rows.max() - rows.min() + 1 == pytest.approx(40, abs=1)
    assert columns.max() - columns.min() + 1 == pytest.approx(40, abs=1)


def test_markups_lie_over_what_is_seen():
    mark = placed("m", "rectangle", [(-0.6, -0.6), (0.6, 0.6)], (2.0, 0.0, 2.0), BEFORE, 1.5, Style("plum", 6.0))
    words = placed("t", "text", [(0.0, 0.0)], (2.0, 0.0, 2.0), BEFORE, 1.5, text="Here")
    plain = drawn_view(CUBE, View(BEFORE), (300, 200))
    marked = drawn_view(CUBE, View(BEFORE, markups=(mark, words)), (300, 200))
    rows, columns = np.nonzero(np.abs(marked - plain).max(axis=2) > 20)
    assert columns.min() == pytest.approx(60, abs=6)
    assert columns.max() == pytest.approx(240, abs=6)
    assert ((rows > 90) & (rows < 120) & (columns > 120) & (columns < 180)).any()


def test_what_was_measured_is_drawn_with_its_figure():
    across, size = np.array([[0.0, 0.0, 2.0], [4.0, 0.0, 2.0]]), (600, 400)
    plain = drawn_view(CUBE, View(BEFORE), size)

    def changed(*measured):
        return np.abs(drawn_view(CUBE, View(BEFORE), size, measured=measured) - plain).max(axis=2) > 20

    thin, bearing = changed(Dimension(across)), changed(Dimension(across, "4.000 m"))
    rows, columns = np.nonzero(thin)
    # From one side of the cube to the other, at half its height.
    left, right = columns.min(), columns.max()
    assert left == pytest.approx(np.nonzero(~is_paper(plain))[1].min(), abs=4)
    assert rows.min() >= 197
    assert rows.max() <= 203
    # Its figure is at its middle, and a stroke at either end.
    assert bearing[190:196, 270:330].any()
    for x in (left, right):
        assert bearing[:, x - 8 : x + 9].sum() > thin[:, x - 8 : x + 9].sum() + 10
    assert not changed(Dimension(across - [0, 20, 0], "behind the eye")).any()


def test_of_faces_in_one_plane_the_first_is_seen_everywhere():
    two = Sample()
    storey = two.storey("Level 00", 0)
    two.box(storey, (0, 0, 0), (4, 4, 4), "IfcWall")
    two.box(storey, (0, 0, 0), (4, 4, 4), "IfcCovering")
    image = drawn_view(two, View(BEFORE))
    inside = image[30:50, 50:70].reshape(-1, 3)
    assert (inside == inside[0]).all()
