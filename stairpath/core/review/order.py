"""The order that somebody gives things by hand."""

from __future__ import annotations

from collections.abc import Sequence


def moved(order: Sequence[str], these: Sequence[str], before: str | None) -> list[str]:
    """An order with some of it, or with more, put before another one of it, or last; these keep their own order.

    Put before one of themselves they stand where that one stood.

    >>> moved(["a", "b", "c", "d"], ["d", "b"], "a")
    ['d', 'b', 'a', 'c']
    """
    put = list(dict.fromkeys(these))
    if before in put:
        after = order[order.index(before) :] if before in order else []
        before = next((each for each in after if each not in put), None)
    rest = [each for each in order if each not in put]
    at = rest.index(before) if before in rest else len(rest)
    return [*rest[:at], *put, *rest[at:]]
