"""The demo's topics are on its planted problems, and what their views name is there."""

from __future__ import annotations

import numpy as np
import pytest

from stairpath.core.review.validate import is_valid
from stairpath.core.visibility.rules import selected
from stairpath.core.visibility.selectors import parse
from stairpath.core.visibility.traits import federation_traits
from stairpath.demo import building as b
from stairpath.demo.review import MEETINGS, PROBLEMS, TEAM, to_project, view_of


@pytest.fixture(scope="session")
def traits(demo, demo_readings):
    return federation_traits(demo, demo_readings)


@pytest.mark.parametrize("number", range(len(PROBLEMS)), ids=lambda k: PROBLEMS[k].title)
def test_each_topic_picks_what_it_is_about_and_sees_it(demo, traits, number):
    problem = PROBLEMS[number]
    picked = np.flatnonzero(selected(traits, parse(problem.picks)))
    assert len(picked) >= 1
    assert problem.level in b.STOREYS_M
    view = view_of(problem, number)
    assert is_valid(view)
    boxes = np.concatenate([model.bounds_m for model in demo.models])[picked]
    near = np.clip(view.eye.target_m, boxes[:, 0], boxes[:, 1])
    # What is looked at is by what is picked.
    assert np.linalg.norm(near - np.array(view.eye.target_m), axis=1).min() < 2.5
    for effect, select in problem.shown:
        assert effect in ("hide", "fade")
        assert selected(traits, parse(select)).any()


def test_meetings_are_of_topics_and_people_that_there_are():
    people = set(TEAM)
    assert len({problem.title for problem in PROBLEMS}) == len(PROBLEMS) == 12
    assert {problem.who for problem in PROBLEMS} | {who for p in PROBLEMS for who, _ in p.comments} <= people
    for meeting in MEETINGS:
        assert set(meeting.present) <= people
        assert all(0 <= said.topic < len(PROBLEMS) and said.who in {"", *people} for said in meeting.said)
        assert meeting.days < 0


def test_places_of_the_building_are_turned_into_the_projects():
    assert to_project((0.0, 0.0, 4.0)) == pytest.approx((b.MAP_EASTING_M, b.MAP_NORTHING_M, 4.0))
