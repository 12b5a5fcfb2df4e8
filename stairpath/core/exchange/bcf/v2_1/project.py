from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class Project:
    name: None | str = field(
        default=None,
        metadata={
            "name": "Name",
            "type": "Element",
            "namespace": "",
        },
    )
    project_id: str = field(
        metadata={
            "name": "ProjectId",
            "type": "Attribute",
        }
    )


@dataclass(kw_only=True)
class ProjectExtension:
    project: None | Project = field(
        default=None,
        metadata={
            "name": "Project",
            "type": "Element",
            "namespace": "",
        },
    )
    extension_schema: str = field(
        metadata={
            "name": "ExtensionSchema",
            "type": "Element",
            "namespace": "",
        }
    )
