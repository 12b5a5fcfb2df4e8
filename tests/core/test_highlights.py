"""Colours of what is picked: measured against published differences, and offered only where they stand out."""

import pytest

from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.visibility.colours import base_colour
from stairpath.core.visibility.highlights import FAR_ENOUGH, HOVERED, OFFERED, PICKED, check, difference

CLASSES = (
    "IfcSlab IfcWall IfcDoor IfcWindow IfcCovering IfcStairFlight IfcRailing IfcRoof IfcPlate",
    "IfcSlab IfcColumn IfcBeam IfcWall IfcFooting",
    "IfcFlowSegment IfcFlowTerminal",
    "IfcFlowSegment IfcTank",
    "IfcCableCarrierSegment IfcLightFixture IfcOutlet",
    "IfcFlowSegment IfcFlowTerminal",
    "IfcFurniture",
)
BACKGROUNDS = ("#f3f1ec", "#b9bdbf", "#2b3640")


def test_a_difference_is_that_of_the_standard():
    # Black and white are 100 apart, a colour and itself nothing.
    assert difference("#000000", "#ffffff") == pytest.approx(100, abs=0.01)
    assert difference("#e08a1e", "#e08a1e") == 0


def test_red_and_green_are_alike_for_who_lacks_a_cone():
    red, green = "#b5502d", "#7d7a1e"
    assert difference(red, green) > 20
    assert difference(red, green, "deutan") < difference(red, green) / 2
    assert check(red, [green]).vision in ("protan", "deutan")


def test_a_colour_of_the_model_does_not_stand_out_from_it():
    air = next(d.colour for d in DISCIPLINES if d.code == "AIR")
    found = check("#4186c5", ["#ffffff", air])
    assert (found.nearest, found.stands_out) == (air, False)
    assert found.says.startswith("Looks much like another colour here")
    assert check("#000000", ["#ffffff"]).says == "Stands out from every colour here."


BUILDING = sorted({base_colour(i, c) for i, classes in enumerate(CLASSES) for c in classes.split()})


@pytest.mark.parametrize("background", BACKGROUNDS)
def test_what_is_offered_stands_out_from_every_background(background):
    for colour in OFFERED:
        assert difference(colour, background) >= FAR_ENOUGH, colour


def test_all_but_the_colour_of_what_is_picked_stand_out_from_a_building_whatever_one_sees():
    for colour in OFFERED[1:]:
        assert check(colour, BUILDING).stands_out, check(colour, BUILDING)


def test_the_own_two_stand_out_from_every_trade_in_common_vision():
    for colour in (PICKED, HOVERED):
        for trade in DISCIPLINES:
            assert difference(colour, trade.colour) >= FAR_ENOUGH, (colour, trade)
    assert difference(PICKED, HOVERED) > 40
