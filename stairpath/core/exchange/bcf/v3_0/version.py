from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class Version:
    version_id: str = field(
        metadata={
            "name": "VersionId",
            "type": "Attribute",
        }
    )
