"""Lists that several people change at once."""

from stairpath.core.review.entries import Entries


def test_two_people_who_change_one_list_lose_nothing_of_each_other():
    begun = ["roof", "stair"]
    one, other = Entries(add=("duct",)), Entries(add=("door", "duct"), drop=("roof",))
    assert other.applied(one.applied(begun)) == ["stair", "duct", "door"]
    assert set(one.applied(other.applied(begun))) == {"stair", "duct", "door"}
    assert Entries().applied(begun) == begun
