"""Shared lookups of the routers, with their clear refusals."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends, HTTPException
from sqlalchemy.orm import Session

from stairpath.store.database import transaction
from stairpath.store.tables import Model, Project


def session() -> Iterator[Session]:
    """One transaction a request."""
    with transaction() as opened:
        yield opened


Database = Annotated[Session, Depends(session, scope="function")]


def project_of(database: Database, project_id: str) -> Project:
    project = database.get(Project, project_id)
    if project is None:
        raise HTTPException(404, "There is no such project; open it from the start page.")
    return project


def model_of(database: Database, model_id: str) -> Model:
    model = database.get(Model, model_id)
    if model is None:
        raise HTTPException(404, "There is no such model; reload the page.")
    return model


TheProject = Annotated[Project, Depends(project_of)]
TheModel = Annotated[Model, Depends(model_of)]
