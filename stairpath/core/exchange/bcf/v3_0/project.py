from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class Project:
    name: str | None = field(
        default=None,
        metadata={
            "name": "Name",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )
    project_id: str = field(
        metadata={
            "name": "ProjectId",
            "type": "Attribute",
            "min_length": 1,
            "white_space": "collapse",
        }
    )


@dataclass(kw_only=True)
class ProjectInfo:
    project: Project = field(
        metadata={
            "name": "Project",
            "type": "Element",
            "namespace": "",
        }
    )
