"""Who asks: what every router takes from a request's head."""

from __future__ import annotations

from typing import Annotated
from urllib.parse import unquote

from fastapi import Depends, Header

from stairpath.work.base.unit_of_work import Who

_LONGEST_NAME = 80


def who_asks(x_author: Annotated[str, Header(description="Who asks, percent-encoded")] = "") -> Who:
    """The name in the request; until people sign in a name is believed."""
    return Who(unquote(x_author).replace("\0", "")[:_LONGEST_NAME])


Asker = Annotated[Who, Depends(who_asks)]
