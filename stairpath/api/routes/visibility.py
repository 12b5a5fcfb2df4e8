"""What of a building rules show, fade, hide and tint, and views that addresses name."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import numpy as np
import numpy.typing as npt
from fastapi import APIRouter
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core import columns
from stairpath.core.people.roles import Action
from stairpath.core.review.view import View
from stairpath.core.visibility.attributes import What
from stairpath.core.visibility.rules import NO_TINT
from stairpath.work.building import visibility

router = APIRouter(prefix="/api/projects/{project_id}", tags=["views"], responses=ERROR_RESPONSES)


COLUMNS = "application/vnd.stairpath.resolved"
_RESOLVED: dict[int | str, dict[str, Any]] = {
    200: {"content": {COLUMNS: {"schema": {"type": "string", "format": "binary"}}}, "description": "Columns."}
}


@router.post("/resolve", response_class=Response, responses=_RESOLVED)
@asks(Action.LOOK)
def resolve_rules(project_id: str, wish: schemas.RulesRequest) -> Response:
    """How every component appears under rules, and the rules in plain words, as columns (``core/columns``).

    ``states`` (n,) is 0 hidden, 1 faded or 2 shown; ``reasons`` (n,) the place in ``rules`` of the rule that decided, -1
    for none, -2 for an alternative that is not in use; ``tints`` (n,) 0xRRGGBB, -2 for the file's own colours, -1 for
    none, and empty where nothing is tinted. ``rules`` (m,) are places among the rules that were sent, without those
    that later ones leave nothing of or that change nothing; ``done``, ``says``, ``selects``, ``decides`` and ``gone``
    tell of each. ``version`` is the federation's, ``last`` names what the last rule did, ``counts`` are shown, faded,
    hidden.
    """
    seen = visibility.see(project_id, wish.rules)
    found, lines = seen.resolved, seen.rules
    counts = found.counts()

    def numbers(of: Iterable[int]) -> npt.NDArray[np.int32]:
        return np.array(list(of), dtype=np.int32)

    data = columns.pack(
        {
            "version": numbers([seen.version]),
            "counts": numbers([counts["shown"], counts["faded"], counts["hidden"]]),
            "last": [seen.done],
            "rules": numbers(line.place for line in lines),
            "done": [line.done for line in lines],
            "says": [line.says for line in lines],
            "selects": numbers(line.selects for line in lines),
            "decides": numbers(line.decides for line in lines),
            "gone": numbers(line.gone for line in lines),
            "states": found.state,
            "reasons": found.reason(),
            "tints": found.tint if (found.tint != NO_TINT).any() else numbers([]),
        },
        level=1,
    )
    return Response(data, media_type=COLUMNS, headers={"Content-Encoding": "gzip"})


@router.get("/values/{what}")
@asks(Action.LOOK)
def list_values(project_id: str, what: What) -> list[str]:
    """What components of the building have for an attribute."""
    return visibility.values_of(project_id, what)


@router.post("/links", status_code=201)
@asks(Action.LOOK)
def make_link(who: Asker, project_id: str, view: View) -> schemas.LinkMade:
    """Keep a view for an address to name; the same view has the same id."""
    return schemas.LinkMade(id=visibility.link(who, project_id, view))


@router.get("/links/{link_id}")
@asks(Action.LOOK)
def open_link(project_id: str, link_id: str) -> View:
    """The view that an address names."""
    return visibility.linked(project_id, link_id)
