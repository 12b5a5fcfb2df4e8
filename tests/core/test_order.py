"""The order that somebody gives things by hand."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.review.order import moved

letters = st.lists(st.sampled_from("abcdefgh"), unique=True)


@given(letters, letters, st.one_of(st.none(), st.sampled_from("abcdefgh")))
def test_what_is_moved_stands_together_before_what_was_meant_and_nothing_is_lost(order, these, before):
    after = moved(order, these, before)
    assert sorted(after) == sorted({*order, *these})
    at = [after.index(each) for each in these]
    assert at == list(range(at[0], at[0] + len(at))) if at else after == order
    assert [each for each in after if each not in these] == [each for each in order if each not in these]
    if these and before in order and before not in these:
        assert after.index(before) == at[-1] + 1
    elif these and before is None:
        assert at[-1] == len(after) - 1


def test_put_before_one_of_themselves_they_stand_where_that_one_stood():
    assert moved(["a", "b", "c", "d"], ["b", "c"], "b") == ["a", "b", "c", "d"]
    assert moved(["a", "b", "c", "d"], ["c", "a"], "c") == ["b", "c", "a", "d"]
