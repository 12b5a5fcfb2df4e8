from __future__ import annotations

from dataclasses import dataclass, field
from enum import Enum


class BitmapFormat(Enum):
    PNG = "PNG"
    JPG = "JPG"


@dataclass(kw_only=True)
class Component:
    originating_system: None | str = field(
        default=None,
        metadata={
            "name": "OriginatingSystem",
            "type": "Element",
        },
    )
    authoring_tool_id: None | str = field(
        default=None,
        metadata={
            "name": "AuthoringToolId",
            "type": "Element",
        },
    )
    ifc_guid: None | str = field(
        default=None,
        metadata={
            "name": "IfcGuid",
            "type": "Attribute",
            "length": 22,
            "pattern": r"[0-9,A-Z,a-z,_$]*",
        },
    )


@dataclass(kw_only=True)
class Direction:
    x: float = field(
        metadata={
            "name": "X",
            "type": "Element",
        }
    )
    y: float = field(
        metadata={
            "name": "Y",
            "type": "Element",
        }
    )
    z: float = field(
        metadata={
            "name": "Z",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class Point:
    x: float = field(
        metadata={
            "name": "X",
            "type": "Element",
        }
    )
    y: float = field(
        metadata={
            "name": "Y",
            "type": "Element",
        }
    )
    z: float = field(
        metadata={
            "name": "Z",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class ViewSetupHints:
    spaces_visible: None | bool = field(
        default=None,
        metadata={
            "name": "SpacesVisible",
            "type": "Attribute",
        },
    )
    space_boundaries_visible: None | bool = field(
        default=None,
        metadata={
            "name": "SpaceBoundariesVisible",
            "type": "Attribute",
        },
    )
    openings_visible: None | bool = field(
        default=None,
        metadata={
            "name": "OpeningsVisible",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class ClippingPlane:
    location: Point = field(
        metadata={
            "name": "Location",
            "type": "Element",
        }
    )
    direction: Direction = field(
        metadata={
            "name": "Direction",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class ComponentColoringColor:
    class Meta:
        global_type = False

    component: list[Component] = field(
        default_factory=list,
        metadata={
            "name": "Component",
            "type": "Element",
            "min_occurs": 1,
        },
    )
    color: None | str = field(
        default=None,
        metadata={
            "name": "Color",
            "type": "Attribute",
            "pattern": r"[0-9,A-F]{6}([0-9,A-F]{2})?",
        },
    )


@dataclass(kw_only=True)
class ComponentSelection:
    component: list[Component] = field(
        default_factory=list,
        metadata={
            "name": "Component",
            "type": "Element",
            "min_occurs": 1,
        },
    )


@dataclass(kw_only=True)
class ComponentVisibilityExceptions:
    class Meta:
        global_type = False

    component: list[Component] = field(
        default_factory=list,
        metadata={
            "name": "Component",
            "type": "Element",
            "min_occurs": 1,
        },
    )


@dataclass(kw_only=True)
class Line:
    start_point: Point = field(
        metadata={
            "name": "StartPoint",
            "type": "Element",
        }
    )
    end_point: Point = field(
        metadata={
            "name": "EndPoint",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class OrthogonalCamera:
    """
    Attributes:
        camera_view_point:
        camera_direction:
        camera_up_vector:
        view_to_world_scale: view's visible size in meters
    """

    camera_view_point: Point = field(
        metadata={
            "name": "CameraViewPoint",
            "type": "Element",
        }
    )
    camera_direction: Direction = field(
        metadata={
            "name": "CameraDirection",
            "type": "Element",
        }
    )
    camera_up_vector: Direction = field(
        metadata={
            "name": "CameraUpVector",
            "type": "Element",
        }
    )
    view_to_world_scale: float = field(
        metadata={
            "name": "ViewToWorldScale",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class PerspectiveCamera:
    """
    Attributes:
        camera_view_point:
        camera_direction:
        camera_up_vector:
        field_of_view: It is currently limited to a value between 45 and
            60 degrees. This limitation will be dropped in the next
            release and viewers should be expect values outside this
            range in current implementations.
    """

    camera_view_point: Point = field(
        metadata={
            "name": "CameraViewPoint",
            "type": "Element",
        }
    )
    camera_direction: Direction = field(
        metadata={
            "name": "CameraDirection",
            "type": "Element",
        }
    )
    camera_up_vector: Direction = field(
        metadata={
            "name": "CameraUpVector",
            "type": "Element",
        }
    )
    field_of_view: float = field(
        metadata={
            "name": "FieldOfView",
            "type": "Element",
            "min_inclusive": 45.0,
            "max_inclusive": 60.0,
        }
    )


@dataclass(kw_only=True)
class VisualizationInfoBitmap:
    class Meta:
        global_type = False

    bitmap: BitmapFormat = field(
        metadata={
            "name": "Bitmap",
            "type": "Element",
        }
    )
    reference: str = field(
        metadata={
            "name": "Reference",
            "type": "Element",
        }
    )
    location: Point = field(
        metadata={
            "name": "Location",
            "type": "Element",
        }
    )
    normal: Direction = field(
        metadata={
            "name": "Normal",
            "type": "Element",
        }
    )
    up: Direction = field(
        metadata={
            "name": "Up",
            "type": "Element",
        }
    )
    height: float = field(
        metadata={
            "name": "Height",
            "type": "Element",
        }
    )


@dataclass(kw_only=True)
class ComponentColoring:
    color: list[ComponentColoringColor] = field(
        default_factory=list,
        metadata={
            "name": "Color",
            "type": "Element",
            "min_occurs": 1,
        },
    )


@dataclass(kw_only=True)
class ComponentVisibility:
    exceptions: None | ComponentVisibilityExceptions = field(
        default=None,
        metadata={
            "name": "Exceptions",
            "type": "Element",
        },
    )
    default_visibility: None | bool = field(
        default=None,
        metadata={
            "name": "DefaultVisibility",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class VisualizationInfoClippingPlanes:
    class Meta:
        global_type = False

    clipping_plane: list[ClippingPlane] = field(
        default_factory=list,
        metadata={
            "name": "ClippingPlane",
            "type": "Element",
        },
    )


@dataclass(kw_only=True)
class VisualizationInfoLines:
    class Meta:
        global_type = False

    line: list[Line] = field(
        default_factory=list,
        metadata={
            "name": "Line",
            "type": "Element",
            "min_occurs": 1,
        },
    )


@dataclass(kw_only=True)
class Components:
    view_setup_hints: None | ViewSetupHints = field(
        default=None,
        metadata={
            "name": "ViewSetupHints",
            "type": "Element",
        },
    )
    selection: None | ComponentSelection = field(
        default=None,
        metadata={
            "name": "Selection",
            "type": "Element",
        },
    )
    visibility: ComponentVisibility = field(
        metadata={
            "name": "Visibility",
            "type": "Element",
        }
    )
    coloring: None | ComponentColoring = field(
        default=None,
        metadata={
            "name": "Coloring",
            "type": "Element",
        },
    )


@dataclass(kw_only=True)
class VisualizationInfo:
    """
    VisualizationInfo documentation.
    """

    components: None | Components = field(
        default=None,
        metadata={
            "name": "Components",
            "type": "Element",
        },
    )
    orthogonal_camera: None | OrthogonalCamera = field(
        default=None,
        metadata={
            "name": "OrthogonalCamera",
            "type": "Element",
        },
    )
    perspective_camera: None | PerspectiveCamera = field(
        default=None,
        metadata={
            "name": "PerspectiveCamera",
            "type": "Element",
        },
    )
    lines: None | VisualizationInfoLines = field(
        default=None,
        metadata={
            "name": "Lines",
            "type": "Element",
        },
    )
    clipping_planes: None | VisualizationInfoClippingPlanes = field(
        default=None,
        metadata={
            "name": "ClippingPlanes",
            "type": "Element",
        },
    )
    bitmap: list[VisualizationInfoBitmap] = field(
        default_factory=list,
        metadata={
            "name": "Bitmap",
            "type": "Element",
        },
    )
    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )
