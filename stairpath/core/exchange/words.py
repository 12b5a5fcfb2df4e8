"""The words of a topic of a file, and that topic in the words of the project that imports it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from stairpath.core.exchange.topic import Topic
from stairpath.core.review.words import WordField, Words

_FIELDS: tuple[WordField, ...] = ("status", "kind", "priority")


def in_our_words(topic: Topic, words: Words) -> Topic:
    """A topic with its words as they are called here, those of its comments too."""

    def here(name: WordField, word: str) -> str:
        return words.becomes(name, word) or word

    def person(name: str) -> str:
        return here("people", name)

    return replace(
        topic,
        status=here("status", topic.status),
        kind=here("kind", topic.kind),
        priority=here("priority", topic.priority),
        assigned_to=person(topic.assigned_to),
        created_by=person(topic.created_by),
        modified_by=person(topic.modified_by),
        comments=tuple(
            replace(each, author=person(each.author), modified_by=person(each.modified_by)) for each in topic.comments
        ),
    )


def words_in(topic: Topic) -> Iterator[tuple[WordField, str]]:
    """The words of a topic that may be called otherwise here, each with its field; a person once however often named."""
    for name in _FIELDS:
        if word := getattr(topic, name).strip():
            yield name, word
    people = [topic.assigned_to, topic.created_by, topic.modified_by]
    people += [name for each in topic.comments for name in (each.author, each.modified_by)]
    for person in dict.fromkeys(name.strip() for name in people):
        if person:
            yield "people", person
