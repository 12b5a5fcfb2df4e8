"""The picture of a project: nearer things lie before farther ones, whatever their order."""

from io import BytesIO

import numpy as np
from PIL import Image

from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.mesh.picture import draw_picture
from stairpath.core.reading.read import read_model
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
