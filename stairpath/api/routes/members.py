"""Who is in a project and with which role, and guest links."""

from __future__ import annotations

from fastapi import APIRouter, Request

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks, let_in_at
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import ROLE_SAID, Action
from stairpath.work.people import guests, names, project_members

router = APIRouter(prefix="/api/projects/{project_id}", tags=["members"], responses=ERROR_RESPONSES)


@router.get("/mine")
@asks(Action.LOOK)
def get_mine(request: Request, project_id: str) -> schemas.Mine:
    """What one may in a project."""
    let_in = let_in_at(request)
    role, guest = let_in.role, let_in.signed is not None and let_in.signed.guest_of is not None
    return schemas.Mine(
        role=role,
        said=ROLE_SAID[role],
        guest=guest,
        may=project_members.may_all(role),
        may_made=project_members.may_all(role, "made"),
        may_given=project_members.may_all(role, "given"),
    )


@router.post("/leave", status_code=204)
@asks(Action.LOOK)
def leave(who: Asker, project_id: str) -> None:
    """Leave a project oneself."""
    project_members.leave(who, project_id)


@router.get("/members")
@asks(Action.OWN_MEMBERS)
def list_members(who: Asker, project_id: str) -> list[schemas.Member]:
    """Who is in a project, in the order in which they came."""
    return [schemas.Member.model_validate(each) for each in project_members.listed(who, project_id)]


@router.post("/members", status_code=201)
@asks(Action.OWN_MEMBERS)
def add_member(who: Asker, project_id: str, wish: schemas.NewMember) -> schemas.AddedMember:
    """Have a person, a firm or a discipline in a project; for a person who is new, the link with which they begin."""
    entry, secret = project_members.add(who, project_id, wish.kind, wish.named, wish.role, wish.name)
    return schemas.AddedMember(member=schemas.Member.model_validate(entry), secret=secret)


@router.put("/members/{member_id}/role")
@asks(Action.OWN_MEMBERS)
def change_member(who: Asker, project_id: str, member_id: str, wish: schemas.NewRole) -> schemas.Member:
    """Give somebody in a project another role."""
    return schemas.Member.model_validate(project_members.change(who, project_id, member_id, wish.role))


@router.delete("/members/{member_id}", status_code=204)
@asks(Action.OWN_MEMBERS)
def remove_member(who: Asker, project_id: str, member_id: str) -> None:
    """Take somebody out of a project."""
    project_members.remove(who, project_id, member_id)


@router.post("/members/{member_id}/hand-over")
@asks(Action.OWN_MEMBERS)
def hand_over(who: Asker, project_id: str, member_id: str) -> schemas.Member:
    """Make somebody else the owner of a project, and coordinate in it from now on."""
    return schemas.Member.model_validate(project_members.hand_over(who, project_id, member_id))


@router.get("/guest-links")
@asks(Action.OWN_MEMBERS)
def list_guest_links(project_id: str) -> list[schemas.GuestLink]:
    """The links with which people without an account look at a project, the newest first."""
    return [schemas.GuestLink.model_validate(each) for each in guests.listed(project_id)]


@router.post("/guest-links", status_code=201)
@asks(Action.OWN_MEMBERS)
def make_guest_link(who: Asker, project_id: str, wish: schemas.NewGuestLink) -> schemas.MadeGuestLink:
    """Make a link with which people without an account look at a project, for some days."""
    made, secret = guests.make(who, project_id, wish.name, wish.days)
    return schemas.MadeGuestLink(link=schemas.GuestLink.model_validate(made), secret=secret)


@router.delete("/guest-links/{link_id}", status_code=204)
@asks(Action.OWN_MEMBERS)
def end_guest_link(who: Asker, project_id: str, link_id: str) -> None:
    """End a guest link; who looks by it is out within two seconds."""
    guests.end(who, project_id, link_id)


@router.get("/names")
@asks(Action.OWN_MEMBERS)
def list_names(project_id: str) -> schemas.NamesShown:
    """The names in a project of which it is not known whose they are, those of which somebody said it, and who may be meant."""
    return schemas.NamesShown.model_validate(names.shown(project_id))


@router.put("/names")
@asks(Action.OWN_MEMBERS)
def match_name(who: Asker, project_id: str, wish: schemas.NameMatch) -> schemas.NamesShown:
    """Say who is meant by a name, here and in files of topics that come in from now on."""
    names.match(who, project_id, wish.name, wish.person_id)
    return schemas.NamesShown.model_validate(names.shown(project_id))


@router.post("/names/forget")
@asks(Action.OWN_MEMBERS)
def forget_name(who: Asker, project_id: str, wish: schemas.NameGiven) -> schemas.NamesShown:
    """Take files of topics that come in from now on at their word again; what was replaced stays."""
    names.unmatch(who, project_id, wish.name)
    return schemas.NamesShown.model_validate(names.shown(project_id))
