"""Writes the Quillhaven Tide Laboratory as the model files that its disciplines would issue."""

from __future__ import annotations

from pathlib import Path

from stairpath.demo import air, architecture, electrical, fire, fitout, stairs, structure, water

PROJECT_NAME = "Quillhaven Tide Laboratory"


def write_models(folder: Path) -> list[Path]:
    """Write every model file of the demo into ``folder``; returns their paths in load order."""
    folder.mkdir(parents=True, exist_ok=True)
    drafts = [
        architecture.draft(),
        structure.draft(),
        air.draft(),
        water.draft(),
        electrical.draft(),
        fire.draft(),
        fitout.draft(),
        stairs.hall_stair("A"),
        stairs.hall_stair("B"),
    ]
    return [draft.write(folder) for draft in drafts]
