"""Who may what, by role and by what ties somebody to a thing."""

from __future__ import annotations

import itertools

import pytest

from stairpath.core.people.roles import LEAST, ROLES, Action, highest, may, may_some, refusal

OUTSIDE = {
    Action.ANYTHING_OPEN,
    Action.OWN_ACCOUNT,
    Action.OWN_SIGN_IN,
    Action.OWN_TOKENS,
    Action.MAKE_PROJECTS,
    Action.RUN_SERVER,
}


def test_each_role_may_what_those_before_it_may_and_something_more():
    may_by = [{action for action in LEAST if may(role, action)} for role in ROLES]
    for less, more in itertools.pairwise(may_by):
        assert less < more


def test_what_is_not_in_the_table_nobody_may():
    assert set(Action) - set(LEAST) == OUTSIDE
    assert not any(may(role, action, ("made", "given")) for role in ROLES for action in OUTSIDE)


@pytest.mark.parametrize(
    ("role", "action", "ties", "allowed"),
    [
        ("look", Action.CHANGE_TOPIC, {"made", "given"}, False),
        ("comment", Action.CHANGE_TOPIC, set(), False),
        ("comment", Action.CHANGE_TOPIC, {"given"}, True),
        ("comment", Action.DELETE_TOPIC, {"given"}, False),
        ("comment", Action.DELETE_TOPIC, {"made"}, True),
        ("comment", Action.CHANGE_VIEW, {"made"}, True),
        ("coordinate", Action.CHANGE_VIEW, set(), True),
        ("coordinate", Action.OWN_MEMBERS, {"made"}, False),
    ],
)
def test_one_may_more_with_what_is_ones_own(role, action, ties, allowed):
    assert may(role, action, ties) is allowed


def test_the_highest_of_several_roles_counts():
    assert (highest(["look", "coordinate", "comment"]), highest([])) == ("coordinate", None)


def test_every_refusal_is_a_sentence_that_says_whom_to_ask():
    for role, action in itertools.product(ROLES, LEAST):
        if not may(role, action):
            said = refusal(role, action)
            assert said.startswith("You may ")
            assert said.endswith(". Ask one of those who own the project.")
    assert refusal("comment", Action.CHANGE_VIEW).startswith("You may only change viewpoints that you kept.")
    assert refusal("look", Action.CHANGE_MODELS).startswith("You may look in this project, but not change the models.")
    assert may_some("comment", Action.CHANGE_VIEW)
