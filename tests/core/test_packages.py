"""What is installed is what is declared: nothing more is locked, and nothing less."""

import re
import tomllib
from importlib.metadata import requires
from pathlib import Path

from packaging.requirements import Requirement

ROOT = Path(__file__).resolve().parents[2]


def plain(name: str) -> str:
    """A package's name as indexes compare it."""
    return re.sub(r"[-_.]+", "-", name).lower()


def with_needs(declared: list[Requirement]) -> set[str]:
    """Packages with all that they need here."""
    seen: set[tuple[str, tuple[str, ...]]] = set()
    ahead = list(declared)
    while ahead:
        one = ahead.pop()
        key = plain(one.name), tuple(sorted(one.extras))
        if key in seen:
            continue
        seen.add(key)
        for text in requires(one.name) or []:
            need = Requirement(text)
            extras = list(one.extras) or [""]
            if need.marker is None or any(need.marker.evaluate({"extra": extra}) for extra in extras):
                ahead.append(need)
    return {name for name, _ in seen}


def test_every_locked_package_is_declared_or_needed_by_one_that_is():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    declared = [Requirement(d) for d in (*project["dependencies"], *project["optional-dependencies"]["dev"])]
    locked = {plain(line.split("==")[0]) for line in (ROOT / "requirements.lock").read_text().split()}
    assert locked == with_needs(declared)
