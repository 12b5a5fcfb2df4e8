"""Who walks, and walk maps and routes as documents."""

from dataclasses import replace

import numpy as np
import pytest

from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from stairpath.core.walking.blocked import Blocked
from stairpath.core.walking.bodies import BODIES, NoSuchBodyError, body_named
from stairpath.core.walking.place import place_named
from stairpath.core.walking.report import global_ids, route_document, walkmap_document
from stairpath.core.walking.route import route
from stairpath.core.walking.solids import solids_of
from stairpath.core.walking.walkmap import build
from tests.samples import Sample


@pytest.fixture(scope="module")
def building():
    """A ground floor of 6 by 4 m with a table of 0.4 by 0.4 m, and 3 m above it a deck of 6 by 2 m; far from zero."""
    sample = Sample()
    sample.move_site((1000.0, 2000.0, 10.0), 0)
    ground, upper = sample.storey("Level 00", 0.0), sample.storey("Level 01", 3.0)
    sample.box(ground, (0, 0, -0.3), (6, 4, 0.3), "IfcSlab", Name="Ground")
    sample.box(ground, (1, 3, 0), (0.4, 0.4, 0.75), "IfcFurniture", Name="Table")
    sample.box(upper, (0, 0, -0.3), (6, 2, 0.3), "IfcSlab", Name="Deck")
    sample.room(ground, "0.01", "Ground", (0, 0, 0), (6, 4, 2.7))
    sample.room(upper, "1.01", "Deck", (0, 0, 0), (6, 2, 2.7))
    federation = federate([outline(read_model("T-ARC.ifc", sample.content()))])
    walk, space = build(solids_of(federation), BODIES["standing"])
    return federation, walk, space


def test_a_walk_map_says_how_much_floor_is_free_on_each_storey(building):
    federation, walk, _ = building
    document = walkmap_document(walk, federation, 1.2345)
    assert (document["body"], document["cell_m"], document["seconds"]) == ("standing", 0.1, 1.234)
    assert document["bytes"] == walk.bytes
    ground, upper = document["storeys"]
    assert (ground["name"], upper["name"]) == ("Level 00", "Level 01")
    (floor,) = ground["floors"]
    assert floor["level_m"] == pytest.approx(10.0, abs=0.001)
    # All of it but a body's breadth around the table, whose top is too small to count.
    around = 0.9**2 - (4 - np.pi) * 0.25**2
    assert floor["free_area_m2"] == pytest.approx(24 - around, abs=0.35)
    (deck,) = upper["floors"]
    assert deck == {"level_m": pytest.approx(13.0, abs=0.001), "free_area_m2": pytest.approx(12, abs=0.01)}


def test_a_route_s_document_is_in_project_coordinates(building):
    federation, walk, space = building
    one, other = (place_named(federation, walk, text) for text in ("1001.05,2001.05,10", "1005.05,2001.05,10"))
    found = route(walk, space, one, other)
    document = route_document(found, walk.axes, global_ids(federation).__getitem__)
    assert document["found"] is True
    assert document["length_m"] == 4
    assert document["time_s"] == round(4 / 1.4, 1)
    assert document["points_m"] == [[1001.05, 2001.05, 10.0], [1005.05, 2001.05, 10.0]]
    assert document["lowest"]["height_m"] == document["lowest"]["size_m"] == pytest.approx(2.7, abs=0.01)
    assert len(document["lowest"]["components"]) == 1
    assert document["narrowest"] is None
    assert document["blocked"] is None


def test_why_there_is_no_way_is_a_document_of_the_same_fields(building):
    federation, walk, space = building
    one, other = (place_named(federation, walk, text) for text in ("room:0.01", "room:1.01"))
    found = route(walk, space, one, other)
    assert isinstance(found, Blocked)
    document = route_document(found, walk.axes, global_ids(federation).__getitem__)
    same = route_document(route(walk, space, one, one), walk.axes, global_ids(federation).__getitem__)
    assert set(document) == set(same)
    assert (document["found"], document["points_m"], document["length_m"]) == (False, [], None)
    assert document["blocked"]["kind"] == "gap"
    assert document["blocked"]["nearest_m"][0] > 999


def test_bodies_are_those_of_people_and_trolleys():
    assert body_named("wheelchair") is BODIES["wheelchair"]
    assert not BODIES["wheelchair"].climbs
    assert BODIES["wheelchair"].shoulder_m == BODIES["wheelchair"].height_m
    assert BODIES["standing"].climbs
    assert BODIES["standing"].shoulder_m == pytest.approx(1.5)
    with pytest.raises(NoSuchBodyError, match="giant is not a body; give standing, stooping, trolley or wheelchair"):
        body_named("giant")


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"radius_m": 0.01}, "A radius of 0.01 m is no body's"),
        ({"radius_m": 2}, "give 0.05 to 1.5 m"),
        ({"height_m": 0.2}, "A height of 0.2 m is no body's"),
        ({"height_m": 5}, "give 0.3 to 4 m"),
        ({"step_up_m": -0.1}, "zero or more"),
        ({"slope": -1}, "zero or more"),
        ({"speed_m_s": 0}, "above zero"),
    ],
)
def test_a_body_that_cannot_be_is_refused(change, words):
    good = BODIES["standing"]
    with pytest.raises(ValueError, match=words):
        replace(good, **change)
