"""The demo's planted problems are found with their numbers."""

import numpy as np
import pytest

from stairpath.core.federation.placed import all_placed
from stairpath.core.measuring.distance import between
from stairpath.core.measuring.exclusions import kin_of
from stairpath.core.measuring.interference import interference
from stairpath.core.measuring.sweeps import swept_by_doors
from stairpath.core.measuring.things import Things
from stairpath.demo import air, electrical


class Asked:
    """The demo, asked by tags."""

    def __init__(self, demo, readings) -> None:
        self.components = [c for r in readings for c in r.components]
        self.kin = kin_of(readings)
        about = np.array(demo.origin_m)
        self.things = Things(all_placed(demo), about)
        self.swept = Things(all_placed(demo), about, swept_by_doors(demo, about))

    def tagged(self, *tags):
        return np.array([c.tag.startswith(tags) for c in self.components])

    def of_class(self, *stems):
        return np.array([c.ifc_class.startswith(stems) for c in self.components])

    def tag(self, number):
        return self.components[number].tag


@pytest.fixture(scope="module")
def asked(demo, demo_readings):
    return Asked(demo, demo_readings)


def test_the_duct_through_the_beam(asked):
    found = interference(asked.things, asked.kin, asked.tagged(air.PLANTED_DUCT), asked.of_class("IfcBeam"))
    (pair,) = [p for p in found.pairs if p.left_out is None]
    assert asked.tag(pair.b).startswith("B-")
    assert pair.depth_m == pytest.approx(0.24, abs=0.005)
    assert (pair.volume_m3 or 0) > 0


def test_the_tray_beside_the_branch(asked):
    trays, pipes = asked.tagged("CT-2"), asked.tagged("SP-2")
    found = interference(asked.things, asked.kin, trays, pipes, clearance_m=0.02)
    near = [p for p in found.pairs if p.kind == "clearance" and p.left_out is None]
    assert [p.distance_m for p in near] == [pytest.approx(0.012, abs=1e-5)]


def test_the_socket_behind_the_cabinet(asked):
    socket, cabinets = asked.tagged(electrical.HIDDEN_SOCKET), asked.tagged("CB-")
    found = interference(asked.things, asked.kin, socket, cabinets, clearance_m=0.03)
    (pair,) = [p for p in found.pairs if p.kind == "clearance"]
    near = between(asked.things.body(pair.a), asked.things.body(pair.b))
    assert near.distance_m == pytest.approx(pair.distance_m)
    assert pair.distance_m < 0.03


def test_the_door_that_swings_against_the_column(asked):
    doors, columns = asked.of_class("IfcDoor"), asked.of_class("IfcColumn")
    still = interference(asked.things, asked.kin, doors, columns)
    assert [p for p in still.pairs if p.left_out is None] == []
    swung = interference(asked.swept, asked.kin, doors, columns)
    (pair,) = [p for p in swung.pairs if p.left_out is None]
    assert asked.tag(pair.b) == "C-C6"
    # The open leaf reaches 30 mm into the column.
    assert pair.depth_m == pytest.approx(0.03, abs=0.005)
