"""Work in a child process: whatever happens to it, the one who asked hears of it in time."""

import os
import signal
import subprocess
import sys
import time

import numpy as np
import pytest

from stairpath.core import sandbox
from stairpath.core.problems import CannotReadError
from stairpath.core.processes import begun_at
from stairpath.core.sandbox import (
    CancelledError,
    CrashedError,
    Limits,
    RaisedError,
    TooLongError,
    TooMuchMemoryError,
    run_sandboxed,
)
from tests.soak.running import descendants


def who(report):
    return os.getpid()


def fails(how, report):
    report(0.4, "here")
    time.sleep(0.15)
    if how == "crash":
        os.kill(os.getpid(), signal.SIGSEGV)
    if how == "exit":
        os._exit(3)
    if how == "refuse":
        raise CannotReadError("No such tide.")
    if how == "odd":
        raise OddError(lambda: None)
    if how == "eat":
        return np.ones((1 << 30) // 8 * 2).sum()
    if how == "hang":
        time.sleep(60)
    if how == "chatter":
        for k in range(600):
            report(k / 600, "there")
            time.sleep(0.1)
    return None


class OddError(Exception):
    """One that no pipe carries."""


def test_a_child_is_used_again_after_work_that_went_well():
    first = run_sandboxed(who)
    assert first != os.getpid()
    assert run_sandboxed(who) == first
    sandbox.end_idle_children()
    assert run_sandboxed(who) != first


@pytest.mark.parametrize(
    ("how", "kind", "words"),
    [
        ("crash", CrashedError, "died of SIGSEGV"),
        ("exit", CrashedError, "The process died"),
        ("refuse", CannotReadError, "No such tide"),
        ("odd", RaisedError, "OddError: "),
        ("eat", TooMuchMemoryError, "more than the 900 MB"),
        ("hang", TooLongError, "longer than allowed"),
    ],
)
def test_how_it_ended_is_told(how, kind, words):
    with pytest.raises(kind, match=words) as told:
        run_sandboxed(fails, how, limits=Limits(30, 1.5, 900))
    if how in ("crash", "hang"):
        assert told.value.at == "here"
    assert isinstance(run_sandboxed(who), int)


def test_work_that_goes_on_telling_is_ended_when_its_time_is_over():
    began = time.monotonic()
    with pytest.raises(TooLongError):
        run_sandboxed(fails, "chatter", limits=Limits(total_s=1.2, silence_s=60))
    assert time.monotonic() - began < 10


def test_cancelling_ends_it():
    began = time.monotonic()
    with pytest.raises(CancelledError):
        run_sandboxed(fails, "hang", cancelled=lambda: time.monotonic() - began > 0.5)
    assert time.monotonic() - began < 10


def test_children_do_not_outlive_whoever_asked():
    program = (
        "import threading, sys; from tests.core.test_apart import fails; from stairpath.core.sandbox import run_sandboxed; "
        "run_sandboxed(fails, 'hang', on_progress=lambda share, at: print(at, flush=True))"
    )
    with subprocess.Popen([sys.executable, "-c", program], stdout=subprocess.PIPE, text=True) as asker:
        assert asker.stdout.readline() == "here\n"
        before = descendants(asker.pid)
        assert before
        asker.kill()
    deadline = time.monotonic() + 10
    while any(begun_at(pid) for pid in before):
        assert time.monotonic() < deadline
        time.sleep(0.05)


def killed_until(marks, times, report):
    """Killed from outside so often, as far as the marks in a file tell."""
    with marks.open("a") as out:
        out.write("x")
    if len(marks.read_text()) <= times:
        os.kill(os.getpid(), signal.SIGKILL)
    return "done"


def test_work_whose_process_is_killed_is_begun_again_a_few_times(tmp_path, monkeypatch):
    monkeypatch.setattr(sandbox, "_PAUSES_S", (0.0, 0.0))
    marks = tmp_path / "marks"
    assert run_sandboxed(killed_until, marks, 2) == "done"
    assert marks.read_text() == "xxx"
    marks.unlink()
    with pytest.raises(CrashedError, match="SIGKILL"):
        run_sandboxed(killed_until, marks, 9)
    assert marks.read_text() == "xxx"
    # A crash of its own is not tried again.
    with pytest.raises(CrashedError, match="SIGSEGV"):
        run_sandboxed(fails, "crash")
