"""What a project has set for its topics: how they are called, their statuses, and which kinds and priorities are offered."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from stairpath.core.review.reference import ReferenceRule
from stairpath.core.review.statuses import NotAStatusError, Status, Statuses
from stairpath.core.review.words import Words

MOST_STATUSES, MOST_OFFERED, LONGEST_WORD = 30, 40, 60


class NotRulesError(ValueError):
    """Rules for topics that cannot be; the message says what to do."""


@dataclass(frozen=True)
class TopicRules:
    """A project's rules; ``kinds`` and ``priorities`` are offered, the most pressing priority first.

    ``words`` is what words of topic files become, as people chose when they imported one.
    """

    reference: ReferenceRule = field(default_factory=ReferenceRule)
    statuses: Statuses = field(default_factory=Statuses)
    kinds: tuple[str, ...] = ("problem", "question", "change", "remark")
    priorities: tuple[str, ...] = ("high", "normal", "low")
    words: Words = field(default_factory=Words)

    def __post_init__(self) -> None:
        if len(self.statuses.all) > MOST_STATUSES:
            raise NotRulesError(f"A project has at most {MOST_STATUSES} statuses; join some.")
        if any(len(status.name) > LONGEST_WORD for status in self.statuses.all):
            raise NotRulesError(f"A status has at most {LONGEST_WORD} letters; make it shorter.")
        _check_offered("kind", self.kinds)
        _check_offered("priority", self.priorities)


def _check_offered(what: str, words: Sequence[str]) -> None:
    if len(words) > MOST_OFFERED:
        raise NotRulesError(f"At most {MOST_OFFERED} of a {what} are offered; leave some out.")
    for word in words:
        if not word.strip() or word != word.strip() or len(word) > LONGEST_WORD:
            raise NotRulesError(f"A {what} is a word or a few, of at most {LONGEST_WORD} letters; correct it.")
    if len({word.casefold() for word in words}) < len(words):
        raise NotRulesError(f"A {what} is there twice; leave one out.")


@dataclass(frozen=True)
class Wanted:
    """A status as it is wanted; ``was`` is what it is called now, or nothing where it is new."""

    status: Status
    was: str = ""


def renamed(now: Statuses, wanted: Sequence[Wanted]) -> dict[str, str]:
    """What is called otherwise from now on, by what it was called; NotAStatusError where two were the same one."""
    was = [each.was for each in wanted if each.was]
    if len(set(was)) < len(was):
        raise NotAStatusError("Two statuses are one that was split; add the other as a new one.")
    for name in was:
        now.named(name)
    return {each.was: each.status.name for each in wanted if each.was and each.was != each.status.name}


def check_none_lost(now: Statuses, wanted: Sequence[Wanted], used: Mapping[str, int]) -> None:
    """NotRulesError where a status would be gone that topics still have; ``used`` counts the topics of each."""
    kept = {each.was for each in wanted}
    for status in now.all:
        count = used.get(status.name, 0)
        if status.name not in kept and count:
            have = "1 topic is" if count == 1 else f"{count:,} topics are"
            raise NotRulesError(f"{have} still {status.name}; give them another status first, or rename it.")
