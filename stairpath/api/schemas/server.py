"""How the server is, and what projects may hold."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

_Megabytes = Annotated[int, Field(ge=1, le=100_000_000)]


class ProjectLimits(BaseModel):
    """The most that a project may hold: a file as it arrives and unpacked, all that is kept, components, and work at once."""

    model_config = ConfigDict(from_attributes=True)
    file_mb: _Megabytes
    unpacked_mb: _Megabytes
    storage_mb: _Megabytes
    components: int = Field(ge=1, le=1_000_000_000)
    tasks: int = Field(ge=1, le=10_000)


class LimitsShown(BaseModel):
    """What a project may hold, and what it holds."""

    limits: ProjectLimits
    storage_bytes: int
    components: int
    tasks: int


class LimitsWish(BaseModel):
    """What a project is to hold at most; null for what the server lets each project hold."""

    limits: ProjectLimits | None


class ServerProject(BaseModel):
    """A project as the owners of the server see it; ``own_limits`` where its limits are not those of the server."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    owners: list[str]
    models: int
    components: int
    storage_bytes: int
    limits: ProjectLimits
    own_limits: bool
    removed_at: datetime | None
    visited_at: datetime | None


class Failure(BaseModel):
    """A model, a check, a sheet, an import or a building that failed, and why."""

    model_config = ConfigDict(from_attributes=True)
    project: str
    project_id: str
    what: str
    name: str
    why: str
    at: datetime


class Backup(BaseModel):
    """When the last backup was made, and where it was written to."""

    model_config = ConfigDict(from_attributes=True)
    at: datetime
    to: str


class ServerState(BaseModel):
    """How the server is; ``kept_most_bytes`` is 0 where only the disk is a limit."""

    model_config = ConfigDict(from_attributes=True)
    versions: dict[str, str]
    database_bytes: int
    kept_bytes: int
    kept_most_bytes: int
    free_bytes: int
    people: int
    sign_ins: int
    jobs: dict[str, int]
    failures: list[Failure]
    backup: Backup | None
    certificate_until: datetime | None
    clock_back_s: float
