"""The start command's care: ports that are taken, marks that are stale."""

import os
import socket

import pytest

from stairpath.start.demo import _already_running, children
from stairpath.start.postgres import CannotStartError, free_port


def test_a_taken_port_gives_the_next():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert free_port(port) != port
        with pytest.raises(CannotStartError, match="is free; stop something"):
            free_port(port, tries=1)


def test_a_stale_mark_is_cleared(tmp_path):
    mark = tmp_path / "running"
    assert _already_running(mark) is None
    mark.write_text(f"{os.getpid()} http://127.0.0.1:1")
    assert _already_running(mark) is None
    assert not mark.exists()


def test_children_end_with_their_parent(tmp_path):
    with children({"sleeper": ["sleep", "60"]}, tmp_path) as started:
        sleeper = started["sleeper"]
        assert sleeper.poll() is None
    assert sleeper.poll() is not None
