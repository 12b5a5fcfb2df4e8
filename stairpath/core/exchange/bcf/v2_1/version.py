from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class Version:
    detailed_version: None | str = field(
        default=None,
        metadata={
            "name": "DetailedVersion",
            "type": "Element",
            "namespace": "",
        },
    )
    version_id: None | str = field(
        default=None,
        metadata={
            "name": "VersionId",
            "type": "Attribute",
        },
    )
