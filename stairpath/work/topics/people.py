"""Who may be meant in a project: who is in it, who was, and who was named in it before."""

from __future__ import annotations

from stairpath.core.people.renaming import FORMER
from stairpath.store import meetings, members, projects, topics
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, read_only


def known(act: UnitOfWork, project_id: str) -> set[str]:
    """The names of all who were in a project, wrote of its topics, or were named in topics and meetings."""
    all_ = topics.topics(act.session, project_id)
    named = {name for topic in all_ for name in (topic.author, topic.changed_by, topic.said.assigned_to)}
    asked = {topic.question.to for topic in all_ if topic.question is not None}
    held = meetings.named(act.session, project_id)
    told = named | asked | held | topics.writers(act.session, project_id) | projects.visitors(act.session, project_id)
    return {name.strip() for name in told} - {"", WORKER.name, FORMER}


def listed(project_id: str) -> list[str]:
    """The names of all who may be meant in a project, in the order of the alphabet: who is in it, and who is named in it."""
    with read_only() as look:
        found = known(look, in_use(look, project_id).id)
        found |= {each.name for each in members.persons_in(look.session, project_id)}
        return sorted(found, key=str.casefold)
