"""Which discipline a component belongs to: by the file name's code, else by class and system."""

from __future__ import annotations

import re
from dataclasses import dataclass


@dataclass(frozen=True)
class Discipline:
    """A discipline: its code, its name, and its colour on screen (always shown with the code)."""

    code: str
    name: str
    colour: str


DISCIPLINES: tuple[Discipline, ...] = (
    Discipline("ARC", "Architecture", "#5f676e"),
    Discipline("STR", "Structure", "#7a5fa8"),
    Discipline("AIR", "Air", "#3f83c2"),
    Discipline("WTR", "Water", "#16907f"),
    Discipline("ELE", "Electrical", "#b98a00"),
    Discipline("FIR", "Fire protection", "#b8482c"),
    Discipline("FIT", "Fit-out", "#8a6242"),
    Discipline("OTH", "Other", "#9a948a"),
)
CODES: tuple[str, ...] = tuple(d.code for d in DISCIPLINES)

_FILE_CODES: dict[str, str] = {
    **{code: code for code in CODES if code != "OTH"},
    "AR": "ARC", "ARCH": "ARC", "ARCHITECTURE": "ARC",
    "ST": "STR", "STRUCT": "STR", "STRUCTURE": "STR", "STRUCTURAL": "STR",
    "HVAC": "AIR", "VENT": "AIR", "VENTILATION": "AIR", "MECH": "AIR", "ME": "AIR",
    "PLB": "WTR", "PLUMBING": "WTR", "WATER": "WTR", "SAN": "WTR",
    "EL": "ELE", "ELEC": "ELE", "ELECTRICAL": "ELE",
    "FP": "FIR", "FIRE": "FIR", "SPR": "FIR", "SPRINKLER": "FIR",
    "FF": "FIT", "FITOUT": "FIT", "INT": "FIT", "FURNITURE": "FIT",
}  # fmt: skip

_CLASS_STEMS: tuple[tuple[str, str], ...] = (
    ("IfcDuct", "AIR"), ("IfcAir", "AIR"), ("IfcFan", "AIR"), ("IfcDamper", "AIR"), ("IfcUnitaryEquipment", "AIR"),
    ("IfcFireSuppression", "FIR"), ("IfcAlarm", "FIR"), ("IfcSensor", "FIR"),
    ("IfcPipe", "WTR"), ("IfcPump", "WTR"), ("IfcValve", "WTR"), ("IfcSanitary", "WTR"), ("IfcWasteTerminal", "WTR"),
    ("IfcFilter", "WTR"), ("IfcTank", "WTR"),
    ("IfcCable", "ELE"), ("IfcElectric", "ELE"), ("IfcLight", "ELE"), ("IfcLamp", "ELE"), ("IfcOutlet", "ELE"),
    ("IfcSwitching", "ELE"), ("IfcJunctionBox", "ELE"), ("IfcProtective", "ELE"),
    ("IfcFurn", "FIT"), ("IfcSystemFurniture", "FIT"),
    ("IfcBeam", "STR"), ("IfcColumn", "STR"), ("IfcFooting", "STR"), ("IfcPile", "STR"), ("IfcReinforcing", "STR"),
    ("IfcTendon", "STR"), ("IfcMember", "STR"), ("IfcPlate", "STR"),
    ("IfcWall", "ARC"), ("IfcSlab", "ARC"), ("IfcRoof", "ARC"), ("IfcDoor", "ARC"), ("IfcWindow", "ARC"),
    ("IfcStair", "ARC"), ("IfcRamp", "ARC"), ("IfcRailing", "ARC"), ("IfcCovering", "ARC"), ("IfcCurtainWall", "ARC"),
    ("IfcTransport", "ARC"),
)  # fmt: skip

_SYSTEM_WORDS: tuple[tuple[str, str], ...] = (
    ("sprinkl", "FIR"), ("hose", "FIR"), ("fire", "FIR"),
    ("air", "AIR"), ("vent", "AIR"), ("exhaust", "AIR"),
    ("light", "ELE"), ("power", "ELE"), ("electr", "ELE"), ("data", "ELE"),
    ("water", "WTR"), ("waste", "WTR"), ("drain", "WTR"), ("heating", "WTR"),
)  # fmt: skip


def by_file_name(name: str) -> str | None:
    """The discipline whose code stands in a file's name, between signs: ``QH-STR-ZZ`` is STR."""
    for token in re.split(r"[^A-Za-z]+", name):
        code = _FILE_CODES.get(token.upper())
        if code:
            return code
    return None


def by_class_and_system(ifc_class: str, type_class: str, systems: tuple[str, ...]) -> str:
    """The discipline of a component in a file whose name does not say."""
    for cls in (ifc_class, type_class):
        for stem, code in _CLASS_STEMS:
            if cls.startswith(stem):
                # Pipes serve water and fire alike; the system decides.
                if code == "WTR" and _by_system(systems) == "FIR":
                    return "FIR"
                return code
    return _by_system(systems) or "OTH"


def _by_system(systems: tuple[str, ...]) -> str | None:
    for system in systems:
        for word, code in _SYSTEM_WORDS:
            if word in system.casefold():
                return code
    return None
