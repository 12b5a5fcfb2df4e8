"""A scene as an eye sees it: nearer things before farther ones, lit from one side, with a line where one ends."""

from __future__ import annotations

import io
import math
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw, ImageFont

from stairpath.core.camera.pose import Pose, sight_axes
from stairpath.core.geometry.plane import Plane
from stairpath.core.palette import FILM, INK, SOFT
from stairpath.core.picture.raster import NOTHING, nearest
from stairpath.core.picture.scene import Scene, rgb

Array = npt.NDArray[np.float64]
Pixels = npt.NDArray[np.float32]

OVERSAMPLE = 2
_SUN = np.array([0.35, -0.55, 0.76])
_NEAREST_M = 0.03
_GLASS, _FADED = 0.3, 0.22
_CUT_INK = 0.62
_EDGE, _ANGLE = 0.55, math.cos(math.radians(25.0))


@dataclass(frozen=True, eq=False)
class Cutting:
    """What is taken away before the scene is drawn: beyond planes, nearer and farther than is seen.

    ``whole`` (m,) are components that no plane goes through.
    """

    planes: tuple[Plane, ...] = ()
    near_m: float = 0.0
    far_m: float = math.inf
    whole: npt.NDArray[np.bool_] = field(default_factory=lambda: np.zeros(0, np.bool_))


def _placed_planes(planes: tuple[Plane, ...], eye: Array, axes: Array) -> Array:
    rows = [[*(axes @ np.array(p.normal)), float(np.dot(p.normal, eye - np.array(p.point_m)))] for p in planes]
    return np.array(rows, dtype=np.float64).reshape(-1, 4)


def draw(
    scene: Scene,
    pose: Pose,
    size: tuple[int, int],
    cutting: Cutting = Cutting(),
    faded: npt.NDArray[np.bool_] | None = None,
) -> Image.Image:
    """A picture of a scene, so many pixels wide and high; components (m,) that are faded are seen through as glass is."""
    width, height = size[0] * OVERSAMPLE, size[1] * OVERSAMPLE
    right, up, forward = sight_axes(pose.eye_m, pose.target_m, pose.up)
    axes, eye = np.stack([right, up, forward]), np.array(pose.eye_m)
    perspective = pose.projection == "perspective"
    across = math.tan(math.radians(pose.angle_deg) / 2) if perspective else pose.height_m * pose.aspect / 2
    half = np.array([across, across / pose.aspect])
    planes = _placed_planes(cutting.planes, eye, axes)
    # A parallel view has what is behind its eye too.
    near_m = max(_NEAREST_M, cutting.near_m) if perspective else (cutting.near_m or -math.inf)

    def found_of(part: npt.NDArray[np.intp], depth: Array) -> npt.NDArray[np.int32]:
        found = np.full((height, width), NOTHING, dtype=np.int32)
        owner = scene.owner[part]
        cuttable = ~cutting.whole[owner] if len(cutting.whole) else np.ones(len(owner), np.bool_)
        corners = (scene.corners_m[part] - eye) @ axes.T
        nearest(corners, cuttable, perspective, half, near_m, cutting.far_m, planes, depth, found)
        return found

    thin = scene.glass if faded is None else scene.glass | faded[scene.owner]
    depth = np.full((height, width), math.inf)
    image = np.empty((height, width, 3), dtype=np.float32)
    image[:] = rgb(FILM)
    for part, share in ((np.flatnonzero(~thin), 1.0), (np.flatnonzero(thin), 0.0)):
        found = found_of(part, depth)
        there = found != NOTHING
        if not there.any():
            continue
        opened = bool(len(planes) or cutting.near_m)
        colour, edges = _surface(scene, part, found, (eye if perspective else None, forward) if opened else None)
        if share:
            np.copyto(image, colour, where=there[:, :, None])
            image[edges] = image[edges] * (1 - _EDGE) + np.array(rgb(INK), np.float32) * _EDGE
        else:
            seen = _FADED if faded is not None and faded.any() else _GLASS
            np.copyto(image, image * (1 - seen) + colour * seen, where=there[:, :, None])
    return Image.fromarray(np.clip(image, 0, 255).astype(np.uint8)).reduce(OVERSAMPLE)


def _surface(
    scene: Scene, part: npt.NDArray[np.intp], found: npt.NDArray[np.int32], sight: tuple[Array | None, Array] | None
) -> tuple[Pixels, npt.NDArray[np.bool_]]:
    """The colour of each pixel (h, w, 3), and where a line is.

    ``sight`` is given where something is cut open: from where one looks, or None in a parallel view, and the line of sight.
    """
    # Few of many triangles are seen, each in many pixels: they are counted, not sorted.
    used = np.flatnonzero(np.bincount((found - NOTHING).ravel())) + NOTHING
    numbers = np.zeros(used[-1] - NOTHING + 1, dtype=np.int32)
    numbers[used - NOTHING] = np.arange(len(used), dtype=np.int32)
    number = numbers[found - NOTHING]
    rows = part[np.where(used == NOTHING, 0, used)]
    corners = scene.corners_m[rows]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    light = 0.72 + 0.28 * np.abs(normal @ _SUN)
    owner = scene.owner[rows]
    colour = (scene.colours[owner] * light[:, None]).astype(np.float32)
    if sight is not None:
        # Where one sees into something that is closed, it was cut open.
        eye, forward = sight
        way = corners[:, 0] - eye if eye is not None else np.broadcast_to(forward, normal.shape)
        inner = np.einsum("ij,ij->i", normal, way) > 1e-6
        colour[inner] = scene.colours[owner[inner]] * (1 - _CUT_INK) + np.array(rgb(INK), np.float32) * _CUT_INK
    owner = np.where(used == NOTHING, -1, owner)
    normal = np.where((used == NOTHING)[:, None], 0.0, normal)
    edges = np.zeros(found.shape, dtype=bool)
    for before, after in (
        ((slice(None), slice(None, -1)), (slice(None), slice(1, None))),
        ((slice(None, -1), slice(None)), (slice(1, None), slice(None))),
    ):
        a, b = number[before], number[after]
        differs = a != b
        bent = np.zeros(a.shape, dtype=bool)
        one, other = a[differs], b[differs]
        turned = np.abs(np.einsum("ij,ij->i", normal[one], normal[other])) < _ANGLE
        bent[differs] = (owner[one] != owner[other]) | turned
        edges[before] |= bent
    return colour[number], edges & (found != NOTHING)


def as_png(picture: Image.Image) -> bytes:
    """A picture as PNG."""
    out = io.BytesIO()
    picture.save(out, "PNG", optimize=True)
    return out.getvalue()


def blank(text: str, size: tuple[int, int]) -> Image.Image:
    """An empty picture with a few words in its middle."""
    picture = Image.new("RGB", size, FILM)
    pen = ImageDraw.Draw(picture)
    font = ImageFont.load_default(size[1] / 16)
    pen.multiline_text((size[0] / 2, size[1] / 2), text, fill=SOFT, font=font, anchor="mm", align="center")
    return picture
