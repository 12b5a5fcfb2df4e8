"""Shapes of a model file: boxes, prisms, rods and sweeps, with the material they are made of."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any

import ifcopenshell

Point = Sequence[float]
Items = list[Any]

FEET_M = 0.3048


@dataclass(frozen=True)
class Stuff:
    """A material with the colour and transparency its surfaces are given."""

    name: str
    rgb: tuple[float, float, float]
    transparency: float = 0.0


SMALL_ROD_M = 0.05
_SIDES = 8


def _polygon(radius: float) -> list[tuple[float, float]]:
    step = 2 * math.pi / _SIDES
    return [(radius * math.cos((i + 0.5) * step), radius * math.sin((i + 0.5) * step)) for i in range(_SIDES)]


def rod_side_m(radius: float) -> float:
    """How far the sides of a rod lie from its axis, as it is drawn: those of a thin one are flat."""
    return radius * math.cos(math.pi / _SIDES) if radius < SMALL_ROD_M else radius


class Forms:
    """Makes shapes in metres, written in the file's own unit."""

    body: Any
    _z: Any

    def __init__(self, schema: str, unit: str) -> None:
        self.schema = schema
        self.scale = {"m": 1.0, "mm": 1000.0, "ft": 1.0 / FEET_M}[unit]
        self.ifc = ifcopenshell.file(schema=schema)
        self._styles: dict[str, Any] = {}
        self._maps: dict[str, Any] = {}

    def make(self, cls: str, *args: Any, **kwargs: Any) -> Any:
        return self.ifc.create_entity(cls, *args, **kwargs)

    def point(self, at: Point) -> Any:
        return self.make("IfcCartesianPoint", tuple(float(c) * self.scale for c in at))

    def _length(self, metres: float) -> float:
        return float(metres) * self.scale

    def _axes(self, at: Point, turn_deg: float = 0.0, axis: Point | None = None, x: Point | None = None) -> Any:
        if axis is None and turn_deg:
            turn = math.radians(turn_deg)
            return self.make(
                "IfcAxis2Placement3D",
                self.point(at),
                self._z,
                self.make("IfcDirection", (math.cos(turn), math.sin(turn), 0.0)),
            )
        if axis is None:
            return self.make("IfcAxis2Placement3D", self.point(at))
        return self.make(
            "IfcAxis2Placement3D",
            self.point(at),
            self.make("IfcDirection", tuple(map(float, axis))),
            self.make("IfcDirection", tuple(map(float, x or (1, 0, 0)))),
        )

    def _local(self, parent: Any, at: Point, turn_deg: float = 0.0) -> Any:
        return self.make("IfcLocalPlacement", parent, self._axes(at, turn_deg))

    def _extrude(self, profile: Any, depth: float, at: Point, axis: Point | None, x: Point | None) -> Any:
        return self.make(
            "IfcExtrudedAreaSolid",
            profile,
            self._axes(at, axis=axis, x=x),
            self._z,
            self._length(depth),
        )

    def _flat(self) -> Any:
        return self.make("IfcAxis2Placement2D", self.make("IfcCartesianPoint", (0.0, 0.0)))

    def box(self, at: Point, size: Point) -> Any:
        """A box from its lowest corner."""
        profile = self.make(
            "IfcRectangleProfileDef", "AREA", None, self._flat(), self._length(size[0]), self._length(size[1])
        )
        base = (at[0] + size[0] / 2, at[1] + size[1] / 2, at[2])
        return self._extrude(profile, size[2], base, None, None)

    def _outline(self, points: Iterable[Point]) -> Any:
        made = [self.point(p) for p in points]
        return self.make("IfcPolyline", [*made, made[0]])

    def prism(
        self,
        outline: Iterable[Point],
        depth: float,
        at: Point = (0, 0, 0),
        holes: Sequence[Iterable[Point]] = (),
        axis: Point | None = None,
        x: Point | None = None,
    ) -> Any:
        """A flat outline, with holes if any, pushed ``depth`` along its normal."""
        curve = self._outline(outline)
        if holes:
            profile = self.make(
                "IfcArbitraryProfileDefWithVoids", "AREA", None, curve, [self._outline(h) for h in holes]
            )
        else:
            profile = self.make("IfcArbitraryClosedProfileDef", "AREA", None, curve)
        return self._extrude(profile, depth, at, axis, x)

    def rod(self, at: Point, axis: Point, length: float, radius: float, wall: float | None = None) -> Any:
        """A straight round bar or, with a wall thickness, a tube; thin ones are drawn eight-sided."""
        x = (0, 0, 1) if abs(axis[2]) < 0.9 else (1, 0, 0)
        if radius < SMALL_ROD_M:
            return self.prism(_polygon(radius), length, at, [_polygon(radius - wall)] if wall else (), axis, x)
        if wall is None:
            profile = self.make("IfcCircleProfileDef", "AREA", None, self._flat(), self._length(radius))
        else:
            profile = self.make(
                "IfcCircleHollowProfileDef", "AREA", None, self._flat(), self._length(radius), self._length(wall)
            )
        return self._extrude(profile, length, at, axis, x)

    def rect_tube(self, at: Point, axis: Point, x: Point, length: float, width: float, height: float) -> Any:
        """A straight rectangular duct; ``x`` is the direction of its width."""
        w, h, t = width / 2, height / 2, 0.02
        outer = [(-w, -h), (w, -h), (w, h), (-w, h)]
        inner = [(-w + t, -h + t), (w - t, -h + t), (w - t, h - t), (-w + t, h - t)]
        return self.prism(outer, length, at, [inner], axis, x)

    def i_section(self, at: Point, axis: Point, x: Point, length: float, depth: float, width: float) -> Any:
        """A rolled I-section; ``x`` is the direction of its flanges."""
        profile = self.make(
            "IfcIShapeProfileDef",
            "AREA",
            f"I {depth * 1000:.0f} x {width * 1000:.0f}",
            self._flat(),
            self._length(width),
            self._length(depth),
            self._length(0.010),
            self._length(0.016),
        )
        return self._extrude(profile, length, at, axis, x)

    def sweep(self, path: Sequence[Point], radius: float) -> Any:
        """A round pipe or rail that follows straight stretches of a path."""
        line = self.make("IfcPolyline", [self.point(p) for p in path])
        return self.make("IfcSweptDiskSolid", line, self._length(radius), None, 0.0, float(len(path) - 1))

    def bend(self, corner: Point, into: Point, out: Point, reach: float, section: Any) -> Any:
        """A quarter bend: ``section`` turned about the inner corner of two directions."""
        start = [corner[i] - into[i] * reach for i in range(3)]
        # Profile x points towards the centre of the turn, profile z along the way in.
        position = self._axes(start, axis=into, x=out)
        local_axis = self.make(
            "IfcAxis1Placement", self.point((reach, 0, 0)), self.make("IfcDirection", (0.0, -1.0, 0.0))
        )
        return self.make("IfcRevolvedAreaSolid", section, position, local_axis, math.pi / 2)

    def round_section(self, radius: float) -> Any:
        return self.make("IfcCircleProfileDef", "AREA", None, self._flat(), self._length(radius))

    def rect_section(self, towards: float, across: float) -> Any:
        return self.make(
            "IfcRectangleProfileDef", "AREA", None, self._flat(), self._length(towards), self._length(across)
        )

    def _surface(self, stuff: Stuff) -> Any:
        """The surface style of a material, made once."""
        if stuff.name not in self._styles:
            colour = self.make("IfcColourRgb", None, *stuff.rgb)
            rendering = self.make("IfcSurfaceStyleRendering", colour, stuff.transparency, ReflectanceMethod="FLAT")
            surface = self.make("IfcSurfaceStyle", stuff.name, "BOTH", [rendering])
            self._styles[stuff.name] = (
                self.make("IfcPresentationStyleAssignment", [surface]) if self.schema == "IFC2X3" else surface
            )
        return self._styles[stuff.name]

    def style(self, items: Items, stuff: Stuff) -> Items:
        """Give items the surface colour of a material."""
        for item in items:
            self.make("IfcStyledItem", item, [self._surface(stuff)], None)
        return items

    def shared(self, key: str, build: Callable[[], Items]) -> Items:
        """Items built once and placed by reference wherever they are used."""
        if key not in self._maps:
            shape = self.make("IfcShapeRepresentation", self.body, "Body", "SolidModel", build())
            self._maps[key] = self.make("IfcRepresentationMap", self._axes((0, 0, 0)), shape)
        target = self.make(
            "IfcCartesianTransformationOperator3D", None, None, self.make("IfcCartesianPoint", (0.0, 0.0, 0.0)), 1.0
        )
        return [self.make("IfcMappedItem", self._maps[key], target)]

    def _shape(self, items: Items) -> Any:
        kinds = {item.is_a() for item in items}
        if kinds == {"IfcMappedItem"}:
            kind = "MappedRepresentation"
        elif kinds & {"IfcSweptDiskSolid"}:
            kind = "AdvancedSweptSolid"
        else:
            kind = "SweptSolid"
        rep = self.make("IfcShapeRepresentation", self.body, "Body", kind, items)
        return self.make("IfcProductDefinitionShape", None, None, [rep])
