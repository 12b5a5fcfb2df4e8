"""What who asks may do, in the words of the standard (BCF API 3.0, 4.1.6, 4.2.5 and 4.5.3)."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence

from stairpath.api.bcf import schemas
from stairpath.core.people.roles import Action, Role, Tie, may
from stairpath.core.review.given import given_to
from stairpath.core.review.statuses import Statuses
from stairpath.work.base.unit_of_work import Who
from stairpath.work.topics.topics import Listed

_PROJECT = {Action.OWN_PROJECT: ("update",), Action.COMMENT: ("createTopic", "createDocument")}
_TOPIC = {
    Action.CHANGE_TOPIC: ("update", "updateRelatedTopics"),
    Action.COMMENT: ("updateDocumentReferences", "createComment", "createViewpoint"),
    Action.DELETE_TOPIC: ("delete",),
}
_COMMENT = {Action.CHANGE_COMMENT: ("update", "delete")}


def _words(of: Mapping[Action, Sequence[str]], role: Role, ties: Collection[Tie] = ()) -> list[str]:
    return [word for action, words in of.items() if may(role, action, ties) for word in words]


def project_actions(role: Role) -> list[str]:
    """What one may do in a project with a role."""
    return _words(_PROJECT, role)


def topic_actions(role: Role, ties: Collection[Tie] = ()) -> list[str]:
    """What one may do to a topic that one has some ties to."""
    return _words(_TOPIC, role, ties)


def comment_actions(role: Role, ties: Collection[Tie] = ()) -> list[str]:
    """What one may do to a comment that one has some ties to."""
    return _words(_COMMENT, role, ties)


def of_topic(who: Who, of: Listed, statuses: Statuses) -> schemas.TopicAuthorization:
    """What one may do to a topic, and which status one may give it."""
    topic = of.topic
    actions = topic_actions(who.role, who.ties(topic.author, given_to(topic.said, topic.question)))
    now = next((each for each in statuses.all if each.name == topic.said.status), None)
    next_ones = [now.name, *now.next] if now is not None and "update" in actions else []
    return schemas.TopicAuthorization(topic_actions=actions, topic_status=next_ones)
