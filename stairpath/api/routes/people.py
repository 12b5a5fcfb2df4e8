"""Signing in and out, and links that are good once."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import (
    asked_from,
    asks,
    forwarded,
    is_loopback,
    is_secure,
    keep_secret,
    secret_of,
    signed_in,
)
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.settings import settings
from stairpath.work.base.errors import GoneError, MissingError
from stairpath.work.people import demo, elsewhere, guests, leaving, links, people, post, second_factor, sign_ins
from stairpath.work.people.sign_ins import Signed

router = APIRouter(prefix="/api", tags=["people"], responses=ERROR_RESPONSES)


def _leave_what_was(request: Request) -> None:
    """Sign out who was signed in here before: each sign-in has a secret of its own (ASVS 3.2.1)."""
    before = secret_of(request)
    if before:
        sign_ins.sign_out(before)


def _begun(request: Request, response: Response, begun: tuple[str, Signed]) -> schemas.SignedPerson:
    secret, person = begun
    _leave_what_was(request)
    keep_secret(request, response, secret)
    return schemas.SignedPerson.model_validate(person)


def _in_demo(request: Request) -> bool:
    """Whether who asks may be one of the demo's people: in the demo, on this machine, and past no proxy."""
    return settings().demo and is_loopback(request) and not forwarded(request)


def _sees_mailbox(request: Request, person: Signed | None) -> bool:
    """Whether who asks may look at mails that are not sent: in the demo its visitor, else who runs the server."""
    return _in_demo(request) or (person is not None and person.owner and person.scope is None)


@router.get("/me")
@asks(Action.ANYTHING_OPEN)
def who_am_i(request: Request) -> schemas.Me:
    """Who is signed in, and whether one has to be."""
    person = signed_in(request)
    shown = schemas.SignedPerson.model_validate(person) if person else None
    offered = demo.offered() if _in_demo(request) else []
    return schemas.Me(
        person=shown,
        closed=sign_ins.anybody(),
        elsewhere=elsewhere.offered(),
        mailbox=not post.is_sent() and _sees_mailbox(request, person),
        demo=[schemas.DemoPerson.model_validate(each) for each in offered],
    )


@router.post("/sign-in")
@asks(Action.ANYTHING_OPEN)
def sign_in(request: Request, response: Response, wish: schemas.SigningInRequest) -> schemas.SigningIn:
    """Sign in with name and password, and with a code where there is a second factor."""
    begun = sign_ins.sign_in(wish.name, wish.password, asked_from(request), wish.code)
    if begun is None:
        return schemas.SigningIn(person=None, asks_code=True)
    return schemas.SigningIn(person=_begun(request, response, begun), asks_code=False)


@router.post("/demo/sign-in")
@asks(Action.ANYTHING_OPEN)
def be_one_of_the_demo(request: Request, response: Response, wish: schemas.PersonKey) -> schemas.SignedPerson:
    """Be one of the demo's people; nowhere but in the demo, on the machine that it runs on."""
    if not _in_demo(request):
        raise MissingError("There is no such address.")
    return _begun(request, response, demo.be(wish.key, asked_from(request)))


@router.post("/sign-out", status_code=204)
@asks(Action.ANYTHING_OPEN)
def sign_out(who: Asker, request: Request, response: Response) -> None:
    """Sign out of this browser."""
    secret = secret_of(request)
    if secret:
        sign_ins.sign_out(secret, who)
    keep_secret(request, response, "")


@router.post("/sign-out-everywhere", status_code=204)
@asks(Action.OWN_ACCOUNT)
def sign_out_everywhere(who: Asker, request: Request, response: Response) -> None:
    """Sign out of every browser."""
    sign_ins.sign_out_everywhere(who, secret_of(request))
    keep_secret(request, response, "")


@router.post("/links/look")
@asks(Action.ANYTHING_OPEN)
def look_at_link(wish: schemas.LinkRequest) -> schemas.LinkShown:
    """What a link is for."""
    return schemas.LinkShown.model_validate(links.look_at(wish.secret))


@router.post("/links/use")
@asks(Action.ANYTHING_OPEN)
def use_link(request: Request, response: Response, wish: schemas.LinkUsed) -> schemas.SignedPerson:
    """Set a password by a link, and be signed in."""
    begun = links.use(wish.secret, wish.password, asked_from(request), key=wish.key, name=wish.name, code=wish.code)
    return _begun(request, response, begun)


@router.post("/links/new-password", status_code=202)
@asks(Action.ANYTHING_OPEN)
def ask_for_new_password(request: Request, wish: schemas.PersonKey) -> None:
    """Have a link mailed to somebody who has forgotten their password, if there is such a person."""
    links.ask_for_new_password(wish.key, asked_from(request))


