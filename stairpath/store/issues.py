"""Issues of models that newer ones took the place of."""

from __future__ import annotations

import zlib
from dataclasses import dataclass

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.core.reading.model import PropertyValue, Quantity
from stairpath.store import blobs
from stairpath.store.documents import Details
from stairpath.store.tables import Component, EarlierIssue, Model


@dataclass(frozen=True)
class ListedComponent:
    """A component of an issue of a model with all that its file says of it."""

    global_id: str
    ifc_class: str
    name: str
    tag: str
    storey: str | None
    systems: tuple[str, ...]
    details: Details

    @property
    def description(self) -> str:
        return self.details.description

    @property
    def type_name(self) -> str:
        return self.details.type_name

    @property
    def predefined(self) -> str:
        return self.details.predefined

    @property
    def material(self) -> str:
        return self.details.material

    @property
    def part_of(self) -> str:
        return self.details.part_of

    @property
    def hosted_in(self) -> str:
        return self.details.hosted_in

    @property
    def properties(self) -> dict[str, dict[str, Quantity | PropertyValue]]:
        return self.details.properties

    @property
    def quantities(self) -> dict[str, dict[str, Quantity]]:
        return self.details.quantities


@dataclass(frozen=True)
class Listing:
    """All components of an issue of a model, in the order of its file, and the names of its storeys by GlobalId."""

    components: tuple[ListedComponent, ...]
    storeys: dict[str, str]


LISTING_TYPE = "application/json+deflate"
_LISTING: TypeAdapter[Listing] = TypeAdapter(Listing)


def listing_of(session: Session, model: Model) -> Listing:
    """All components of a model as it was read last."""
    rows = session.scalars(select(Component).where(Component.model_id == model.id).order_by(Component.ordinal))
    components = tuple(
        ListedComponent(c.global_id, c.ifc_class, c.name, c.tag, c.storey, tuple(c.systems), c.details) for c in rows
    )
    return Listing(components, {s.global_id: s.name for s in (model.frame.storeys if model.frame else ())})


def keep_issue(session: Session, model: Model) -> None:
    """Keep what was read of a model before a newer file takes its place."""
    if model.geometry is None:
        return
    listing = listing_of(session, model)
    session.add(
        EarlierIssue(
            model_id=model.id,
            file_name=model.file_name,
            file_sha=model.file_sha,
            added_by=model.added_by,
            added_at=model.added_at,
            components=len(listing.components),
            geometry=model.geometry,
            listing=blobs.keep(session, model.project_id, zlib.compress(_LISTING.dump_json(listing)), LISTING_TYPE),
            matrix=None if model.placed is None else model.placed.matrix,
        )
    )


def issues_of(session: Session, model_id: str) -> list[EarlierIssue]:
    """The earlier issues of a model, newest first."""
    found = select(EarlierIssue).where(EarlierIssue.model_id == model_id).order_by(EarlierIssue.added_at.desc())
    return list(session.scalars(found))


def load_listing(session: Session, issue: EarlierIssue) -> Listing:
    """The components of an earlier issue; LookupError if they are not kept."""
    kept = blobs.load(session, issue.listing)
    if kept is None:
        raise LookupError("what was read of that issue is not kept")
    return _LISTING.validate_json(zlib.decompress(kept[0]))
