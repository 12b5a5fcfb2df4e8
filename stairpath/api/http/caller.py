"""Who asks: what every router takes from a request's head."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Annotated
from urllib.parse import unquote

from fastapi import Depends, Header, Request, Response

from stairpath.api.http.door import asked_from, let_in_at
from stairpath.work.base.unit_of_work import Target, Who
from stairpath.work.base.versions import version_of

_LONGEST_NAME = 80


_VERSIONED = ("topic_id", "viewpoint_id", "meeting_id", "point_id", "folder_id", "set_id")
"""What in an address names a thing that has versions."""


def _thing(request: Request) -> str:
    thing: str = next(request.path_params[key] for key in _VERSIONED if key in request.path_params)
    return thing


def _versions(if_match: str | None) -> frozenset[int] | None:
    """The versions that a request names (RFC 9110, 13.1.1); None for any."""
    if if_match is None or if_match.strip() == "*":
        return None
    return frozenset(int(each) for each in re.findall(r'(?<!W/)"(\d{1,18})"', if_match))


def _tag(response: Response, version: int) -> None:
    response.headers["ETag"] = f'"{version}"'


def who_asks(request: Request, x_author: Annotated[str, Header(description="Who asks, percent-encoded")] = "") -> Who:
    """Who is signed in. Where nobody signs in yet, the name in the request is believed."""
    who = let_in_at(request).who
    if who is not None:
        return who
    return Who(unquote(x_author).replace("\0", "")[:_LONGEST_NAME], where=asked_from(request))


Asker = Annotated[Who, Depends(who_asks)]


def who_edits(
    who: Asker,
    request: Request,
    response: Response,
    if_match: Annotated[str | None, Header(description="The version that is to be changed, as its ETag was")] = None,
) -> Who:
    """Who changes a thing that has versions, and which of them; the answer says the version that it has then."""
    target = Target(_thing(request), _versions(if_match), lambda version: _tag(response, version))
    return replace(who, target=target)


Editor = Annotated[Who, Depends(who_edits)]


def _tagged(request: Request, response: Response) -> None:
    _tag(response, version_of(_thing(request)))


TAGGED = Depends(_tagged)
"""For an address that answers with one thing: its version, read before it, stands in the head of the answer as ETag."""
