"""What a project has set for its topics, and changing it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from stairpath.core.review.reference import ReferenceRule
from stairpath.core.review.rules import NotRulesError, TopicRules, Wanted, check_none_lost, renamed
from stairpath.core.review.statuses import NotAStatusError, Status, Statuses
from stairpath.core.review.words import Words
from stairpath.store import topics
from stairpath.store.tables import Project
from stairpath.work.base.errors import WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work

_TO_BEGIN_WITH = TopicRules()


def rules_of(project: Project) -> TopicRules:
    """A project's rules for topics; those to begin with where it has set none."""
    return project.topic_rules or _TO_BEGIN_WITH


def rules(project_id: str) -> TopicRules:
    """The rules of a project that is in use."""
    with read_only() as look:
        return rules_of(in_use(look, project_id))


def set_rules(
    who: Who,
    project_id: str,
    reference: ReferenceRule,
    wanted: Sequence[Wanted],
    kinds: Sequence[str],
    priorities: Sequence[str],
) -> TopicRules:
    """Set a project's rules; a status that is called otherwise stays the same one for the topics that have it.

    Raises WrongError where they cannot be, or where topics would be left with a status that is gone.
    """
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        now = rules_of(project)
        try:
            after = TopicRules(
                reference, Statuses(tuple(each.status for each in wanted)), tuple(kinds), tuple(priorities), now.words
            )
            others = renamed(now.statuses, wanted)
            rows = topics.topics(act.session, project.id, removed=True)
            check_none_lost(now.statuses, wanted, Counter(row.said.status for row in rows if row.removed_at is None))
        except (NotAStatusError, NotRulesError) as error:
            raise WrongError(str(error)) from error
        for row in rows:
            if row.said.status in others:
                row.said = replace(row.said, status=others[row.said.status])
        project.topic_rules = after
        act.tell(project.id, "topics")
        return after


def remember_words(who: Who, project_id: str, words: Words) -> Words:
    """Keep for the next file what words of one become; what all that are known become."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        now = rules_of(project)
        after = now.words.joined(words)
        if after != now.words:
            project.topic_rules = replace(now, words=after)
        return after


def wanted(name: str, next: Sequence[str], end: bool, was: str) -> Wanted:
    """A status that is wanted."""
    return Wanted(Status(name.strip(), tuple(each.strip() for each in next), end), was)
