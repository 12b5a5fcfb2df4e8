"""Routes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Name
from stairpath.core.walking.route_answer import RouteAnswer, RouteRequest

Limit = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]


class NewRoute(BaseModel):
    name: Name
    wish: RouteRequest


class SavedRoute(BaseModel):
    """A kept route with its answer when it was kept."""

    id: str
    name: str
    author: str
    created_at: datetime
    wish: RouteRequest
    answer: RouteAnswer
