"""Views: the document of what somebody sees, and those that are kept."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from stairpath.api.schemas.common import Author, Name, Vector
from stairpath.api.schemas.cuts import Cuts
from stairpath.api.schemas.markups import Eye, Markups
from stairpath.api.schemas.measures import Measures
from stairpath.core.visibility.conditions import condition_from

_Key = Annotated[str, Field(max_length=64)]
_GlobalId = Annotated[str, Field(max_length=200)]
_Text = Annotated[str, Field(max_length=400)]
_Aspect = Annotated[float, Field(ge=0.1, le=10)]
_Side = Annotated[float, Field(ge=-4, le=4)]
_MOST_RULES = 500
_MOST_NAMED = 200_000


class All(BaseModel):
    """Every component."""

    kind: Literal["all"]


class Of(BaseModel):
    """Components of a level, discipline, class ... by its name; the empty name means those that have none."""

    kind: Literal["of"]
    what: Literal[
        "level", "discipline", "class", "type", "system", "material", "room", "model", "name", "tag", "global_id"
    ]
    value: _Text


class These(BaseModel):
    """Components one by one: for each model the GlobalIds."""

    kind: Literal["these"] = "these"
    of: Annotated[dict[_Key, Annotated[list[_GlobalId], Field(max_length=_MOST_NAMED)]], Field(max_length=1000)]


class Condition(BaseModel):
    """What of a component is asked, how, and against which value; two figures for ``between``."""

    what: _Text
    how: Literal["equal", "differs", "contains", "over", "under", "between", "missing", "present"]
    value: bool | float | _Text | Annotated[list[float], Field(min_length=2, max_length=2)] | None = None
    unit: Annotated[str, Field(max_length=20)] = ""

    @model_validator(mode="after")
    def _asks_something(self) -> Condition:
        condition_from({"what": self.what, "is": self.how, "value": self.value, "unit": self.unit})
        return self


class Where(BaseModel):
    """What meets every condition; ``called`` is the name of the set that it is, if it is one."""

    kind: Literal["where"]
    of: Annotated[list[Condition], Field(max_length=50)]
    called: Annotated[str, Field(max_length=80)] = ""


Plain = Annotated[All | Of | These | Where, Field(discriminator="kind")]


class PlainBut(BaseModel):
    """All but what a plain selection selects."""

    kind: Literal["all_but"]
    of: Plain


Term = Annotated[All | Of | These | Where | PlainBut, Field(discriminator="kind")]
Terms = Annotated[list[Term], Field(max_length=1000)]


class Either(BaseModel):
    """What any of the parts selects."""

    kind: Literal["either"]
    of: Terms


class Both(BaseModel):
    """What all of the parts select."""

    kind: Literal["both"]
    of: Terms


Joined = Annotated[All | Of | These | Where | Either | Both, Field(discriminator="kind")]


class AllBut(BaseModel):
    """What the part does not select."""

    kind: Literal["all_but"]
    of: Joined


Selector = Annotated[All | Of | These | Where | Either | Both | AllBut, Field(discriminator="kind")]


class Rule(BaseModel):
    """What is to be done with what is selected; later rules count over earlier ones."""

    model_config = ConfigDict(from_attributes=True)
    select: Selector
    effect: Literal["show", "fade", "hide", "only", "fade_rest", "tint"]
    colour: Annotated[str, Field(pattern="^(#[0-9a-fA-F]{6}|materials)$")] | None = None
    by: Annotated[str, Field(max_length=80)] = ""
    at: Annotated[str, Field(max_length=40)] = ""
    why: _Text = ""
    off: bool = False
    """One that is off waits and changes nothing."""


Rules = Annotated[list[Rule], Field(max_length=_MOST_RULES)]


class Limits(BaseModel):
    """How much is seen along the line of sight."""

    through_m: Annotated[float, Field(ge=0, le=1e3)] = 0
    """What is nearer than this is looked through; zero for nothing."""
    depth_m: Annotated[float, Field(gt=0, le=1e6)] | None = None
    """What is farther beyond the target than this is not seen."""


class PictureFrame(BaseModel):
    """What of a view its picture shows: a part of it from -1 to 1, beyond for more than was seen; the aspect is the view's."""

    aspect: _Aspect
    left: _Side = -1.0
    right: _Side = 1.0
    bottom: _Side = -1.0
    top: _Side = 1.0

    @model_validator(mode="after")
    def _has_extent(self) -> PictureFrame:
        if self.right - self.left < 0.02 or self.top - self.bottom < 0.02:
            raise ValueError("The picture's frame has no extent; draw it larger.")
        return self


class HungPicture(BaseModel):
    """A picture that stands in the model about its middle, kept by its hash."""

    sha256: Annotated[str, Field(pattern="^[0-9a-f]{64}$")]
    at_m: Vector
    normal: Vector
    up: Vector
    height_m: Annotated[float, Field(gt=0, le=1e6)]


class View(BaseModel):
    """Everything that makes up what somebody sees."""

    version: Literal[2] = 2
    eye: Eye
    limits: Limits = Limits()
    rules: Rules = []
    cuts: Cuts = []
    whole: These = These(of={})
    """Components that no cut goes through."""
    measures: Measures = []
    alternatives: Annotated[dict[str, _Text], Field(max_length=1000)] = {}
    """For each proposal, the name of the model that stands in the view."""
    picked: These = These(of={})
    style: Literal["edges", "plain", "lines", "clear"] = "edges"
    """Shaded with edges, shaded alone, lines with what they hide taken away, or see-through."""
    markups: Markups = []
    frame: PictureFrame | None = None
    pictures: Annotated[list[HungPicture], Field(max_length=100)] = []


class RulesRequest(BaseModel):
    """Rules to be resolved, later ones over earlier ones."""

    rules: Rules


class CutRequest(BaseModel):
    """Cuts, rules for what is shown, and what stays whole: the faces of all else that is shown are wanted."""

    cuts: Cuts
    rules: Rules = []
    whole: These = These(of={})


class LinkMade(BaseModel):
    """The short name of a view in an address."""

    id: str


class Home(BaseModel):
    """The view that everybody comes home to, and who set it."""

    view: View
    author: Author


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


class Folder(BaseModel):
    """Viewpoints that belong together."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    author: str
    created_at: datetime


class Before(BaseModel):
    """Before which one something is put; nothing for last."""

    before: _Key | None = None


class MovedViews(Before):
    """Which viewpoints go into which folder; nothing for out of any."""

    views: Annotated[list[_Key], Field(min_length=1, max_length=2000)]
    folder: _Key | None = None


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
    author: Author
    picture_png: str
    """The picture as base64 PNG."""
    view: View
