"""Triangles to pixels: which of them is nearest in each, before planes that cut."""

from __future__ import annotations

import numba
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
NOTHING = -1
SAME_M = 0.001


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def nearest(
    corners: Array, cuttable: npt.NDArray[np.bool_], perspective: bool, half: Array, near_m: float, far_m: float,
    planes: Array, depth: Array, found: npt.NDArray[np.int32],
) -> None:  # fmt: skip
    """Note in ``found`` (h, w) the number of the nearest triangle of each pixel, and in ``depth`` how far away it is.

    ``corners`` (n, 3, 3) are right, up and along the line of sight, in metres from the eye; ``half`` half of the width and
    height that are seen, at 1 m in perspective. ``planes`` (m, 4) take away what is on the side of their normals from
    triangles that are ``cuttable``. Nothing that is farther away than ``depth`` says is found.
    """
    height, width = depth.shape
    piece = np.empty((4, 3))
    flat = np.empty((4, 3))
    for t in range(corners.shape[0]):
        # What is behind the eye is cut off before it is divided by its depth.
        count = 0
        for k in range(3):
            a, b = corners[t, k], corners[t, (k + 1) % 3]
            inside, after = not perspective or a[2] >= near_m, not perspective or b[2] >= near_m
            if inside:
                piece[count] = a
                count += 1
            if inside != after:
                share = (near_m - a[2]) / (b[2] - a[2])
                piece[count] = a + (b - a) * share
                count += 1
        if count < 3:
            continue
        for k in range(count):
            z = piece[k, 2] if perspective else 1.0
            flat[k, 0] = (piece[k, 0] / (z * half[0]) + 1.0) * 0.5 * width
            flat[k, 1] = (1.0 - piece[k, 1] / (z * half[1])) * 0.5 * height
            # What runs straight across a screen: one over the depth, or the depth where nothing converges.
            flat[k, 2] = 1.0 / z if perspective else piece[k, 2]
        for last in range(2, count):
            _one(
                t, flat[0], flat[last - 1], flat[last], cuttable[t], perspective, half, near_m, far_m, planes, depth, found
            )  # fmt: skip


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _one(
    t: int, p: Array, q: Array, r: Array, cuttable: bool, perspective: bool, half: Array, near_m: float, far_m: float,
    planes: Array, depth: Array, found: npt.NDArray[np.int32],
) -> None:  # fmt: skip
    height, width = depth.shape
    area = (q[0] - p[0]) * (r[1] - p[1]) - (r[0] - p[0]) * (q[1] - p[1])
    if abs(area) < 1e-9:
        return
    left, right = max(0.0, min(p[0], q[0], r[0])), min(width - 1.0, max(p[0], q[0], r[0]))
    top, bottom = max(0.0, min(p[1], q[1], r[1])), min(height - 1.0, max(p[1], q[1], r[1]))
    for y in range(int(top), int(bottom) + 1):
        for x in range(int(left), int(right) + 1):
            px, py = x + 0.5, y + 0.5
            a = ((q[0] - px) * (r[1] - py) - (r[0] - px) * (q[1] - py)) / area
            b = ((r[0] - px) * (p[1] - py) - (p[0] - px) * (r[1] - py)) / area
            c = 1.0 - a - b
            if a < 0 or b < 0 or c < 0:
                continue
            across = a * p[2] + b * q[2] + c * r[2]
            z = 1.0 / across if perspective else across
            # Of faces in one plane the first is seen everywhere.
            if z > depth[y, x] - SAME_M or z < near_m or z > far_m:
                continue
            if cuttable and planes.shape[0]:
                scale = z if perspective else 1.0
                right_m = (px / width * 2.0 - 1.0) * half[0] * scale
                up_m = (1.0 - py / height * 2.0) * half[1] * scale
                away = False
                for k in range(planes.shape[0]):
                    n = planes[k]
                    if n[0] * right_m + n[1] * up_m + n[2] * z + n[3] > 0:
                        away = True
                        break
                if away:
                    continue
            depth[y, x] = z
            found[y, x] = t
