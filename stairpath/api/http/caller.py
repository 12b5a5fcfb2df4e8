"""Who asks: what every router takes from a request's head."""

from __future__ import annotations

import re
from typing import Annotated
from urllib.parse import unquote

from fastapi import Depends, Header, Request, Response

from stairpath.work.base.unit_of_work import Target, Who
from stairpath.work.base.versions import version_of

_LONGEST_NAME = 80


_VERSIONED = ("topic_id", "viewpoint_id", "meeting_id", "point_id", "folder_id", "set_id")
"""What in an address names a thing that has versions."""


def _thing(request: Request) -> str | None:
    return next((request.path_params[key] for key in _VERSIONED if key in request.path_params), None)


def _versions(if_match: str | None) -> frozenset[int] | None:
    """The versions that a request names (RFC 9110, 13.1.1); None for any."""
    if if_match is None or if_match.strip() == "*":
        return None
    return frozenset(int(each) for each in re.findall(r'(?<!W/)"(\d{1,18})"', if_match))


def _tag(response: Response, version: int) -> None:
    response.headers["ETag"] = f'"{version}"'


def who_asks(
    request: Request,
    response: Response,
    x_author: Annotated[str, Header(description="Who asks, percent-encoded")] = "",
    if_match: Annotated[str | None, Header(description="The version that is to be changed, as its ETag was")] = None,
) -> Who:
    """The name in the request, and what it is about; until people sign in a name is believed."""
    name = unquote(x_author).replace("\0", "")[:_LONGEST_NAME]
    thing = _thing(request)
    if thing is None:
        return Who(name)
    return Who(name, Target(thing, _versions(if_match), lambda version: _tag(response, version)))


Asker = Annotated[Who, Depends(who_asks)]


def _tagged(request: Request, response: Response) -> None:
    thing = _thing(request)
    if thing is not None:
        _tag(response, version_of(thing))


TAGGED = Depends(_tagged)
"""For an address that answers with one thing: its version, read before it, stands in the head of the answer as ETag."""
