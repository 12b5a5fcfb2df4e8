"""Topics of findings after another run of their check."""

from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.review.recheck import Known, Measured, OfFinding, Proposal, pair, proposals, worst

DEEP, LESS, NEAR = Measured("overlap", 0.038, 0.0), Measured("overlap", 0.012, 0.0), Measured("clearance", 0.0, 0.03)
PAIR = pair("duct", "beam")


def topic(ended=False, measured=DEEP, pairs=(PAIR,)):
    return Known("t", OfFinding("check", tuple(pairs), measured), ended)


def test_a_pair_is_the_same_whichever_came_first():
    assert pair("b", "a") == pair("a", "b") == ("a", "b")


def test_what_is_gone_is_proposed_as_solved_and_what_came_back_as_open_again():
    assert proposals([topic()], {}) == [Proposal("t", "gone", DEEP, None)]
    assert proposals([topic(ended=True)], {}) == []
    assert proposals([topic(ended=True)], {PAIR: LESS}) == [Proposal("t", "back", DEEP, LESS)]


def test_another_depth_is_told_and_the_same_is_not():
    assert proposals([topic()], {PAIR: LESS}) == [Proposal("t", "other", DEEP, LESS)]
    assert proposals([topic()], {PAIR: Measured("overlap", 0.0385, 0.0)}) == []
    # No overlap any more, but still too near.
    assert proposals([topic()], {PAIR: NEAR}) == [Proposal("t", "other", DEEP, NEAR)]


def test_nothing_is_proposed_as_gone_where_not_all_findings_are_known():
    assert proposals([topic()], {}, whole=False) == []


def test_of_several_pairs_the_worst_counts():
    other = pair("duct", "slab")
    found = {PAIR: LESS, other: DEEP}
    assert proposals([topic(measured=LESS, pairs=(PAIR, other))], found) == [Proposal("t", "other", LESS, DEEP)]
    assert worst([]) is None


measures = st.builds(Measured, st.just("overlap"), st.floats(0, 1), st.just(0.0)) | st.builds(
    Measured, st.just("clearance"), st.just(0.0), st.floats(0.001, 1)
)


@given(st.lists(measures, min_size=1))
def test_an_overlap_is_worse_than_anything_that_is_apart(some):
    found = worst(some)
    assert found is not None
    assert found.kind == "overlap" or all(each.kind == "clearance" for each in some)
