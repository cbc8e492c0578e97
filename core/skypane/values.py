"""What every value of Sky Pane is made of: the frozen base, numbers with the bounds that a page can
have, and results that are kept with what they were worked out of."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Annotated, Any, Concatenate, ParamSpec, TypeVar, cast
from weakref import WeakKeyDictionary

from pydantic import BaseModel, ConfigDict, Field

Fraction = Annotated[float, Field(ge=0, le=1)]
#: Sizes and shares that a page can have; beyond them numbers are slips of the finger, and
#: arithmetic overflows.
MOST_PX = 20000
Px = Annotated[float, Field(ge=0.01, le=MOST_PX)]
#: Bounds of what a viewport can be. Below and above, no screen is known (common practice).
LEAST_VIEWPORT, GREATEST_VIEWPORT = 120, 7680
Percent = Annotated[float, Field(ge=0.01, le=1000)]
#: A database's key, from 0 (nothing stored yet) to what 64 bits hold.
Id = Annotated[int, Field(ge=0, le=2**63 - 1)]
#: The sides of a ratio, and the flattest and narrowest ratio itself, as width over height.
Side = Annotated[float, Field(ge=0.001, le=10000)]
FLATTEST, NARROWEST = 1000.0, 0.001
#: The smallest part of a picture that can be marked or cut, as a share of a side.
LEAST_SHARE = 1e-4
#: What is this close to a bound is on it: sums of fractions are not exact.
NOISE = 1e-9


class Noun(BaseModel):
    """Base of every value: immutable, and unknown fields are an error rather than silently lost."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class Answer(Noun):
    """Base of what is only ever told, never asked: a field with a default is told as well, so that
    whoever reads it need not know the default."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)


#: For so many values `once` keeps what has been worked out, of each object.
MOST_KNOWN = 32

Of = TypeVar("Of")
More = ParamSpec("More")
Result = TypeVar("Result")


def once(
    work: Callable[Concatenate[Of, More], Result],
) -> Callable[Concatenate[Of, More], Result]:
    """A function of one object, and of further values that can be hashed, by place or by name, that
    is worked out once for as long as that object lives: of the latest `MOST_KNOWN` such values. For
    values that are no objects of ours there is `functools.lru_cache`."""
    known: WeakKeyDictionary[Any, dict[Any, Result]] = WeakKeyDictionary()

    @wraps(work)
    def kept(of: Of, /, *more: More.args, **named: More.kwargs) -> Result:
        mine = known.get(of)
        if mine is None:
            mine = known.setdefault(of, {})
        asked: Any = (more, frozenset(named.items())) if named else more
        try:
            return mine[asked]
        except KeyError:
            found = mine[asked] = work(of, *more, **named)
        if len(mine) > MOST_KNOWN:
            # another thread may have let it go already
            mine.pop(next(iter(mine)), None)
        return found

    return cast(Callable[Concatenate[Of, More], Result], kept)
