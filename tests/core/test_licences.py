"""What may be shipped by its licence: permissive ones and weak copyleft, of alternatives one."""

import runpy
from pathlib import Path

import pytest

may_ship = runpy.run_path(str(Path(__file__).resolve().parents[2] / "scripts/licences.py"))["may_ship"]


@pytest.mark.parametrize(
    ("licence", "may"),
    [
        ("MIT", True),
        ("LGPL-3.0-or-later", True),
        ("BSD-2-Clause AND Apache-2.0 WITH LLVM-exception", True),
        ("GNU General Public License v2 or later (GPLv2+); Mozilla Public License 1.1 (MPL 1.1)", True),
        ("(MIT OR GPL-3.0)", True),
        ("GPL-3.0-only", False),
        ("GNU General Public License v3 (GPLv3)", False),
        ("GNU Affero General Public License v3", False),
        ("MIT AND AGPL-3.0", False),
        ("UNKNOWN", False),
        ("UNLICENSED", False),
        ("", False),
    ],
)
def test_what_may_be_shipped(licence, may):
    assert may_ship(licence) is may
