"""From where a building is first seen, on the stage and in the picture that stands for it."""

from __future__ import annotations

OFF_NORTH_DEG = 32.0
"""Clockwise from the building's own north."""
TILT_DEG = 24.0
