"""What is seen, between the format's own classes of both versions and ours."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Literal, TypeVar

from stairpath.core.exchange.bcf import v2_1 as v2
from stairpath.core.exchange.bcf import v3_0 as v3
from stairpath.core.exchange.bcf.v2_1 import visinfo as v2_parts
from stairpath.core.exchange.bcf.v3_0 import visinfo as v3_parts
from stairpath.core.exchange.bcf.versions import GLOBAL_ID
from stairpath.core.exchange.package import NotReadableError
from stairpath.core.exchange.topic import Bitmap, Camera, Colouring, Component, Hints, Plane, Viewpoint
from stairpath.core.geometry.vectors import Vector

LEAST_ANGLE_DEG, MOST_ANGLE_DEG = 45.0, 60.0
"""The vertical angles that the schema of 2.1 allows."""

_Info = v2.VisualizationInfo | v3.VisualizationInfo
_Part = v2.Component | v3.Component
P = TypeVar("P")
Q = TypeVar("Q")
C = TypeVar("C", v2.Component, v3.Component)
H = TypeVar("H", v2.ViewSetupHints, v3.ViewSetupHints)
X = TypeVar("X", v2.Point, v3.Point, v2.Direction, v3.Direction)
Pictures = Callable[[str], bytes | None]
"""A picture by its reference, or None where there is none."""


NO_CAMERA = Camera((0.0, 0.0, 0.0), (0.0, 0.0, -1.0), (0.0, 1.0, 0.0), "parallel", height_m=1.0, aspect=1.0)
"""Version 3.0 asks for a camera in every view. This one is written for a view that has none, and read as none again."""


def _number(value: object, what: str) -> float:
    # A text where a number belongs is left as it is by the parser.
    if not isinstance(value, (int, float)) or not math.isfinite(value):
        raise NotReadableError(f"The {what} of a view is no number, and it was left out.")
    return float(value)


def _xyz(of: v2.Point | v3.Point | v2.Direction | v3.Direction, what: str) -> Vector:
    return (_number(of.x, what), _number(of.y, what), _number(of.z, what))


def _way(of: v2.Direction | v3.Direction, what: str) -> Vector:
    way = _xyz(of, what)
    if not any(way):
        raise NotReadableError(f"The {what} of a view has no length, and it was left out.")
    return way


def _components(of: Iterable[_Part]) -> tuple[Component, ...]:
    found = (Component(each.ifc_guid or "", each.originating_system or "", each.authoring_tool_id or "") for each in of)
    return tuple(each for each in found if each.global_id or each.authoring_tool_id)


def _camera(info: _Info) -> Camera | None:
    if (lens := info.perspective_camera) is not None:
        return Camera(
            _xyz(lens.camera_view_point, "eye"),
            _way(lens.camera_direction, "direction"),
            _way(lens.camera_up_vector, "up direction"),
            "perspective",
            angle_deg=_number(lens.field_of_view, "angle"),
            aspect=_number(lens.aspect_ratio, "aspect") if isinstance(lens, v3.PerspectiveCamera) else None,
        )
    if (flat := info.orthogonal_camera) is not None:
        found = Camera(
            _xyz(flat.camera_view_point, "eye"),
            _way(flat.camera_direction, "direction"),
            _way(flat.camera_up_vector, "up direction"),
            "parallel",
            height_m=_number(flat.view_to_world_scale, "height"),
            aspect=_number(flat.aspect_ratio, "aspect") if isinstance(flat, v3.OrthogonalCamera) else None,
        )
        return None if found == NO_CAMERA else found
    return None


def _plane(of: v2.ClippingPlane | v3.ClippingPlane) -> Plane:
    return Plane(_xyz(of.location, "cut"), _way(of.direction, "cut"))


def _line(of: v2.Line | v3.Line) -> tuple[Vector, Vector]:
    return _xyz(of.start_point, "line"), _xyz(of.end_point, "line")


def _colouring(colour: str | None, components: Iterable[_Part]) -> Colouring:
    digits = (colour or "").removeprefix("#")
    if len(digits) not in (6, 8) or any(c not in "0123456789abcdefABCDEF" for c in digits):
        raise NotReadableError("A colour of a view is none, and it was left out.")
    # Eight digits begin with how much the colour covers.
    alpha = int(digits[:2], 16) if len(digits) == 8 else None
    return Colouring(f"#{digits[-6:].lower()}", _components(components), alpha)


def _hints(hints: v2.ViewSetupHints | v3.ViewSetupHints | None) -> Hints:
    if hints is None:
        return Hints()
    return Hints(bool(hints.spaces_visible), bool(hints.space_boundaries_visible), bool(hints.openings_visible))


def viewpoint_from(info: _Info, pictures: Pictures, trouble: Callable[[NotReadableError], None]) -> Viewpoint:
    """A viewpoint as it was read; what of it cannot be is told and left out."""

    def each(of: Iterable[P], made: Callable[[P], Q]) -> tuple[Q, ...]:
        out: list[Q] = []
        for one in of:
            try:
                out.append(made(one))
            except NotReadableError as error:
                trouble(error)
        return tuple(out)

    def bitmap(of: v2_parts.VisualizationInfoBitmap | v3.Bitmap) -> Bitmap:
        data = pictures(of.reference)
        if data is None:
            raise NotReadableError(f"The picture {of.reference} of a view is not in the file.")
        kind = of.bitmap if isinstance(of, v2_parts.VisualizationInfoBitmap) else of.format
        form: Literal["png", "jpg"] = "jpg" if getattr(kind, "value", "").lower() == "jpg" else "png"
        at, normal, up = _xyz(of.location, "bitmap"), _way(of.normal, "bitmap"), _way(of.up, "bitmap")
        return Bitmap(form, data, at, normal, up, _number(of.height, "bitmap"))

    parts = info.components
    visibility = parts.visibility if parts else None
    hints = parts.view_setup_hints if isinstance(parts, v2.Components) else None
    newer = visibility.view_setup_hints if isinstance(visibility, v3.ComponentVisibility) else None
    colours: list[tuple[str | None, Iterable[_Part]]] = []
    if parts and parts.coloring:
        for colour in parts.coloring.color:
            held = (
                colour.component if isinstance(colour, v2_parts.ComponentColoringColor) else colour.components.component
            )
            colours.append((colour.color, held))
    if isinstance(info, v2.VisualizationInfo):
        bitmaps: Iterable[v2_parts.VisualizationInfoBitmap | v3.Bitmap] = info.bitmap
    else:
        bitmaps = info.bitmaps.bitmap if info.bitmaps else ()
    planes: Sequence[v2.ClippingPlane | v3.ClippingPlane] = ()
    if info.clipping_planes:
        planes = info.clipping_planes.clipping_plane
    lines: Sequence[v2.Line | v3.Line] = info.lines.line if info.lines else ()
    cameras = each([info], _camera)
    return Viewpoint(
        guid=str(info.guid),
        camera=cameras[0] if cameras else None,
        default_visible=bool(visibility.default_visibility) if visibility else True,
        exceptions=_components(visibility.exceptions.component) if visibility and visibility.exceptions else (),
        selected=_components(parts.selection.component) if parts and parts.selection else (),
        colours=each(colours, lambda of: _colouring(*of)),
        planes=each(planes, _plane),
        lines=each(lines, _line),
        bitmaps=each(bitmaps, bitmap),
        hints=_hints(hints or newer),
    )


def _colour(of: Colouring) -> str:
    digits = of.colour.removeprefix("#").upper()
    return digits if of.alpha is None else f"{of.alpha:02X}{digits}"


def _named(kind: type[C], of: Iterable[Component]) -> list[C]:
    return [
        kind(
            ifc_guid=each.global_id if GLOBAL_ID.fullmatch(each.global_id) else None,
            originating_system=each.originating_system or None,
            authoring_tool_id=each.authoring_tool_id or None,
        )
        for each in of
    ]


def _at(kind: type[X], xyz: Vector) -> X:
    return kind(x=xyz[0], y=xyz[1], z=xyz[2])


def _set_hints(kind: type[H], of: Hints) -> H:
    return kind(spaces_visible=of.spaces, space_boundaries_visible=of.boundaries, openings_visible=of.openings)


def v2_info(view: Viewpoint, names: Mapping[int, str]) -> v2.VisualizationInfo:
    """A viewpoint as version 2.1 has it; ``names`` are those of the pictures by their place."""
    hidden, picked = _named(v2.Component, view.exceptions), _named(v2.Component, view.selected)
    colours = [
        v2_parts.ComponentColoringColor(component=_named(v2.Component, each.components), color=_colour(each))
        for each in view.colours
        if each.components
    ]
    info = v2.VisualizationInfo(
        guid=view.guid,
        components=v2.Components(
            view_setup_hints=_set_hints(v2.ViewSetupHints, view.hints),
            selection=v2.ComponentSelection(component=picked) if picked else None,
            visibility=v2.ComponentVisibility(
                exceptions=v2_parts.ComponentVisibilityExceptions(component=hidden) if hidden else None,
                default_visibility=view.default_visible,
            ),
            coloring=v2.ComponentColoring(color=colours) if colours else None,
        ),
        lines=v2_parts.VisualizationInfoLines(
            line=[v2.Line(start_point=_at(v2.Point, a), end_point=_at(v2.Point, b)) for a, b in view.lines]
        )
        if view.lines
        else None,
        clipping_planes=v2_parts.VisualizationInfoClippingPlanes(
            clipping_plane=[v2.ClippingPlane(location=_at(v2.Point, p.point_m), direction=_at(v2.Direction, p.direction)) for p in view.planes]
        )
        if view.planes
        else None,
        bitmap=[
            v2_parts.VisualizationInfoBitmap(
                bitmap=v2.BitmapFormat(each.format.upper()), reference=names[k], location=_at(v2.Point, each.at_m),
                normal=_at(v2.Direction, each.normal), up=_at(v2.Direction, each.up), height=each.height_m,
            )
            for k, each in enumerate(view.bitmaps)
        ],
    )  # fmt: skip
    if (camera := view.camera) is not None and camera.projection == "perspective":
        info.perspective_camera = v2.PerspectiveCamera(
            camera_view_point=_at(v2.Point, camera.eye_m),
            camera_direction=_at(v2.Direction, camera.direction),
            camera_up_vector=_at(v2.Direction, camera.up),
            field_of_view=min(max(camera.angle_deg or LEAST_ANGLE_DEG, LEAST_ANGLE_DEG), MOST_ANGLE_DEG),
        )
    elif camera is not None:
        info.orthogonal_camera = v2.OrthogonalCamera(
            camera_view_point=_at(v2.Point, camera.eye_m),
            camera_direction=_at(v2.Direction, camera.direction),
            camera_up_vector=_at(v2.Direction, camera.up),
            view_to_world_scale=camera.height_m or 1.0,
        )
    return info


def v3_info(view: Viewpoint, names: Mapping[int, str], aspect: float) -> v3.VisualizationInfo:
    """A viewpoint as version 3.0 has it; ``aspect`` is that of its picture, for a camera that has none."""
    info = v3.VisualizationInfo(
        guid=view.guid,
        components=v3.Components(
            selection=v3.ComponentSelection(component=_named(v3.Component, view.selected)) if view.selected else None,
            visibility=v3.ComponentVisibility(
                view_setup_hints=_set_hints(v3.ViewSetupHints, view.hints),
                exceptions=v3_parts.ComponentVisibilityExceptions(component=_named(v3.Component, view.exceptions))
                if view.exceptions
                else None,
                default_visibility=view.default_visible,
            ),
            coloring=v3.ComponentColoring(
                color=[
                    v3_parts.ComponentColoringColor(
                        components=v3_parts.ComponentColoringColorComponents(component=_named(v3.Component, each.components)),
                        color=_colour(each),
                    )
                    for each in view.colours
                    if each.components
                ]
            )
            if view.colours
            else None,
        ),
        lines=v3_parts.VisualizationInfoLines(
            line=[v3.Line(start_point=_at(v3.Point, a), end_point=_at(v3.Point, b)) for a, b in view.lines]
        )
        if view.lines
        else None,
        clipping_planes=v3_parts.VisualizationInfoClippingPlanes(
            clipping_plane=[v3.ClippingPlane(location=_at(v3.Point, p.point_m), direction=_at(v3.Direction, p.direction)) for p in view.planes]
        )
        if view.planes
        else None,
        bitmaps=v3_parts.VisualizationInfoBitmaps(
            bitmap=[
                v3.Bitmap(
                    format=v3.BitmapFormat(each.format), reference=names[k], location=_at(v3.Point, each.at_m),
                    normal=_at(v3.Direction, each.normal), up=_at(v3.Direction, each.up), height=each.height_m,
                )
                for k, each in enumerate(view.bitmaps)
            ]
        )
        if view.bitmaps
        else None,
    )  # fmt: skip
    camera = view.camera or NO_CAMERA
    if camera.projection == "perspective":
        info.perspective_camera = v3.PerspectiveCamera(
            camera_view_point=_at(v3.Point, camera.eye_m),
            camera_direction=_at(v3.Direction, camera.direction),
            camera_up_vector=_at(v3.Direction, camera.up),
            field_of_view=camera.angle_deg or MOST_ANGLE_DEG,
            aspect_ratio=camera.aspect or aspect,
        )
    else:
        info.orthogonal_camera = v3.OrthogonalCamera(
            camera_view_point=_at(v3.Point, camera.eye_m),
            camera_direction=_at(v3.Direction, camera.direction),
            camera_up_vector=_at(v3.Direction, camera.up),
            view_to_world_scale=camera.height_m or 1.0,
            aspect_ratio=camera.aspect or aspect,
        )
    return info
