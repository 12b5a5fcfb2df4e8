"""Reading one model file."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from pathlib import Path, PurePath
from typing import Any

import numpy as np

from stairpath.core.problems import CannotReadError, Problem
from stairpath.core.reading import frame
from stairpath.core.reading.intake import SCHEMAS
from stairpath.core.reading.mend import open_step
from stairpath.core.reading.model import Component, Geometry, ModelReading, Space
from stairpath.core.reading.relations import Relations, SetReader, clean, gather
from stairpath.core.reading.shapes import is_represented, read_geometry
from stairpath.core.reading.units import units
from stairpath.core.reading.validate import without_far
from stairpath.core.sandbox import Progress

LONGEST_SILENCE_S = 180.0
"""How long one component may take at most before it is left out."""


def _text(value: Any) -> str:
    return "" if value is None else clean(value)


def _global_id(entity: Any) -> str:
    """Its GlobalId; where it has none, one that names its place in the file."""
    try:
        return clean(entity.GlobalId or "") or f"no-id-{entity.id()}"
    except Exception:  # an attribute of another type than the schema says
        return f"no-id-{entity.id()}"


def _storey_of(entity: Any, relations: Relations) -> str | None:
    """The storey a component belongs to, through its wholes, its host and its room."""
    seen: set[int] = set()
    at: Any = entity
    while at is not None and at.id() not in seen:
        if at.is_a("IfcBuildingStorey"):
            return _global_id(at)
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
        global_id=_global_id(entity),
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
        part_of=_global_id(whole) if whole is not None and whole.is_a("IfcElement") else "",
        hosted_in=_global_id(host) if host is not None else "",
        connected=tuple(dict.fromkeys(_global_id(other) for other in relations.connected.get(key, ()))),
        properties=properties,
        quantities=quantities,
    )


def _components(
    entities: Sequence[Any], relations: Relations, reader: SetReader
) -> tuple[list[Component], list[str], list[str]]:
    """All components, the GlobalIds that several have, and the components of which not all could be read."""
    components: list[Component] = []
    broken: list[str] = []
    for entity in entities:
        try:
            components.append(_component(entity, relations, reader))
        except Exception:  # what is wrong with one entity is not wrong with its file
            components.append(Component(_global_id(entity), str(entity.is_a())))
            broken.append(components[-1].global_id)
    counts = Counter(c.global_id for c in components)
    repeated = [global_id for global_id, count in counts.items() if count > 1]
    seen: Counter[str] = Counter()
    for component in components:
        if counts[component.global_id] > 1:
            seen[component.global_id] += 1
            if seen[component.global_id] > 1:
                component.global_id = f"{component.global_id}~{seen[component.global_id]}"
    return components, repeated, broken


def _spaces(entities: Sequence[Any], relations: Relations) -> tuple[Space, ...]:
    found = []
    for entity in entities:
        try:
            name, long_name = _text(entity.Name), _text(entity.LongName)
        except Exception:
            name = long_name = ""
        found.append(Space(_global_id(entity), name, long_name or name, _storey_of(entity, relations)))
    return tuple(found)


def _about(code: str, components: Sequence[str], one: str, many: str) -> list[Problem]:
    """A problem about components, in the singular or plural; none about none."""
    if not components:
        return []
    text = one if len(components) == 1 else many.format(count=len(components))
    return [Problem(code, text, tuple(components))]


def _shape_problems(
    entities: Sequence[Any], components: Sequence[Component], geometry: Geometry, relations: Relations,
    left_out: dict[int, str], unsound: frozenset[int],
) -> list[Problem]:  # fmt: skip
    shaped = set(geometry.owner[geometry.owner >= 0].tolist())
    left = [components[owner].global_id for owner in sorted(left_out) if owner >= 0]
    why = next((left_out[owner] for owner in sorted(left_out) if owner >= 0), "")
    odd = [components[owner].global_id for owner in sorted(unsound) if owner >= 0]
    broken, empty = [], []
    for ordinal, (entity, component) in enumerate(zip(entities, components, strict=True)):
        if ordinal in shaped or ordinal in left_out or ordinal in unsound:
            continue
        if is_represented(entity):
            broken.append(component.global_id)
        elif not relations.parts.get(entity.id()):
            empty.append(component.global_id)
    return [
        *_about(
            "left-out",
            left,
            f"The shape of one component was left out: {why}. It is listed without one.",
            f"The shapes of {{count}} components were left out; of the first: {why}. They are listed without one.",
        ),
        *_about(
            "coordinates",
            odd,
            "One component has coordinates that are no numbers or over 100 km away; that part of it is left out.",
            "{count} components have coordinates that are no numbers or over 100 km away; those parts are left out.",
        ),
        *_about(
            "broken-geometry",
            broken,
            "The shape of one component could not be made; it is listed without one.",
            "The shapes of {count} components could not be made; they are listed without one.",
        ),
        *_about(
            "no-geometry",
            empty,
            "One component has no shape in the file; it is listed without one.",
            "{count} components have no shape in the file; they are listed without one.",
        ),
    ]


def _listing_problems(
    components: Sequence[Component], relations: Relations, repeated: Sequence[str], broken: Sequence[str]
) -> list[Problem]:
    found = [
        *_about(
            "duplicate-global-id",
            repeated,
            "One GlobalId is used by more than one component; both are kept, the later ones with a suffix.",
            "{count} GlobalIds are used by more than one component; all are kept, the later ones with a suffix.",
        ),
        *_about(
            "broken-component",
            broken,
            "What the file says of one component could not be read; it is listed by its GlobalId.",
            "What the file says of {count} components could not be read; they are listed by their GlobalIds.",
        ),
        *_about(
            "no-storey",
            [c.global_id for c in components if c.storey is None],
            "One component is on no storey; it is shown under No level.",
            "{count} components are on no storey; they are shown under No level.",
        ),
    ]
    if relations.broken:
        count = relations.broken
        which = "One relation of the file" if count == 1 else f"{count} relations of the file"
        found.append(Problem("broken-relation", f"{which} could not be followed; what it says is missing."))
    return found


def _open(name: str, source: bytes | Path) -> tuple[Any, list[Problem]]:
    try:
        opened = open_step(source)
        schema = str(opened.ifc.schema)
    except Exception as error:
        raise CannotReadError(f"{name} cannot be parsed as IFC; export it again from the design program.") from error
    if not schema.startswith(SCHEMAS):
        raise CannotReadError(f"{name} is written in {schema}; export it as IFC2X3, IFC4 or IFC4X3.")
    if not opened.ifc.by_type("IfcProject"):
        raise CannotReadError(f"{name} holds no project; export it again from the design program.")
    if not opened.left_out:
        return opened.ifc, []
    which = ", ".join(f"#{number}" for number in opened.left_out[:3])
    count = len(opened.left_out)
    others = " and others" if count > 3 else ""
    if count == 1:
        text = f"One statement of the file is no STEP ({which}) and left out; what it says is missing."
    else:
        text = f"{count} statements of the file are no STEP ({which}{others}) and left out; what they say is missing."
    return opened.ifc, [Problem("broken-statement", text)]


def read_model(
    name: str,
    source: bytes | Path,
    on_progress: Progress | None = None,
    longest_silence_s: float = LONGEST_SILENCE_S,
) -> ModelReading:
    """Read one IFC file, given as its name and its bytes or where it lies.

    Duplicated GlobalIds, components on no storey, without or with broken geometry, with coordinates that
    cannot be, and those at which the geometry kernel crashes or takes longer than ``longest_silence_s`` are kept
    and reported. Raises CannotReadError.
    """
    progress: Progress = on_progress or (lambda share, global_id: None)
    progress(0.0, "")
    ifc, opening_problems = _open(name, source)
    length_unit, scales = units(ifc)
    relations = gather(ifc)

    elements = (e for e in ifc.by_type("IfcElement") if not e.is_a("IfcFeatureElement"))
    entities = sorted(elements, key=lambda entity: int(entity.id()))  # in the order of the file
    components, repeated, broken = _components(entities, relations, SetReader(scales))
    space_entities = list(ifc.by_type("IfcSpace"))
    spaces = _spaces(space_entities, relations)
    progress(0.1, "")
    walked, left_out = read_geometry(
        ifc,
        entities,
        space_entities,
        lambda share, global_id: progress(0.1 + 0.9 * share, global_id),
        longest_silence_s,
    )
    geometry, far = without_far(walked.geometry)
    drawn, drawing_problems = frame.drawing(ifc, scales.length)
    problems = [
        *opening_problems,
        *_listing_problems(components, relations, repeated, broken),
        *_shape_problems(entities, components, geometry, relations, left_out, walked.unsound | far),
        *drawing_problems,
    ]
    return ModelReading(
        name=PurePath(name).stem,
        schema=str(ifc.schema_identifier if hasattr(ifc, "schema_identifier") else ifc.schema),
        length_unit=length_unit,
        storeys=drawn.storeys,
        spaces=spaces,
        grid_axes=drawn.grid_axes,
        map_conversion=drawn.map_conversion,
        true_north=drawn.true_north,
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
