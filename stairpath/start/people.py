"""``stairpath people``: who may sign in, for whoever runs the server."""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import Annotated

import typer

from stairpath.settings import settings

people = typer.Typer(no_args_is_help=True, help="Who may sign in; for whoever runs the server.")

_Key = Annotated[str, typer.Argument(help="the name that they sign in with, such as a mail address")]


def welcome(address: str, secret: str) -> str:
    """A link as it is handed on. What follows # is not sent, so that it stands in no log of a server."""
    return f"{address}/welcome#{secret}"


def _address() -> str:
    return f"http://{settings().host}:{settings().port}"


def _say(text: str) -> None:
    sys.stdout.write(text + "\n")


def _hand_on(made: Callable[[], str]) -> None:
    """Make a link and say it; stops with the sentence where it cannot be made."""
    from stairpath.work.base.errors import RefusedError

    try:
        secret = made()
    except RefusedError as error:
        raise _stopped(str(error)) from error
    _say("They set their password with this link; it is good once, for a week:")
    _say(welcome(_address(), secret))


@people.command("list")
def list_people() -> None:
    """Say who may sign in."""
    from stairpath.work.people.people import listed

    found = listed()
    if not found:
        _say("Nobody signs in yet.")
    for each in found:
        begun = "" if each.begun else ", has not set a password yet"
        _say(f"{each.person.key}  {each.person.name}{', owner' if each.person.owner else ''}{begun}")


@people.command("add")
def add(
    key: _Key,
    name: Annotated[str, typer.Argument(help="the name that others read")],
    owner: Annotated[bool, typer.Option("--owner", help="may run the server")] = False,
) -> None:
    """Add somebody; prints the link with which they set their password."""
    from stairpath.work.people import links

    _hand_on(lambda: links.add_person(key, name, owner))


@people.command("reset")
def reset(key: _Key) -> None:
    """Print a new link with which somebody sets their password."""
    from stairpath.work.people import links

    _hand_on(lambda: links.for_password(key))


@people.command("first")
def first() -> None:
    """Print the link for the first owner, while there is nobody."""
    from stairpath.work.people import links

    secret = links.for_first_owner()
    if secret is None:
        raise _stopped("There are people already; one who owns the server adds others, or `people add NAME --owner`.")
    _say("The first owner begins with this link; it is good once, for a week:")
    _say(welcome(_address(), secret))


def _stopped(text: str) -> typer.Exit:
    sys.stderr.write(text + "\n")
    return typer.Exit(2)
