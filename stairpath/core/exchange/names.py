"""Names of people in a topic of a file, as they are known here."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from stairpath.core.exchange.topic import Topic


def with_names(topic: Topic, known: Callable[[str], str]) -> Topic:
    """A topic with every name of a person as ``known`` tells it."""
    return replace(
        topic,
        created_by=known(topic.created_by),
        modified_by=known(topic.modified_by),
        assigned_to=known(topic.assigned_to),
        comments=tuple(
            replace(each, author=known(each.author), modified_by=known(each.modified_by)) for each in topic.comments
        ),
    )
