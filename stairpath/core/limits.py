"""Limits of what people and other programs may send, beside the types; whatever validates a dataclass reads them."""

from __future__ import annotations

from typing import Annotated, Any, get_args

from annotated_types import Ge, Gt, Le, Len, MaxLen

WORLD_M = 1e9
"""Nothing that is built lies farther away."""

Coordinate = Annotated[float, Ge(-WORLD_M), Le(WORLD_M)]
Metres = Annotated[float, Ge(0), Le(100)]
LensDeg = Annotated[float, Ge(1), Le(120)]
LEAST_ASPECT, MOST_ASPECT = 0.1, 10.0
Aspect = Annotated[float, Ge(LEAST_ASPECT), Le(MOST_ASPECT)]
"""How many times its height a frame is wide."""
NearClip = Annotated[float, Ge(0), Le(1e3)]
"""Metres along the line of sight that are looked through; zero for none."""
Share = Annotated[float, Ge(-4), Le(4)]
"""A place in a frame, from -1 to 1 and a little beyond."""
Size = Annotated[float, Gt(0), Le(1e6)]

Key = Annotated[str, MaxLen(64)]
Id = Annotated[str, MaxLen(40)]
GlobalId = Annotated[str, MaxLen(200)]
Name = Annotated[str, Len(1, 120)]
NameOrNone = Annotated[str, MaxLen(120)]
Author = Annotated[str, Len(1, 80)]
Person = Annotated[str, MaxLen(80)]
Moment = Annotated[str, MaxLen(40)]
"""A time as ISO 8601."""
Word = Annotated[str, MaxLen(200)]
Sentence = Annotated[str, MaxLen(400)]
Text = Annotated[str, MaxLen(40_000)]


class _ByKind:
    """Tells the members of a union apart by their ``kind``, and by nothing else.

    Without it a validator takes the first member whose fields fit, and something without a kind could be everything.
    The method is what validators look for; its answer is plain data, so that nothing of theirs is needed here.
    """

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> Any:
        kinds = {member.__dataclass_fields__["kind"].default: member for member in get_args(source)}
        choices = {kind: handler.generate_schema(member) for kind, member in kinds.items()}
        return {"type": "tagged-union", "discriminator": "kind", "choices": choices}


BY_KIND = _ByKind()
