"""Who works on the demo: made-up people with their firms, disciplines and roles."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.people.roles import Role
from stairpath.demo.review import AIR, ARCHITECT, COORDINATOR, ELECTRICAL, FIRE, FITOUT, STRUCTURE, WATER


@dataclass(frozen=True)
class DemoPerson:
    """Somebody of the demo: by what they sign in, their name, firm and discipline's code, and what they may in its project."""

    key: str
    name: str
    firm: str
    discipline: str
    role: Role


PEOPLE = (
    DemoPerson("mara", COORDINATOR, "Quillhaven Harbour Works", "", "own"),
    DemoPerson("lio", ARCHITECT, "Marsh and Tern", "ARC", "coordinate"),
    DemoPerson("ida", STRUCTURE, "Fenn Structures", "STR", "coordinate"),
    DemoPerson("tam", AIR, "Kerr Air", "AIR", "comment"),
    DemoPerson("joss", WATER, "Penrow Pipework", "WTR", "comment"),
    DemoPerson("wren", ELECTRICAL, "Sallow Electric", "ELE", "comment"),
    DemoPerson("bea", FIRE, "Thorne Fire Safety", "FIR", "comment"),
    DemoPerson("corin", FITOUT, "Ash Joinery", "FIT", "comment"),
    DemoPerson("nell", "Nell Hythe", "Quillhaven Aquarium", "", "look"),
)
"""The first runs the server, as who starts the demo does."""
