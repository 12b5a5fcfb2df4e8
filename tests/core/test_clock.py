"""A clock that was set back is noticed, and one that is right again is not spoken of."""

from __future__ import annotations

from stairpath.core.clock import NOTICED_S, ClockWatch


class Hands:
    def __init__(self) -> None:
        self.wall_s, self.steady_s = 1_000_000.0, 50.0

    def on(self, s: float, set_by: float = 0.0) -> None:
        self.wall_s += s + set_by
        self.steady_s += s


def test_a_clock_that_is_set_back_is_noticed_once_until_it_is_right_again():
    hands = Hands()
    watch = ClockWatch(lambda: hands.wall_s, lambda: hands.steady_s)
    assert watch.look() == 0
    hands.on(3600)
    assert watch.look() == 0
    hands.on(1, set_by=-600)
    assert watch.look() == 600
    hands.on(1)
    assert (watch.look(), watch.back_s) == (0, 600)
    hands.on(1, set_by=600)
    assert (watch.look(), watch.back_s) == (0, 0)


def test_a_clock_that_is_kept_right_by_others_is_not_spoken_of():
    hands = Hands()
    watch = ClockWatch(lambda: hands.wall_s, lambda: hands.steady_s)
    for _ in range(20):
        hands.on(60, set_by=-NOTICED_S / 2)
        assert watch.look() == 0
    hands.on(1, set_by=5000)  # set forward: nothing lasts longer by that
    assert (watch.look(), watch.back_s) == (0, 0)
