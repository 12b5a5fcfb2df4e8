"""The demo's topics, meetings and folders, kept as its team would keep them."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import numpy as np

from stairpath.core.review.entries import Entries
from stairpath.core.review.topic import TopicFields
from stairpath.core.visibility.rules import selected
from stairpath.core.visibility.selectors import These, parse
from stairpath.demo.review import COORDINATOR, MEETINGS, PROBLEMS, Meeting, Problem, view_of
from stairpath.work.base.unit_of_work import Who, read_only
from stairpath.work.building.visibility import traits_of
from stairpath.work.topics import meetings, questions, topics
from stairpath.work.topics.topics import Listed, NewTopic
from stairpath.work.views import folders, viewpoints


def load_review(project_id: str) -> int:
    """Keep the demo's topics with their views and its meetings, once; how many topics there are now."""
    if topics.any_yet(project_id):
        return 0
    mara, today = Who(COORDINATOR), datetime.now(UTC).date()
    with read_only() as look:
        rows, traits = traits_of(look, project_id)
        levels = [level.name for level in rows.building.levels]
    shelf = {name: folders.make(mara, project_id, name).id for name in levels}
    made: list[Listed] = []
    for number, problem in enumerate(PROBLEMS):
        picks: dict[str, list[str]] = {}
        for component in np.flatnonzero(selected(traits, parse(problem.picks))).tolist():
            picks.setdefault(traits.model_of(component), []).append(traits.global_id(component))
        view = replace(view_of(problem, number), picked=These({key: tuple(ids) for key, ids in picks.items()}))
        kept = viewpoints.keep(mara, project_id, problem.title, None, view)
        folders.move(mara, project_id, [kept.id], shelf[problem.level], None)
        variant_of = "" if problem.variant_of is None else made[problem.variant_of].topic.id
        made.append(topics.make(mara, project_id, NewTopic(_said(problem, today), (kept.id,), variant_of=variant_of)))
    for topic, problem in zip(made, PROBLEMS, strict=True):
        for who, text in problem.comments:
            topics.write(Who(who), topic.topic.id, text)
        if problem.question:
            questions.ask(mara, topic.topic.id, *problem.question)
    for meeting in MEETINGS:
        _hold(project_id, meeting, made, today)
    return len(made)


def _said(problem: Problem, today: date) -> TopicFields:
    due = None if problem.due_days is None else today + timedelta(problem.due_days)
    return TopicFields(
        problem.title, problem.description, problem.kind, problem.status, problem.priority, problem.who, due,
        problem.labels,
    )  # fmt: skip


def _hold(project_id: str, meeting: Meeting, made: list[Listed], today: date) -> None:
    mara = Who(COORDINATOR)
    order = [made[each.topic].topic.id for each in meeting.said]
    held = meetings.begin(mara, project_id, meeting.title, today + timedelta(meeting.days), order)
    meetings.change(
        mara,
        held.id,
        meetings.MeetingRequest(
            present=Entries(tuple(meeting.present), tuple(held.present)),
            topics=Entries(tuple(order), tuple(held.topics)),
        ),
    )
    for each in meeting.said:
        until = None if each.until_days is None else today + timedelta(each.until_days)
        point = meetings.point(each.text, each.decision, each.who, until)
        meetings.note(mara, held.id, made[each.topic].topic.id, point)
    meetings.change(mara, held.id, meetings.MeetingRequest(ended=True))
