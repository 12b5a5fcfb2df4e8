"""What is kept in memory: made once for each key, without holding up others, within its size."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial

import numpy as np
import pytest

from stairpath.core.cache import Cache, bytes_of


def test_many_who_ask_at_once_get_what_is_made_once():
    cache: Cache[int, np.ndarray] = Cache(64)
    made: list[int] = []

    def make(key: int) -> np.ndarray:
        made.append(key)
        return np.full(100, key)

    with ThreadPoolExecutor(16) as pool:
        found = list(pool.map(lambda k: cache.get(k % 7, lambda: make(k % 7))[0], range(700)))
    assert found == [k % 7 for k in range(700)]
    assert sorted(made) == list(range(7))


def test_one_that_takes_long_holds_up_only_who_asks_for_the_same():
    cache: Cache[str, str] = Cache(1)
    begun, go_on = threading.Event(), threading.Event()

    def slow() -> str:
        begun.set()
        assert go_on.wait(20)
        return "slow"

    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(cache.get, "a", slow)
        assert begun.wait(20)
        assert cache.get("b", lambda: "quick") == "quick"
        second = pool.submit(cache.get, "a", lambda: "never made")
        assert not second.done()
        go_on.set()
        assert (first.result(20), second.result(20)) == ("slow", "slow")


def test_who_waits_while_it_fails_and_who_comes_later_never_make_it_side_by_side():
    """The first fails while a second waits; a third who comes then waits for the second instead of making it too."""
    cache: Cache[str, str] = Cache(1)
    begun, fail, second_begun, second_go_on = (threading.Event() for _ in range(4))

    def first() -> str:
        begun.set()
        assert fail.wait(20)
        raise ValueError("not now")

    def second() -> str:
        second_begun.set()
        assert second_go_on.wait(20)
        return "second"

    with ThreadPoolExecutor(3) as pool:
        failing = pool.submit(cache.get, "a", first)
        assert begun.wait(20)
        waiting = pool.submit(cache.get, "a", second)
        fail.set()
        with pytest.raises(ValueError, match="not now"):
            failing.result(20)
        assert second_begun.wait(20)
        late = pool.submit(cache.get, "a", lambda: "third")
        second_go_on.set()
        assert (waiting.result(20), late.result(20)) == ("second", "second")


def test_what_cannot_be_made_is_not_kept_and_is_tried_again():
    cache: Cache[str, int] = Cache(1)

    def fails() -> int:
        raise ValueError("not now")

    with pytest.raises(ValueError, match="not now"):
        cache.get("a", fails)
    assert cache.get("a", lambda: 3) == 3


def test_an_owner_keeps_the_newest_and_the_size_is_kept():
    cache: Cache[tuple[str, int], bytes] = Cache(1, owner_of=lambda key: key[0])
    for version in range(3):
        cache.get(("p", version), partial(bytes, [version]))
    assert [cache.peek(("p", version)) for version in range(3)] == [None, None, b"\2"]
    assert cache.latest_of("p") == b"\2"
    for owner in "abcde":
        cache.get((owner, 0), lambda: bytes(300_000))
    kept = [owner for owner in "pabcde" if cache.latest_of(owner) is not None]
    assert kept == ["c", "d", "e"]
    assert cache.get(("large", 0), lambda: bytes(2_000_000)) == bytes(2_000_000)
    assert cache.peek(("large", 0)) is None
    cache.forget("e")
    assert cache.latest_of("e") is None


@dataclass
class Held:
    names: list[str]
    rows: np.ndarray


def test_the_size_of_something_is_about_that_of_its_parts():
    assert 800_000 < bytes_of(Held([], np.zeros(100_000))) < 900_000
    many = bytes_of(Held([f"name {k}" for k in range(100_000)], np.zeros(1)))
    assert 5_000_000 < many < 12_000_000
    shared = np.zeros(100_000)
    assert bytes_of([shared, shared]) < 900_000
