"""The start command's care: ports that are taken, marks that are stale."""

import os
import signal
import socket
import subprocess
import sys
import time
from pathlib import Path

import pytest

from stairpath.core.processes import begun_at
from stairpath.start import demo
from stairpath.start.demo import alone
from stairpath.start.postgres import CannotStartError, free_port
from stairpath.start.processes import Left, OneOnly, Watched, watching


def test_a_taken_port_gives_the_next():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert free_port(port) != port
        with pytest.raises(CannotStartError, match="is free; stop something"):
            free_port(port, tries=1)


def sleeper(tmp_path, *command: str) -> Watched:
    return Watched("sleeper", list(command) or ["sleep", "60"], tmp_path, Path("/"))


def looked(watched: Watched, said: list[str]) -> bool:
    watched.look(said.append)
    return True


def until(done, patience_s: float = 10.0):
    deadline = time.monotonic() + patience_s
    while not done():
        assert time.monotonic() < deadline
        time.sleep(0.02)


def test_children_end_with_their_parent(tmp_path):
    with watching([sleeper(tmp_path)]) as (started,):
        child = started.child
        assert child.poll() is None
    assert child.poll() is not None


def test_a_process_that_is_killed_is_back_at_once(tmp_path):
    said: list[str] = []
    with watching([sleeper(tmp_path)]) as (started,):
        first = started.child.pid
        os.kill(first, signal.SIGKILL)
        began = time.monotonic()
        until(lambda: looked(started, said) and started.child is not None and started.child.pid != first)
        assert time.monotonic() - began < 5
    assert said == ["The sleeper was ended by SIGKILL; it is started again."]


def test_after_five_deaths_in_a_minute_it_says_why_and_where_the_log_is(tmp_path, monkeypatch):
    monkeypatch.setattr("stairpath.start.processes.PAUSES_S", (0.01,))
    said: list[str] = []
    failing = sleeper(tmp_path, "sh", "-c", "echo the quay is flooded; exit 3")
    with watching([failing]):
        until(lambda: looked(failing, said) and failing.given_up)
        for _ in range(20):
            failing.look(said.append)
            time.sleep(0.01)
        assert failing.child is None
    assert said[:4] == ["The sleeper ended with 3; it is started again."] * 4
    assert len(said) == 5
    assert "ended 5 times in a minute" in said[4]
    assert "the quay is flooded" in said[4]
    assert str(tmp_path / "sleeper.log") in said[4]


def test_what_a_killed_start_left_is_ended_by_the_next(tmp_path):
    left = Left(tmp_path / "processes.json")
    assert left.end_all() == 0
    started = sleeper(tmp_path)
    started.start()
    left.note([started])
    assert Left(tmp_path / "processes.json").end_all() == 1
    assert started.child.wait(5) is not None
    assert not (tmp_path / "processes.json").exists()


def test_the_note_of_who_runs_is_never_half_written(tmp_path, monkeypatch):
    """Killed in the middle of writing a newer note, a start leaves the one before, whole."""
    path = tmp_path / "processes.json"
    first, second = sleeper(tmp_path), sleeper(tmp_path)
    left = Left(path)
    with watching([first, second]):
        left.note([first])
        whole = path.read_text()
        monkeypatch.setattr(Path, "replace", lambda self, to: (_ for _ in ()).throw(KeyboardInterrupt))
        with pytest.raises(KeyboardInterrupt):
            left.note([first, second])
        assert path.read_text() == whole


def test_a_number_that_another_process_has_by_now_is_left_alone(tmp_path):
    (tmp_path / "processes.json").write_text(f'{{"{os.getpid()}": "1"}}')
    assert begun_at(os.getpid()) != "1"
    assert Left(tmp_path / "processes.json").end_all() == 0


def test_processes_end_when_the_start_command_is_killed(tmp_path):
    """A process of its own starts one and is killed outright."""
    program = (
        "import sys, time; from pathlib import Path; from stairpath.start.processes import Watched; "
        f"w = Watched('s', ['sleep', '60'], Path({str(tmp_path)!r}), Path('/')); w.start(); "
        "print(w.child.pid, flush=True); time.sleep(60)"
    )
    with subprocess.Popen([sys.executable, "-c", program], stdout=subprocess.PIPE, text=True) as start:
        pid = int(start.stdout.readline())
        assert begun_at(pid)
        start.kill()
    until(lambda: not begun_at(pid))


def test_only_one_start_at_a_time_holds_a_folder(tmp_path):
    first, second = OneOnly(tmp_path / "lock"), OneOnly(tmp_path / "lock")
    assert first.take()
    assert not second.take()
    first.release()
    assert second.take()
    second.release()


def test_a_stale_mark_is_cleared_and_a_start_that_still_stops_is_waited_for(tmp_path, monkeypatch, capsys):
    (tmp_path / "running").write_text("http://127.0.0.1:1")
    lock = alone(tmp_path)
    assert isinstance(lock, OneOnly)
    assert not (tmp_path / "running").exists()
    monkeypatch.setattr(demo, "_STOPPING_S", 0.5)
    with pytest.raises(CannotStartError, match="neither answers nor ends"):
        alone(tmp_path)
    assert "still starting or stopping; waiting for it" in capsys.readouterr().out
    lock.release()
    again = alone(tmp_path)
    assert isinstance(again, OneOnly)
    again.release()
