"""Telling processes apart."""

from __future__ import annotations

from pathlib import Path


def begun_at(pid: int) -> str:
    """When a process was started, in the kernel's ticks; empty if there is none. Tells numbers that are used again."""
    try:
        stat = Path(f"/proc/{pid}/stat").read_text()
    except OSError:
        return ""
    # The name, in parentheses, may hold spaces; the state follows it, and the start time is the 22nd of all fields (proc(5)).
    fields = stat.rsplit(")", 1)[1].split()
    return "" if fields[0] == "Z" else fields[19]
