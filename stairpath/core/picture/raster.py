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
    half_x, half_y = half[0], half[1]
    # Right and down in pixels, and what runs straight across a screen: one over the depth, or where nothing converges
    # the depth itself.
    flat = np.empty((4, 3))
    for t in range(corners.shape[0]):
        # What is behind the eye is cut off before it is divided by its depth.
        count = 0
        for k in range(3):
            m = (k + 1) % 3
            az, bz = corners[t, k, 2], corners[t, m, 2]
            inside, after = not perspective or az >= near_m, not perspective or bz >= near_m
            for step in range(2):
                if (step == 0 and not inside) or (step == 1 and inside == after):
                    continue
                share = (near_m - az) / (bz - az) if step else 0.0
                x = corners[t, k, 0] + (corners[t, m, 0] - corners[t, k, 0]) * share
                y = corners[t, k, 1] + (corners[t, m, 1] - corners[t, k, 1]) * share
                z = az + (bz - az) * share
                scale = z if perspective else 1.0
                flat[count, 0] = (x / (scale * half_x) + 1.0) * 0.5 * width
                flat[count, 1] = (1.0 - y / (scale * half_y)) * 0.5 * height
                flat[count, 2] = 1.0 / z if perspective else z
                count += 1
        for last in range(2, count):
            px, py, pz = flat[0, 0], flat[0, 1], flat[0, 2]
            qx, qy, qz = flat[last - 1, 0], flat[last - 1, 1], flat[last - 1, 2]
            rx, ry, rz = flat[last, 0], flat[last, 1], flat[last, 2]
            area = (qx - px) * (ry - py) - (rx - px) * (qy - py)
            if abs(area) < 1e-9:
                continue
            left, right = max(0.0, min(px, qx, rx)), min(width - 1.0, max(px, qx, rx))
            top, bottom = max(0.0, min(py, qy, ry)), min(height - 1.0, max(py, qy, ry))
            for row in range(int(top), int(bottom) + 1):
                for column in range(int(left), int(right) + 1):
                    cx, cy = column + 0.5, row + 0.5
                    a = ((qx - cx) * (ry - cy) - (rx - cx) * (qy - cy)) / area
                    b = ((rx - cx) * (py - cy) - (px - cx) * (ry - cy)) / area
                    c = 1.0 - a - b
                    if a < 0 or b < 0 or c < 0:
                        continue
                    across = a * pz + b * qz + c * rz
                    z = 1.0 / across if perspective else across
                    # Of faces in one plane the first is seen everywhere.
                    if z > depth[row, column] - SAME_M or z < near_m or z > far_m:
                        continue
                    away = False
                    if cuttable[t]:
                        scale = z if perspective else 1.0
                        right_m = (cx / width * 2.0 - 1.0) * half_x * scale
                        up_m = (1.0 - cy / height * 2.0) * half_y * scale
                        for k in range(planes.shape[0]):
                            side = planes[k, 0] * right_m + planes[k, 1] * up_m + planes[k, 2] * z + planes[k, 3]
                            away = away or side > 0
                    if not away:
                        depth[row, column] = z
                        found[row, column] = t
