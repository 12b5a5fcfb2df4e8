"""To whom a topic was given to deal with."""

from __future__ import annotations

from stairpath.core.review.question import Question
from stairpath.core.review.topic import TopicFields


def given_to(said: TopicFields | None, question: Question | None) -> list[str]:
    """The names of who a topic is assigned to and of who was asked about it, as far as there are any."""
    return [name for name in (said and said.assigned_to, question and question.to) if name]
