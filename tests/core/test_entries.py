"""Lists that several people change at once."""

import pytest

from stairpath.core.review.entries import Entries, moved


def test_two_people_who_change_one_list_lose_nothing_of_each_other():
    begun = ["roof", "stair"]
    one, other = Entries(add=("duct",)), Entries(add=("door", "duct"), drop=("roof",))
    assert other.applied(one.applied(begun)) == ["stair", "duct", "door"]
    assert set(one.applied(other.applied(begun))) == {"stair", "duct", "door"}
    assert Entries().applied(begun) == begun


@pytest.mark.parametrize(
    ("entry", "before", "order"),
    [("c", "a", "cab"), ("a", None, "bca"), ("a", "gone", "bca"), ("b", "c", "abc"), ("d", "b", "adbc")],
)
def test_an_entry_is_put_before_another(entry, before, order):
    assert "".join(moved("abc", entry, before)) == order
