"""The colour a component is drawn in: its discipline's, toned by what it is."""

from __future__ import annotations

from stairpath.core.federation.disciplines import DISCIPLINES

Rgb = tuple[int, int, int]
_PAPER: Rgb = (250, 248, 244)
_INK: Rgb = (30, 43, 54)

# How far a class is mixed towards paper (above zero) or ink (below), so that large faces stay
# calm and small parts readable.
_TONE: dict[str, float] = {
    "IfcSlab": 0.55, "IfcCovering": 0.72, "IfcWall": 0.62, "IfcWallStandardCase": 0.62, "IfcRoof": 0.4,
    "IfcFooting": 0.5, "IfcColumn": 0.2, "IfcBeam": 0.26, "IfcStairFlight": 0.45, "IfcRampFlight": 0.45,
    "IfcDoor": -0.05, "IfcWindow": 0.2, "IfcPlate": 0.5, "IfcMember": 0.05, "IfcRailing": -0.1,
    "IfcFurniture": 0.35, "IfcFurnishingElement": 0.35, "IfcTank": 0.3, "IfcLightFixture": 0.55,
    "IfcFlowTerminal": 0.35, "IfcAirTerminal": 0.35, "IfcOutlet": 0.3, "IfcCableCarrierSegment": 0.12,
}  # fmt: skip
_DEFAULT_TONE = 0.1
_WARM: Rgb = (176, 158, 128)
_STONE: Rgb = (150, 146, 142)
_LARGE = {"IfcSlab", "IfcWall", "IfcWallStandardCase", "IfcRoof", "IfcFooting"}
"""Faces that fill the view, and are not what is worked on."""


def _rgb(colour: str) -> Rgb:
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def _mix(a: Rgb, b: Rgb, share: float) -> Rgb:
    return (
        round(a[0] + (b[0] - a[0]) * share),
        round(a[1] + (b[1] - a[1]) * share),
        round(a[2] + (b[2] - a[2]) * share),
    )


def base_colour(discipline: int, ifc_class: str) -> str:
    """``#rrggbb`` of a component; architecture's large faces lean towards warm paper, those of others towards stone."""
    known = DISCIPLINES[discipline]
    tone = _TONE.get(ifc_class, _DEFAULT_TONE)
    colour = _rgb(known.colour)
    if known.code == "ARC" and tone > 0.3:
        colour = _mix(colour, _WARM, 0.6)
    elif ifc_class in _LARGE:
        colour = _mix(colour, _STONE, 0.68)
    mixed = _mix(colour, _PAPER if tone > 0 else _INK, abs(tone))
    return f"#{mixed[0]:02x}{mixed[1]:02x}{mixed[2]:02x}"
