"""Print the server's OpenAPI document, from which the browser's types are generated."""

from __future__ import annotations

import json
import sys
from typing import Any

from stairpath.api.server import create_app


def _as_lists(part: Any) -> Any:
    """The same document with tuples of equal members as lists of so many: a point is an array of numbers in the browser."""
    if isinstance(part, list):
        return [_as_lists(each) for each in part]
    if not isinstance(part, dict):
        return part
    members = part.get("prefixItems")
    if members and all(each == members[0] for each in members):
        part = {key: value for key, value in part.items() if key != "prefixItems"} | {"items": members[0]}
    return {key: _as_lists(value) for key, value in part.items()}


sys.stdout.write(json.dumps(_as_lists(create_app().openapi()), indent=1))
