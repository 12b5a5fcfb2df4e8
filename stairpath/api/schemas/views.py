"""Views: the document of what somebody sees, and those that are kept."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import Name
from stairpath.api.schemas.cuts import Cuts
from stairpath.core.review.view import PictureFrame, View
from stairpath.core.visibility.rules import Rules
from stairpath.core.visibility.selectors import NONE, These

_Key = Annotated[str, Field(max_length=64)]


class RulesRequest(BaseModel):
    """Rules to be resolved, later ones over earlier ones."""

    rules: Rules


class CutRequest(BaseModel):
    """Cuts, rules for what is shown, and what stays whole: the faces of all else that is shown are wanted."""

    cuts: Cuts
    rules: Rules = ()
    whole: These = NONE


class LinkMade(BaseModel):
    """The short name of a view in an address."""

    id: str


class ViewOf(BaseModel):
    """What a viewpoint was kept for: a topic or a comment on it, by its reference, or a meeting, by its title."""

    model_config = ConfigDict(from_attributes=True)
    kind: Literal["topic", "meeting"]
    id: str
    name: str


class EarlierView(BaseModel):
    """What a viewpoint was before another view was kept over it: when that was, and its picture."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    at: datetime
    picture: str


class Viewpoint(BaseModel):
    id: str
    name: str
    author: str
    created_at: datetime
    picture: str
    view: View
    folder: str | None
    place: int
    large: str | None = None
    """The hash of its picture at a size for print."""
    standing: bool = False
    changed_by: str
    changed_at: datetime
    new: bool = False
    """Whether another kept or changed it since one last went through the viewpoints."""
    of: list[ViewOf] = []
    """What it was kept for."""


class Folder(BaseModel):
    """Viewpoints that belong together."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    author: str
    created_at: datetime
    within: str | None
    """The folder that it stands in; one that was deleted counts as none."""


class NewFolder(BaseModel):
    """A folder to be made, in another one or in none."""

    name: Name
    within: _Key | None = None


class Within(BaseModel):
    """The folder that another one is put into; nothing for out of any."""

    within: _Key | None = None


class Before(BaseModel):
    """Before which one something is put; nothing for last."""

    before: _Key | None = None


class MovedViews(Before):
    """Which viewpoints go into which folder; nothing for out of any."""

    views: Annotated[list[_Key], Field(min_length=1, max_length=2000)]
    folder: _Key | None = None


class NewHome(BaseModel):
    """The view that everybody is to come home to."""

    view: View


class ViewToKeep(BaseModel):
    """A view that is kept over another one, with its picture as base64 PNG."""

    picture_png: str
    view: View


class Reframed(BaseModel):
    """Another picture of what a viewpoint sees, as base64 PNG, and what of the view it shows; nothing for all of it."""

    picture_png: str
    frame: PictureFrame | None = None


class NewViewpoint(BaseModel):
    name: Name
    picture_png: str
    """The picture as base64 PNG."""
    view: View
