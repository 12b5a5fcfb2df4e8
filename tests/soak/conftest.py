"""The application as its start command keeps it, once for all soaks."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path

import pytest

from tests.ports import port_of_own
from tests.soak.running import Running


@pytest.fixture(scope="module")
def running():
    folder = Path(tempfile.mkdtemp(prefix="stairpath-soak-", dir="/var/tmp"))
    folder.chmod(0o755)
    made = Running(folder, port_of_own())
    try:
        made.start()
        yield made
    finally:
        made.stop()
        shutil.rmtree(folder, ignore_errors=True)
