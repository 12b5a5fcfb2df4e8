"""Columns as they are sent."""

from __future__ import annotations

import base64

import numpy as np
import numpy.typing as npt


def packed(column: npt.NDArray[np.generic], kind: str) -> str:
    """Numbers as base64 of their bytes, such as ``<f4``."""
    return base64.b64encode(np.ascontiguousarray(column).astype(kind).tobytes()).decode()
