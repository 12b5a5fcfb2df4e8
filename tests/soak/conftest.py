"""The application as its start command keeps it, once for all soaks."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path

import pytest

from stairpath.start.postgres import free_port
from tests.database import run_beside
from tests.soak.running import Running


@pytest.fixture(scope="module")
def running():
    folder = Path(tempfile.mkdtemp(prefix="stairpath-soak-", dir="/var/tmp"))
    folder.chmod(0o755)
    made = Running(folder, free_port(9200 + 100 * run_beside()))
    try:
        made.start()
        yield made
    finally:
        made.stop()
        shutil.rmtree(folder, ignore_errors=True)
