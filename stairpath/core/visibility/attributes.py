"""What of a component can be asked besides its properties: one line for each, from which all lists follow."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

What = Literal[
    "level", "room", "discipline", "model", "class", "type", "system", "material", "name", "tag", "global_id"
]  # fmt: skip
WHATS: tuple[What, ...] = get_args(What)


@dataclass(frozen=True)
class Attribute:
    """An attribute as people read it, and where it is offered.

    ``groups`` says whether many components share a value, so that one groups by it and asks what is common; ``listed``
    whether its values are offered to choose from; ``weight`` how much a found text of it counts, None where it says
    where something is rather than what.
    """

    label: str
    plural: str
    groups: bool = True
    listed: bool = False
    weight: float | None = None


ATTRIBUTES: dict[What, Attribute] = {
    "level": Attribute("Level", "levels"),
    "room": Attribute("Room", "rooms"),
    "discipline": Attribute("Discipline", "disciplines"),
    "model": Attribute("Model", "models"),
    "class": Attribute("Class", "classes", listed=True, weight=0.72),
    "type": Attribute("Type", "types", listed=True, weight=0.86),
    "system": Attribute("System", "systems", listed=True, weight=0.8),
    "material": Attribute("Material", "materials", listed=True, weight=0.74),
    "name": Attribute("Name", "names", groups=False, weight=0.96),
    "tag": Attribute("Tag", "tags", groups=False, weight=1.0),
}
GROUPING: tuple[What, ...] = tuple(what for what, each in ATTRIBUTES.items() if each.groups)
