"""The building as the page puts it together: the head with each model's columns."""

from __future__ import annotations

import gzip
import json
import urllib.request
from collections.abc import Callable, Sequence
from typing import Any

from stairpath.core import columns


def whole(site: str, project: str) -> dict[str, Any]:
    """A project's federation with its columns, of a server that runs."""

    def fetch(address: str) -> bytes:
        with urllib.request.urlopen(site + address, timeout=30) as answer:
            data: bytes = answer.read()
            return gzip.decompress(data) if data[:2] == b"\x1f\x8b" else data

    return assembled(json.loads(fetch(f"/api/projects/{project}/federation")), fetch)


def assembled(head: dict[str, Any], fetch: Callable[[str], bytes]) -> dict[str, Any]:
    """A federation's head with what is per component in lists; ``fetch`` gives the bytes of an address, unpacked."""
    for model in head["models"]:
        for sha in (model["named"], model["placed"]):
            found = columns.unpack(gzip.compress(fetch(f"/api/projects/{head['id']}/columns/{sha}")))
            lists = {
                name: list(column) if isinstance(column, list) else column.tolist() for name, column in found.items()
            }
            model |= {f"{name}s" if name in ("global_id", "label") else name: values for name, values in lists.items()}
    return head


def resolved(client: Any, project: str, rules: Sequence[dict[str, Any]]) -> dict[str, Any]:
    """What rules come to in a project, as the page reads it: columns as lists, and a line for each rule that counts."""
    answer = client.post(f"/api/projects/{project}/resolve", json={"rules": list(rules)})
    assert answer.status_code == 200, answer.text
    found = columns.unpack(gzip.compress(answer.content))
    lines = zip(*(found[name] for name in ("rules", "done", "says", "selects", "decides", "gone")), strict=True)
    shown, faded, hidden = found["counts"].tolist()
    return {
        "version": int(found["version"][0]), "done": found["last"][0], "shown": shown, "faded": faded, "hidden": hidden,
        "rules": [
            {"rule": rules[place], "done": done, "says": says, "selects": selects, "decides": decides, "gone": gone}
            for place, done, says, selects, decides, gone in lines
        ],
        **{name: found[name].tolist() for name in ("states", "reasons", "tints")},
    }  # fmt: skip
