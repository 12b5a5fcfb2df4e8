"""How components are named for good."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.limits import GlobalId, Key


@dataclass(frozen=True)
class ComponentRef:
    """A component, or a room, by its model and its GlobalId, which newer issues keep."""

    model: Key
    global_id: GlobalId


@dataclass(frozen=True)
class NamedComponent:
    """A component with what one calls it and the discipline and name of its model."""

    model: str
    model_name: str
    discipline: str | None
    global_id: str
    label: str
