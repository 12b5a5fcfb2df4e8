"""List what is shipped with its licences, for docs/licences.md and the page of notices; stop at one that may not be shipped.

Both lists come from kept tools that look at what is installed: pip-licenses and license-checker.
"""

from __future__ import annotations

import json
import re
import subprocess
import sys
from dataclasses import asdict, dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
WEB = ROOT / "web"

ALLOWED = (
    "0BSD", "Apache", "Apache Software License", "BSD", "BSD License", "BlueOak", "CC0", "CC-BY", "HPND", "ISC",
    "ISC License", "LGPL", "GNU Lesser General Public License", "MIT", "MIT License", "MPL", "Mozilla Public License",
    "OFL", "PSF", "Python", "Unlicense", "Zlib",
)  # fmt: skip
"""Beginnings of licences under which something may be shipped: permissive ones, and weak copyleft for what is used as it is."""


@dataclass(frozen=True)
class Notice:
    """A package that is shipped, under which licence, and that licence's text where the package has one."""

    name: str
    version: str
    licence: str
    text: str


def may_ship(licence: str) -> bool:
    """Whether something under a licence may be shipped: of alternatives one, of what counts together all.

    >>> may_ship("MIT OR Apache-2.0"), may_ship("BSD-2-Clause AND GPL-3.0-only"), may_ship("UNKNOWN")
    (True, False, False)
    """
    return any(
        all(part.strip(" ()").startswith(ALLOWED) for part in re.split(r"\s+AND\s+", way))
        for way in re.split(r";|\s+OR\s+", licence)
    )


def of_python() -> list[Notice]:
    """The packages of requirements.lock."""
    names = re.findall(r"^([\w.-]+)==", (ROOT / "requirements.lock").read_text(), re.M)
    tool = [Path(sys.executable).with_name("pip-licenses"), "--from=mixed", "--format=json", "--with-license-file"]
    found = json.loads(subprocess.check_output([*tool, "--no-license-path", "--packages", *names]))
    return [
        Notice(each["Name"], each["Version"], each["License"], each["LicenseText"].replace("UNKNOWN", "").strip())
        for each in found
    ]


def of_the_page() -> list[Notice]:
    """The packages that the page is built of."""
    tool = ["npx", "license-checker-rseidelsohn", "--production", "--json", "--excludePrivatePackages"]
    found = json.loads(subprocess.check_output(tool, cwd=WEB, stderr=subprocess.DEVNULL))
    out = []
    for key, each in found.items():
        name, _, version = key.rpartition("@")
        file = Path(each.get("licenseFile", ""))
        text = file.read_text(encoding="utf-8").strip() if file.is_file() and "LICEN" in file.name.upper() else ""
        out.append(Notice(name, version, str(each["licenses"]), text))
    return out


def main() -> None:
    """Write both files; stop where a licence is unknown or may not be shipped."""
    parts = {"The server": of_python(), "The page": of_the_page()}
    wrong = [each for part in parts.values() for each in part if not may_ship(each.licence)]
    if wrong:
        sys.exit(
            "\n".join(
                f"{each.name} {each.version} is under {each.licence}, which may not be shipped." for each in wrong
            )
        )
    lines = [
        "# Licences of what is shipped",
        "",
        "Made by `make licences` from what is installed; `make test` checks it.",
    ]
    for title, part in parts.items():
        lines += ["", f"## {title}", "", "| package | version | licence |", "|---|---|---|"]
        lines += [f"| {n.name} | {n.version} | {n.licence} |" for n in sorted(part, key=lambda n: n.name.lower())]
    told = [
        {"part": title, "packages": [asdict(n) for n in sorted(p, key=lambda n: n.name.lower())]}
        for title, p in parts.items()
    ]
    for path, text in (
        (ROOT / "docs/licences.md", "\n".join(lines)),
        (WEB / "src/start/notices.json", json.dumps(told, ensure_ascii=False, indent=1)),
    ):
        if "--check" not in sys.argv:
            path.write_text(f"{text}\n", encoding="utf-8")
        elif path.read_text(encoding="utf-8") != f"{text}\n":
            sys.exit(f"{path.relative_to(ROOT)} is not of what is installed. Run make licences.")


if __name__ == "__main__":
    main()
