"""Issues of models that newer ones took the place of."""

from __future__ import annotations

import zlib

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.store import blobs
from stairpath.store.documents import ListedComponent, Listing
from stairpath.store.tables import Component, EarlierIssue, Model

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
            listing=blobs.keep(session, zlib.compress(_LISTING.dump_json(listing)), LISTING_TYPE),
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
