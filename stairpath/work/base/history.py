"""What was changed of a thing that people edit."""

from __future__ import annotations

from typing import Any

from stairpath.store import history
from stairpath.store.tables import ChangeMade
from stairpath.work.base.lookup import Kind, find
from stairpath.work.base.unit_of_work import read_only


def history_of(kind: Kind[Any], thing_id: str) -> list[ChangeMade]:
    """What was changed of a thing and of its parts, the last first. Raises what ``find`` raises."""
    with read_only() as look:
        return history.history(look.session, find(look, kind, thing_id).id)
