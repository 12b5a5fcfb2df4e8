"""Small IFC files, written entity by entity so that every number in them is known."""

from __future__ import annotations

import math
from collections.abc import Sequence

import ifcopenshell
import ifcopenshell.guid

Ifc = ifcopenshell.file


class Sample:
    """A project with one storey or more and boxes on them; figures are in the file's own unit."""

    def __init__(self, schema: str = "IFC4", unit: str = "m") -> None:
        self.ifc = ifcopenshell.file(schema=schema)
        make = self.ifc.create_entity
        self.make = make
        person = make("IfcPerson", FamilyName="Nobody")
        firm = make("IfcOrganization", Name="Nobody")
        self.history = make(
            "IfcOwnerHistory",
            make("IfcPersonAndOrganization", person, firm),
            make("IfcApplication", firm, "1", "Sample", "S"),
            None,
            "ADDED",
            None,
            None,
            None,
            0,
        )
        metre = make("IfcSIUnit", None, "LENGTHUNIT", "MILLI" if unit == "mm" else None, "METRE")
        length = metre
        if unit == "ft":
            size = make("IfcMeasureWithUnit", make("IfcLengthMeasure", 0.3048), metre)
            length = make(
                "IfcConversionBasedUnit",
                make("IfcDimensionalExponents", 1, 0, 0, 0, 0, 0, 0),
                "LENGTHUNIT",
                "FOOT",
                size,
            )
        self.context = make("IfcGeometricRepresentationContext", None, "Model", 3, 1e-5, self.axes((0, 0, 0)), None)
        self.project = self.root(
            "IfcProject",
            Name="Sample",
            RepresentationContexts=[self.context],
            UnitsInContext=make("IfcUnitAssignment", [length]),
        )
        self.site = self.root("IfcSite", ObjectPlacement=self.place(None, (0, 0, 0)), CompositionType="ELEMENT")
        self.building = self.root(
            "IfcBuilding", ObjectPlacement=self.place(self.site.ObjectPlacement, (0, 0, 0)), CompositionType="ELEMENT"
        )
        self.relate("IfcRelAggregates", RelatingObject=self.project, RelatedObjects=[self.site])
        self.relate("IfcRelAggregates", RelatingObject=self.site, RelatedObjects=[self.building])

    def root(self, cls: str, global_id: str | None = None, **kwargs):
        return self.make(cls, GlobalId=global_id or ifcopenshell.guid.new(), OwnerHistory=self.history, **kwargs)

    def relate(self, cls: str, **kwargs):
        return self.root(cls, **kwargs)

    def point(self, at: Sequence[float]):
        return self.make("IfcCartesianPoint", tuple(map(float, at)))

    def axes(self, at: Sequence[float], turn_deg: float = 0.0):
        if not turn_deg:
            return self.make("IfcAxis2Placement3D", self.point(at))
        t = math.radians(turn_deg)
        return self.make(
            "IfcAxis2Placement3D",
            self.point(at),
            self.make("IfcDirection", (0.0, 0.0, 1.0)),
            self.make("IfcDirection", (math.cos(t), math.sin(t), 0.0)),
        )

    def place(self, parent, at: Sequence[float], turn_deg: float = 0.0):
        return self.make("IfcLocalPlacement", parent, self.axes(at, turn_deg))

    def move_site(self, at: Sequence[float], turn_deg: float) -> None:
        self.site.ObjectPlacement = self.place(None, at, turn_deg)
        self.building.ObjectPlacement.PlacementRelTo = self.site.ObjectPlacement

    def storey(self, name: str, elevation: float):
        storey = self.root(
            "IfcBuildingStorey",
            Name=name,
            ObjectPlacement=self.place(self.building.ObjectPlacement, (0, 0, elevation)),
            CompositionType="ELEMENT",
            Elevation=float(elevation),
        )
        self.relate("IfcRelAggregates", RelatingObject=self.building, RelatedObjects=[storey])
        return storey

    def solid(self, size: Sequence[float]):
        flat = self.make("IfcAxis2Placement2D", self.make("IfcCartesianPoint", (0.0, 0.0)))
        profile = self.make("IfcRectangleProfileDef", "AREA", None, flat, float(size[0]), float(size[1]))
        base = self.axes((size[0] / 2, size[1] / 2, 0))
        return self.make(
            "IfcExtrudedAreaSolid", profile, base, self.make("IfcDirection", (0.0, 0.0, 1.0)), float(size[2])
        )

    def shape(self, item):
        kind = "Brep" if item.is_a("IfcFacetedBrep") else "SweptSolid"
        rep = self.make("IfcShapeRepresentation", self.context, "Body", kind, [item])
        return self.make("IfcProductDefinitionShape", None, None, [rep])

    def box(self, storey, at: Sequence[float], size: Sequence[float], cls: str = "IfcWall", **kwargs):
        """A box from its lowest corner; on no storey if ``storey`` is None."""
        parent = storey.ObjectPlacement if storey is not None else self.building.ObjectPlacement
        kwargs.setdefault("Name", "Box")
        kwargs.setdefault("Representation", self.shape(self.solid(size)))
        entity = self.root(cls, ObjectPlacement=self.place(parent, at), **kwargs)
        if storey is not None:
            relation = "IfcRelContainedInSpatialStructure"
            self.relate(relation, RelatedElements=[entity], RelatingStructure=storey)
        return entity

    def repeated(self, storey, count: int, **kwargs) -> None:
        """So many cubes of one shape that is kept once, 3 apart along x."""
        shape = self.make("IfcShapeRepresentation", self.context, "Body", "SweptSolid", [self.solid((1, 1, 1))])
        source = self.make("IfcRepresentationMap", self.axes((0, 0, 0)), shape)
        for x in range(count):
            to = self.make("IfcCartesianTransformationOperator3D", None, None, self.point((0, 0, 0)), 1.0)
            mapped = self.make("IfcMappedItem", source, to)
            rep = self.make("IfcShapeRepresentation", self.context, "Body", "MappedRepresentation", [mapped])
            body = self.make("IfcProductDefinitionShape", None, None, [rep])
            self.box(storey, (3 * x, 0, 0), (1, 1, 1), Representation=body, **kwargs)

    def room(self, storey, number: str, name: str, at: Sequence[float], size: Sequence[float]):
        entity = self.root(
            "IfcSpace",
            Name=number,
            LongName=name,
            ObjectPlacement=self.place(storey.ObjectPlacement, at),
            Representation=self.shape(self.solid(size)),
            CompositionType="ELEMENT",
        )
        self.relate("IfcRelAggregates", RelatingObject=storey, RelatedObjects=[entity])
        return entity

    def grid(self, numbered: dict[str, float], lettered: dict[str, float], reach: float = 10.0):
        """Axes at x for numbers (running along y), at y for letters (running along x)."""

        def axis(tag: str, a, b):
            return self.make("IfcGridAxis", tag, self.make("IfcPolyline", [self.point(a), self.point(b)]), True)

        u = [axis(tag, (x, -reach), (x, reach)) for tag, x in numbered.items()]
        v = [axis(tag, (-reach, y), (reach, y)) for tag, y in lettered.items()]
        return self.root(
            "IfcGrid", ObjectPlacement=self.place(self.building.ObjectPlacement, (0, 0, 0)), UAxes=u, VAxes=v
        )

    def map_conversion(
        self, eastings: float, northings: float, height: float, turn_deg: float, crs: str = "Made-up grid"
    ):
        t = math.radians(turn_deg)
        target = self.make(
            "IfcProjectedCRS", Name=crs, MapUnit=self.make("IfcSIUnit", None, "LENGTHUNIT", None, "METRE")
        )
        self.make("IfcMapConversion", self.context, target, eastings, northings, height, math.cos(t), math.sin(t))

    def content(self) -> bytes:
        return str(self.ifc.to_string()).encode()


def simple(schema: str = "IFC4", unit: str = "m") -> Sample:
    """One storey at zero with a wall of 4 x 0.2 x 3 from (1, 2, 0), in metres whatever the unit."""
    per_m = {"m": 1.0, "mm": 1000.0, "ft": 1 / 0.3048}[unit]
    sample = Sample(schema, unit)
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, [c * per_m for c in (1, 2, 0)], [c * per_m for c in (4, 0.2, 3)], Name="Wall", Tag="W-1")
    return sample
