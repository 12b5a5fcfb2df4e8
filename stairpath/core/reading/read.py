"""Reading one model file."""

from __future__ import annotations

from collections import Counter
from pathlib import PurePath
from typing import Any

import ifcopenshell
import numpy as np

from stairpath.core.problems import CannotReadError, Problem
from stairpath.core.reading import frame
from stairpath.core.reading.intake import SCHEMAS
from stairpath.core.reading.model import Component, Geometry, ModelReading, Space
from stairpath.core.reading.relations import Relations, SetReader, gather
from stairpath.core.reading.shapes import read_geometry
from stairpath.core.reading.shares import Progress


def _text(value: Any) -> str:
    return "" if value is None else str(value)


def _storey_of(entity: Any, relations: Relations) -> str | None:
    """The storey a component belongs to, through its wholes, its host and its room."""
    seen: set[int] = set()
    at: Any = entity
    while at is not None and at.id() not in seen:
        if at.is_a("IfcBuildingStorey"):
            return str(at.GlobalId)
        seen.add(at.id())
        at = relations.container.get(at.id()) or relations.whole.get(at.id()) or relations.host.get(at.id())
    return None


def _component(entity: Any, relations: Relations, reader: SetReader) -> Component:
    key = entity.id()
    kind = relations.type_of.get(key)
    definitions = list(relations.sets.get(key, ()))
    if kind is not None:
        own = {d.Name for d in definitions}
        definitions += [d for d in kind.HasPropertySets or () if d.Name not in own]
    properties, quantities = reader.sets(definitions)
    whole, host = relations.whole.get(key), relations.host.get(key)
    material = relations.material.get(key) or (relations.material.get(kind.id(), "") if kind is not None else "")
    return Component(
        global_id=str(entity.GlobalId),
        ifc_class=str(entity.is_a()),
        name=_text(entity.Name),
        tag=_text(entity.Tag),
        description=_text(entity.Description),
        type_name=_text(kind.Name) if kind is not None else _text(entity.ObjectType),
        type_class=str(kind.is_a()) if kind is not None else "",
        predefined=_text(getattr(entity, "PredefinedType", None)),
        operation=_text(getattr(entity, "OperationType", None) or getattr(kind, "OperationType", None)),
        storey=_storey_of(entity, relations),
        material=material,
        systems=tuple(relations.systems.get(key, ())),
        part_of=str(whole.GlobalId) if whole is not None and whole.is_a("IfcElement") else "",
        hosted_in=str(host.GlobalId) if host is not None else "",
        properties=properties,
        quantities=quantities,
    )


def _said(count: int, one: str, many: str) -> str:
    return one if count == 1 else many.format(count=count)


def _problems(
    entities: list[Any], components: list[Component], geometry: Geometry, relations: Relations, repeated: list[str]
) -> list[Problem]:
    found: list[Problem] = []
    if repeated:
        found.append(
            Problem(
                "duplicate-global-id",
                _said(
                    len(repeated),
                    "One GlobalId is used by more than one component; both are kept, the later ones with a suffix.",
                    "{count} GlobalIds are used by more than one component; all are kept, the later ones with a suffix.",
                ),
                tuple(repeated),
            )
        )
    homeless = tuple(c.global_id for c in components if c.storey is None)
    if homeless:
        found.append(
            Problem(
                "no-storey",
                _said(
                    len(homeless),
                    "One component is on no storey; it is shown under No level.",
                    "{count} components are on no storey; they are shown under No level.",
                ),
                homeless,
            )
        )
    shaped = set(geometry.owner[geometry.owner >= 0].tolist())
    broken, empty = [], []
    for ordinal, (entity, component) in enumerate(zip(entities, components, strict=True)):
        if ordinal in shaped:
            continue
        if entity.Representation is not None:
            broken.append(component.global_id)
        elif not relations.parts.get(entity.id()):
            empty.append(component.global_id)
    if broken:
        found.append(
            Problem(
                "broken-geometry",
                _said(
                    len(broken),
                    "The shape of one component could not be made; it is listed without one.",
                    "The shapes of {count} components could not be made; they are listed without one.",
                ),
                tuple(broken),
            )
        )
    if empty:
        found.append(
            Problem(
                "no-geometry",
                _said(
                    len(empty),
                    "One component has no shape in the file; it is listed without one.",
                    "{count} components have no shape in the file; they are listed without one.",
                ),
                tuple(empty),
            )
        )
    return found


def _open(name: str, content: bytes) -> Any:
    try:
        ifc = ifcopenshell.file.from_string(content.decode("utf-8", errors="replace"))
        schema = str(ifc.schema)
    except Exception as error:
        raise CannotReadError(f"{name} cannot be parsed as IFC; export it again from the design program.") from error
    if not schema.startswith(SCHEMAS):
        raise CannotReadError(f"{name} is written in {schema}; export it as IFC2X3, IFC4 or IFC4X3.")
    if not ifc.by_type("IfcProject"):
        raise CannotReadError(f"{name} holds no project; export it again from the design program.")
    return ifc


def read_model(name: str, content: bytes, on_progress: Progress | None = None) -> ModelReading:
    """Read one IFC file, given as its name and bytes.

    Duplicated GlobalIds, components on no storey, and components without or with broken
    geometry are kept and reported. Raises CannotReadError.
    """
    progress: Progress = on_progress or (lambda share, global_id: None)
    progress(0.0, "")
    ifc = _open(name, content)
    length_unit, scales = frame.units(ifc)
    relations = gather(ifc)
    reader = SetReader(scales)

    elements = (e for e in ifc.by_type("IfcElement") if not e.is_a("IfcFeatureElement"))
    entities = sorted(elements, key=lambda entity: int(entity.id()))  # in the order of the file
    components = [_component(entity, relations, reader) for entity in entities]
    counts = Counter(c.global_id for c in components)
    repeated = [global_id for global_id, count in counts.items() if count > 1]
    if repeated:
        seen: Counter[str] = Counter()
        for component in components:
            seen[component.global_id] += 1
            if seen[component.global_id] > 1:
                component.global_id = f"{component.global_id}~{seen[component.global_id]}"

    space_entities = list(ifc.by_type("IfcSpace"))
    spaces = tuple(
        Space(str(e.GlobalId), _text(e.Name), _text(e.LongName) or _text(e.Name), _storey_of(e, relations))
        for e in space_entities
    )
    progress(0.1, "")
    geometry = read_geometry(
        name, ifc, entities, space_entities, lambda share, global_id: progress(0.1 + 0.9 * share, global_id)
    )
    problems = _problems(entities, components, geometry, relations, repeated)
    return ModelReading(
        name=PurePath(name).stem,
        schema=str(ifc.schema_identifier if hasattr(ifc, "schema_identifier") else ifc.schema),
        length_unit=length_unit,
        storeys=frame.storeys(ifc, scales.length),
        spaces=spaces,
        grid_axes=frame.grid_axes(ifc, scales.length),
        map_conversion=frame.map_conversion(ifc, scales.length),
        true_north=frame.true_north(ifc),
        components=tuple(components),
        geometry=geometry,
        problems=tuple(problems),
    )


def own_bounds(reading: ModelReading) -> np.ndarray[tuple[int, int], np.dtype[np.float64]] | None:
    """Bounds (2, 3) of all components in the file's coordinates, None if nothing has a shape."""
    bounds = reading.geometry.bounds(len(reading.components))
    if not len(bounds) or np.isnan(bounds).all():
        return None
    return np.stack([np.nanmin(bounds[:, 0], axis=0), np.nanmax(bounds[:, 1], axis=0)])
