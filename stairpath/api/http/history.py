"""The history of a thing as it is sent."""

from __future__ import annotations

from typing import Any

from stairpath.api import schemas
from stairpath.core.review.history import field_name
from stairpath.work.base.history import history_of
from stairpath.work.base.lookup import Kind


def history_shape(kind: Kind[Any], thing_id: str) -> list[schemas.ChangeMade]:
    """What was changed of a thing and of its parts, the last first."""
    return [
        schemas.ChangeMade(
            number=each.number,
            kind=each.kind,
            thing_id=each.thing_id,
            at=each.at,
            author=each.author,
            fields=[
                schemas.ChangedField(name=field_name(field.field), old=field.old, new=field.new)
                for field in each.fields
            ],
        )
        for each in history_of(kind, thing_id)
    ]
