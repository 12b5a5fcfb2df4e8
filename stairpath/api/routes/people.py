"""Signing in and out, and links that are good once."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from stairpath.api import schemas
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.http.signed_in import asked_from, keep_secret, secret_of, signed_in
from stairpath.work.base.errors import NotSignedInError
from stairpath.work.people import links, people, sign_ins
from stairpath.work.people.sign_ins import Signed

router = APIRouter(prefix="/api", tags=["people"], responses=ERROR_RESPONSES)


def _begun(request: Request, response: Response, begun: tuple[str, Signed]) -> schemas.SignedPerson:
    secret, person = begun
    # Whoever was signed in here before is not any more: each sign-in has a secret of its own (ASVS 3.2.1).
    before = secret_of(request)
    if before:
        sign_ins.sign_out(before)
    keep_secret(request, response, secret)
    return schemas.SignedPerson.model_validate(person)


@router.get("/me")
def who_am_i(request: Request) -> schemas.Me:
    """Who is signed in, and whether one has to be."""
    person = signed_in(request)
    shown = schemas.SignedPerson.model_validate(person) if person else None
    return schemas.Me(person=shown, closed=sign_ins.anybody())


@router.post("/sign-in")
def sign_in(request: Request, response: Response, wish: schemas.SigningInRequest) -> schemas.SignedPerson:
    """Sign in with name and password."""
    return _begun(request, response, sign_ins.sign_in(wish.name, wish.password, asked_from(request)))


@router.post("/sign-out", status_code=204)
def sign_out(request: Request, response: Response) -> None:
    """Sign out of this browser."""
    secret = secret_of(request)
    if secret:
        sign_ins.sign_out(secret)
    keep_secret(request, response, "")


@router.post("/sign-out-everywhere", status_code=204)
def sign_out_everywhere(request: Request, response: Response) -> None:
    """Sign out of every browser."""
    person = signed_in(request)
    if person is None:
        raise NotSignedInError(sign_ins.ASK_FIRST)
    sign_ins.sign_out_everywhere(person.id)
    keep_secret(request, response, "")


@router.post("/links/look")
def look_at_link(wish: schemas.LinkRequest) -> schemas.LinkShown:
    """What a link is for."""
    return schemas.LinkShown.model_validate(links.look_at(wish.secret))


@router.post("/links/use")
def use_link(request: Request, response: Response, wish: schemas.LinkUsed) -> schemas.SignedPerson:
    """Set a password by a link, and be signed in."""
    return _begun(
        request, response, links.use(wish.secret, wish.password, asked_from(request), key=wish.key, name=wish.name)
    )


@router.get("/people")
def list_people(request: Request) -> list[schemas.ListedPerson]:
    """Everybody who may sign in; for those who own the server."""
    people.check_owner(signed_in(request))
    return [
        schemas.ListedPerson(
            person=schemas.SignedPerson.model_validate(each.person), begun=each.begun, seen_at=each.seen_at
        )
        for each in people.listed()
    ]


@router.post("/people", status_code=201)
def invite(request: Request, wish: schemas.NewPerson) -> schemas.LinkToHandOn:
    """Add somebody; the link with which they set their password."""
    return schemas.LinkToHandOn(secret=people.invite(signed_in(request), wish.key, wish.name, wish.owner))


@router.post("/people/link", status_code=201)
def reset(request: Request, wish: schemas.PersonKey) -> schemas.LinkToHandOn:
    """A new link for somebody to set a password; an older one ends."""
    return schemas.LinkToHandOn(secret=people.reset(signed_in(request), wish.key))
