"""The record of a project, and of the server."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Query
from fastapi.responses import StreamingResponse

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.core.register.table import CSV_ENCODING
from stairpath.core.review.history import field_name
from stairpath.work.base.unit_of_work import Who
from stairpath.work.people import record
from stairpath.work.people.record import Form, Wanted

router = APIRouter(prefix="/api", tags=["record"], responses=ERROR_RESPONSES)

_Word = Annotated[str, Query(max_length=200)]


def _wanted(
    who: _Word = "",
    kind: _Word = "",
    thing: _Word = "",
    since: datetime | None = None,
    until: datetime | None = None,
    before: Annotated[int | None, Query(ge=0, le=2**62)] = None,
) -> Wanted:
    """Which entries are meant: by whom, of which kind and thing, from when until when, before which number."""
    return Wanted(who, kind, thing, since, until, before)


Filter = Annotated[Wanted, Depends(_wanted)]
_FILES = {"csv": "text/csv; charset=utf-8", "jsonl": "application/jsonl"}
_FILE: dict[int | str, dict[str, Any]] = {
    200: {"content": {kind: {} for kind in _FILES.values()}, "description": "The record as a file."}
}


def _shape(page: record.Page) -> schemas.Record:
    return schemas.Record(
        entries=[
            schemas.RecordEntry(
                number=row.number, at=row.at, who=row.who, action=row.action, kind=row.kind, thing_id=row.thing_id,
                title=row.title, address=row.address, browser=row.browser, token=row.token,
                fields=[schemas.ChangedField(name=field_name(f.field), old=f.old, new=f.new) for f in row.fields],
            )
            for row in page.entries
        ],
        more=page.more,
        people=page.people,
    )  # fmt: skip


def _file(who: Who, chain: str, wanted: Wanted, form: Form) -> StreamingResponse:
    record.known(chain)  # what is refused is so before anything is sent
    encoding = CSV_ENCODING if form == "csv" else "utf-8"
    first = True

    def pieces() -> Iterator[bytes]:
        nonlocal first
        for piece in record.written(who, chain, wanted, form):
            yield piece.encode(encoding if first else "utf-8")
            first = False

    return StreamingResponse(pieces(), media_type=_FILES[form], headers=named(f"record.{form}"))


@router.get("/projects/{project_id}/record")
@asks(Action.SEE_RECORD)
def get_record(who: Asker, project_id: str, wanted: Filter) -> schemas.Record:
    """What was done in a project, the last first."""
    return _shape(record.page(who, project_id, wanted))


@router.get("/projects/{project_id}/record/{form}", response_class=StreamingResponse, responses=_FILE)
@asks(Action.SEE_RECORD)
def save_record(who: Asker, project_id: str, form: Form, wanted: Filter) -> StreamingResponse:
    """What was done in a project, the first first, as a file."""
    return _file(who, project_id, wanted, form)


@router.get("/record")
@asks(Action.RUN_SERVER)
def get_server_record(who: Asker, wanted: Filter) -> schemas.Record:
    """Who signed in, was refused, was invited and changed on this server, the last first."""
    return _shape(record.page(who, record.SERVER, wanted))


@router.get("/record/{form}", response_class=StreamingResponse, responses=_FILE)
@asks(Action.RUN_SERVER)
def save_server_record(who: Asker, form: Form, wanted: Filter) -> StreamingResponse:
    """The record of the server, the first first, as a file."""
    return _file(who, record.SERVER, wanted, form)
