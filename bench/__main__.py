"""``python -m bench``: run every measure, or those of some parts, and write docs/performance.md."""

from __future__ import annotations

import platform
import re
import sys
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from bench import cutting, exchanging, measuring, meshes, people, plans, reading, register, seeing, stage, walking
from bench.measure import Measure
from stairpath.core.reading.shares import cores
from stairpath.demo import write_models
from tests.database import database

_REPORT = Path(__file__).resolve().parents[1] / "docs" / "performance.md"


def _machine() -> str:
    model = next(
        (
            line.split(":", 1)[1].strip()
            for line in Path("/proc/cpuinfo").read_text().splitlines()
            if "model name" in line
        ),
        "unknown processor",
    )
    memory = int(Path("/proc/meminfo").read_text().split()[1]) / (1 << 20)
    return f"{model}, {cores()} cores, {memory:.0f} GB, {platform.system()} {platform.release()}, Python {platform.python_version()}"


@dataclass(frozen=True)
class _Row:
    """A line of the report's table, and how its figures were made."""

    what: str
    cells: str
    how: str


def _row(m: Measure) -> _Row:
    met = "-" if m.wanted is None else ("yes" if m.ratio <= m.wanted else "**no**")
    wanted = "-" if m.wanted is None else f"at most {m.wanted:g}"
    ratio = f"{m.ratio:.2g}" if m.ratio < 0.1 else f"{m.ratio:.2f}"
    cells = f"{m.ours_text} | {m.reference_text} | {ratio} | {wanted} | {met} | {date.today().isoformat()}"
    return _Row(m.what, cells, m.how)


def _kept(text: str) -> list[_Row]:
    """The lines of an earlier report."""
    cells = dict(re.findall(r"^\| ([^|]+) \| (.+ \| \d{4}-\d\d-\d\d) \|$", text, re.MULTILINE))
    how = dict(re.findall(r"^- \*\*(.+?)\*\*: (.+)$", text, re.MULTILINE))
    return [_Row(what, cells[what], how.get(what, "")) for what in cells]


def _report(rows: list[_Row]) -> str:
    lines = [
        "# Performance",
        "",
        f"Measured by `make bench` on: {_machine()}. There is no graphics card; Chromium",
        "draws in software (SwiftShader), which weighs vertices and pixels differently from a card.",
        "Figures are ratios against a reference measured in the same run, so that they hold on other machines.",
        "",
        "| what | ours | reference | ratio | wanted | met | on |",
        "|---|---|---|---|---|---|---|",
        *(f"| {row.what} | {row.cells} |" for row in rows),
        "",
        "## How",
        "",
        *(f"- **{row.what}**: {row.how}" for row in rows if row.how),
    ]
    return "\n".join(lines) + "\n"


Files = list[Path]
PARTS: dict[str, Callable[[Files, str], list[Measure]]] = {
    "meshes": lambda files, url: meshes.measure(files),
    "plans": lambda files, url: plans.measure(files),
    "walking": lambda files, url: walking.measure(files),
    "seeing": lambda files, url: seeing.measure(),
    "cutting": lambda files, url: cutting.measure(),
    "measuring": lambda files, url: measuring.measure(),
    "register": lambda files, url: register.measure(),
    "exchanging": lambda files, url: exchanging.measure(),
    "people": lambda files, url: people.measure(),
    # The stage draws what was read.
    "stage": lambda files, url: reading.measure(files, url) + stage.measure(url),
}


def main(*names: str) -> None:
    """Measure the named parts, or everything, and write the report; what is not measured stays as it was found before."""
    unknown = [name for name in names if name not in PARTS]
    if unknown:
        raise SystemExit(f"There is no {unknown[0]} to measure; choose {', '.join(PARTS)}.")
    rows = {row.what: row for row in _kept(_REPORT.read_text())} if names else {}
    with tempfile.TemporaryDirectory() as folder, database() as url:
        files = write_models(Path(folder))
        for name in names or PARTS:
            rows |= {m.what: _row(m) for m in PARTS[name](files, url)}
    _REPORT.write_text(_report(list(rows.values())))
    print(_REPORT.read_text())


if __name__ == "__main__":
    main(*sys.argv[1:])
