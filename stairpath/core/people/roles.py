"""Who may what in a project: the roles, what there is to do, and the least role that may do it."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal, get_args

Role = Literal["look", "comment", "coordinate", "own"]
ROLES: tuple[Role, ...] = get_args(Role)
"""From the one who may least to the one who may most; each may what those before it may."""
ROLE_SAID: dict[Role, str] = {
    "look": "look", "comment": "look and comment", "coordinate": "coordinate", "own": "do everything",
}  # fmt: skip

ROLE_MEANS: dict[Role, tuple[str, str]] = {
    "look": ("Look", "sees everything and changes nothing"),
    "comment": ("Comment", "also writes topics and comments and keeps viewpoints, and changes their own"),
    "coordinate": ("Coordinate", "does everything in the project"),
    "own": ("Own", "also says who is in it, names it and moves it to the bin"),
}
"""What a role is called in a list, and what it lets one do."""

Tie = Literal["made", "given"]
"""What ties somebody to a thing: that they made it, or that it was given to them to deal with."""


class Action(StrEnum):
    """What there is to do, in the words of a person who may."""

    # Outside projects.
    ANYTHING_OPEN = "open the page"
    OWN_ACCOUNT = "use the application"
    OWN_SIGN_IN = "change how they sign in"
    OWN_TOKENS = "let other programs in"
    MAKE_PROJECTS = "make projects"
    RUN_SERVER = "see people and how it runs"
    # In a project.
    LOOK = "look at this project"
    PRESENT = "present"
    COMMENT = "write topics and comments"
    CHANGE_TOPIC = "change this topic"
    CHANGE_TOPICS = "change topics"
    DELETE_TOPIC = "delete or restore this topic"
    CHANGE_COMMENT = "change this comment"
    DELETE_FILE = "take this file away"
    KEEP_VIEW = "keep viewpoints"
    CHANGE_VIEW = "change this viewpoint"
    ARRANGE = "change folders, sets and routes"
    CHANGE_MODELS = "change the models"
    RUN_TASKS = "run checks and make sheets"
    EXCHANGE = "import topics"
    HOLD_MEETINGS = "hold meetings"
    SET_RULES = "change the rules of the project"
    SEE_RECORD = "see the record of the project"
    OWN_PROJECT = "change the project itself"
    OWN_MEMBERS = "see and change who is in the project"


@dataclass(frozen=True)
class Least:
    """The least role that may do something: with any thing, with one that one made, and with one that was given to one."""

    role: Role
    made: Role | None = None
    given: Role | None = None
    each: Role | None = None
    """For what is done to several things at once: the least role that may ask; each thing is asked about by itself."""


LEAST: dict[Action, Least] = {
    Action.LOOK: Least("look"),
    Action.PRESENT: Least("comment"),
    Action.COMMENT: Least("comment"),
    Action.CHANGE_TOPIC: Least("coordinate", made="comment", given="comment"),
    Action.CHANGE_TOPICS: Least("coordinate", each="comment"),
    Action.DELETE_TOPIC: Least("coordinate", made="comment"),
    Action.CHANGE_COMMENT: Least("coordinate", made="comment"),
    Action.DELETE_FILE: Least("coordinate", made="comment"),
    Action.KEEP_VIEW: Least("comment"),
    Action.CHANGE_VIEW: Least("coordinate", made="comment"),
    Action.ARRANGE: Least("coordinate"),
    Action.CHANGE_MODELS: Least("coordinate"),
    Action.RUN_TASKS: Least("coordinate"),
    Action.EXCHANGE: Least("coordinate"),
    Action.HOLD_MEETINGS: Least("coordinate"),
    Action.SET_RULES: Least("coordinate"),
    Action.SEE_RECORD: Least("coordinate"),
    Action.OWN_PROJECT: Least("own"),
    Action.OWN_MEMBERS: Least("own"),
}
"""What is not named here is done in no project."""


def reaches(role: Role, least: Role) -> bool:
    """Whether a role is at least another."""
    return ROLES.index(role) >= ROLES.index(least)


def highest(roles: Collection[str]) -> Role | None:
    """The highest of some roles as they are kept; None where none of them is one."""
    return next((role for role in reversed(ROLES) if role in roles), None)


def at_most(role: Role, scope: Role | None) -> Role:
    """A role as far as a token lets it go; as it is without one."""
    return role if scope is None or reaches(scope, role) else scope


def may(role: Role, action: Action, ties: Collection[Tie] = ()) -> bool:
    """Whether somebody with a role may do something in a project, to a thing with which they have some ties.

    What has no name in the table nobody may.

    >>> may("comment", Action.CHANGE_TOPIC), may("comment", Action.CHANGE_TOPIC, {"given"})
    (False, True)
    """
    least = LEAST.get(action)
    if least is None:
        return False
    tied = [getattr(least, tie) for tie in ties]
    return any(reaches(role, each) for each in (least.role, least.each, *tied) if each is not None)


def may_some(role: Role, action: Action) -> bool:
    """Whether somebody with a role may do something at least to what is theirs."""
    return may(role, action, ("made", "given"))


_ONLY: dict[Action, str] = {
    Action.CHANGE_TOPIC: "change topics that you made or that are assigned to you",
    Action.CHANGE_TOPICS: "change topics that you made or that are assigned to you",
    Action.DELETE_TOPIC: "delete and restore topics that you made",
    Action.CHANGE_COMMENT: "change comments that you wrote",
    Action.DELETE_FILE: "take away files that you attached",
    Action.CHANGE_VIEW: "change viewpoints that you kept",
}


def refusal(role: Role, action: Action) -> str:
    """Why somebody may not, and whom they ask, in a sentence."""
    asked = "Ask one of those who own the project."
    if action in _ONLY and may_some(role, action):
        return f"You may only {_ONLY[action]}. {asked}"
    return f"You may {ROLE_SAID[role]} in this project, but not {action}. {asked}"