@router.post("/links/guest")
@asks(Action.ANYTHING_OPEN)
def look_at_guest_link(wish: schemas.LinkRequest) -> schemas.GuestShown:
    """What a guest link opens."""
    shown = guests.look_at(wish.secret)
    if shown is None:
        raise GoneError(guests.ENDED)
    return schemas.GuestShown.model_validate(shown)


@router.post("/links/enter")
@asks(Action.ANYTHING_OPEN)
def enter_as_guest(request: Request, response: Response, wish: schemas.LinkRequest) -> schemas.GuestShown:
    """Look at a project by a guest link; who was signed in here is not any more."""
    secret, shown = guests.enter(wish.secret, asked_from(request))
    _leave_what_was(request)
    keep_secret(request, response, secret)
    return schemas.GuestShown.model_validate(shown)


def _listed(each: people.Listed) -> schemas.ListedPerson:
    person = schemas.SignedPerson.model_validate(each.person)
    return schemas.ListedPerson(
        id=each.person.id, person=person, begun=each.begun, second_factor=each.second_factor, seen_at=each.seen_at
    )


@router.get("/people")
@asks(Action.RUN_SERVER)
def list_people() -> list[schemas.ListedPerson]:
    """Everybody who may sign in; for those who own the server."""
    return [_listed(each) for each in people.listed()]


@router.post("/people", status_code=201)
@asks(Action.RUN_SERVER)
def invite(who: Asker, wish: schemas.NewPerson) -> schemas.LinkToHandOn:
    """Invite somebody by mail; where their name to sign in with is no mail address, the link with which they set their password."""
    return schemas.LinkToHandOn(secret=links.invite(who, wish.key, wish.name, wish.owner)[1])


@router.post("/people/link", status_code=201)
@asks(Action.RUN_SERVER)
def reset(who: Asker, wish: schemas.PersonKey) -> schemas.LinkToHandOn:
    """A new link for somebody to set a password; an older one ends."""
    return schemas.LinkToHandOn(secret=links.for_password(wish.key, who))


@router.put("/people/{person_id}")
@asks(Action.RUN_SERVER)
def change_person(who: Asker, person_id: str, wish: schemas.PersonWish) -> schemas.ListedPerson:
    """Change what is said of somebody, and what they may on this server."""
    return _listed(people.change(who, person_id, people.PersonWish(**wish.model_dump())))


@router.post("/people/{person_id}/second-factor/remove", status_code=204)
@asks(Action.RUN_SERVER)
def remove_second_factor_of(who: Asker, person_id: str) -> None:
    """Ask somebody for no codes any more who has lost their device."""
    second_factor.remove_of(who, person_id)


@router.get("/mailbox")
@asks(Action.ANYTHING_OPEN)
def look_into_mailbox(request: Request) -> list[schemas.Mail]:
    """Mails that were not sent, the newest first: all of them where no server for mail is set."""
    if not _sees_mailbox(request, signed_in(request)):
        raise MissingError("There is no such address.")
    return [schemas.Mail.model_validate(each) for each in post.mailbox()]


@router.delete("/people/{person_id}", status_code=204)
@asks(Action.RUN_SERVER)
def remove_person(who: Asker, person_id: str) -> None:
    """Remove somebody: they sign in no more, and whatever names them names a former member."""
    leaving.remove(who, person_id)


_TRY = "stairpath-elsewhere"
"""The cookie of a browser that is on its way to the provider of accounts and back."""


@router.post("/elsewhere/begin")
@asks(Action.ANYTHING_OPEN)
def begin_elsewhere(request: Request, response: Response, wish: schemas.ElsewhereWish) -> schemas.ElsewhereBegun:
    """Begin to sign in by the provider of accounts; where the browser goes now."""
    begun = elsewhere.start(wish.back_to)
    response.set_cookie(
        _TRY, begun.browser, max_age=int(elsewhere.TRY_LASTS.total_seconds()), path="/api/elsewhere",
        secure=is_secure(request), httponly=True, samesite="lax",
    )  # fmt: skip
    return schemas.ElsewhereBegun.model_validate(begun)


@router.post("/elsewhere/finish")
@asks(Action.ANYTHING_OPEN)
def finish_elsewhere(request: Request, response: Response, wish: schemas.ElsewhereBack) -> schemas.ElsewhereSigned:
    """Be signed in with what the provider of accounts sent along."""
    secret, person, back_to = elsewhere.finish(
        wish.code, wish.state, request.cookies.get(_TRY, ""), asked_from(request)
    )
    response.delete_cookie(_TRY, path="/api/elsewhere", secure=is_secure(request), httponly=True, samesite="lax")
    return schemas.ElsewhereSigned(person=_begun(request, response, (secret, person)), back_to=back_to)
