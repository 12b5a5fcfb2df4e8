"""``python -m bench``: run every measure and write docs/performance.md."""

from __future__ import annotations

import platform
import tempfile
from datetime import date
from pathlib import Path

from bench import cutting, measuring, meshes, plans, reading, register, seeing, stage, walking
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


def _report(measures: list[Measure]) -> str:
    lines = [
        "# Performance",
        "",
        f"Measured on {date.today().isoformat()} by `make bench` on: {_machine()}. There is no graphics card; Chromium",
        "draws in software (SwiftShader), which weighs vertices and pixels differently from a card.",
        "Figures are ratios against a reference measured in the same run, so that they hold on other machines.",
        "",
        "| what | ours | reference | ratio | wanted | met |",
        "|---|---|---|---|---|---|",
    ]
    for m in measures:
        met = "-" if m.wanted is None else ("yes" if m.ratio <= m.wanted else "**no**")
        wanted = "-" if m.wanted is None else f"at most {m.wanted:g}"
        lines.append(f"| {m.what} | {m.ours_text} | {m.reference_text} | {m.ratio:.2f} | {wanted} | {met} |")
    lines += ["", "## How", ""]
    lines += [f"- **{m.what}**: {m.how}" for m in measures]
    return "\n".join(lines) + "\n"


def main() -> None:
    """Measure everything and write the report."""
    with tempfile.TemporaryDirectory() as folder:
        files = write_models(Path(folder))
        measures = meshes.measure(files) + plans.measure(files) + walking.measure(files) + seeing.measure()
        measures += cutting.measure() + measuring.measure() + register.measure()
        with database() as url:
            measures += reading.measure(files, url)
            measures += stage.measure(url)
    _REPORT.write_text(_report(measures))
    print(_REPORT.read_text())


if __name__ == "__main__":
    main()
