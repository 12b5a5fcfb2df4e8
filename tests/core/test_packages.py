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


def locked(name: str) -> dict[str, str]:
    """The packages of a lock file with their versions."""
    lines = (ROOT / name).read_text().splitlines()
    pinned = [re.match(r"([\w.-]+)==(\S+)", line) for line in lines]
    return {plain(match[1]): match[2] for match in pinned if match}


def test_every_locked_package_is_declared_or_needed_by_one_that_is():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    run = [Requirement(each) for each in project["dependencies"]]
    dev = [Requirement(each) for each in project["optional-dependencies"]["dev"]]
    assert set(locked("requirements.lock")) == with_needs(run)
    assert set(locked("requirements-dev.lock")) == with_needs([*run, *dev])


def test_development_runs_what_is_shipped():
    run, dev = locked("requirements.lock"), locked("requirements-dev.lock")
    assert run.items() <= dev.items()
    for name in ("requirements.lock", "requirements-dev.lock"):
        assert (ROOT / name).read_text().count("--hash=sha256:") >= len(locked(name))


def test_each_package_has_bounds():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    for each in map(Requirement, project["dependencies"]):
        assert {spec.operator for spec in each.specifier} == {">=", "<"}, each
