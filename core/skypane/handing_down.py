"""Values by span, handed down: what is set in a span holds in every narrower one too, until one of
these sets it otherwise (rules §3). One rule for treatments, for a kind's own values and for pages.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, NamedTuple

#: Fields that speak of one original: they are not handed down past another one.
OF_ORIGINAL = ("crop", "keeps")

#: Who sets a value: a part, all parts together, the named frame, the kind, the page; or the part
#: in whose place a variant shows.
Setter = Literal["part", "all", "frame", "kind", "page", "usual"]

Values = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Origin:
    """Where a value is set: the letter of a span, and by whom."""

    letter: str
    of: Setter


class Handed(NamedTuple):
    """What holds in a span of all that has been set, and where each value is from. What nobody has
    set is in neither."""

    values: dict[str, Any]
    origin: dict[str, Origin]

    def set_in(self, letter: str) -> frozenset[str]:
        """The fields that are set in one span itself, by whomever, but for those of another part
        over which this one lies."""
        mine = (f for f, o in self.origin.items() if o.letter == letter and o.of != "usual")
        return frozenset(mine)

    def under(self, values: Values, origin: Mapping[str, Origin]) -> Handed:
        """What holds once other values lie over these."""
        kept = _past(self.values, values)
        return Handed(
            {**kept, **values},
            {**{k: v for k, v in self.origin.items() if k in kept}, **origin},
        )


NOTHING_SET = Handed({}, {})


class Layer(NamedTuple):
    """What one of them sets, by letter. In a span, layers lie over those before."""

    of: Setter
    values: Mapping[str, Values]


def handed_down(letters: Sequence[str], *layers: Layer) -> dict[str, Handed]:
    """Per letter what holds there. `letters` from the narrowest span."""
    handed, out = NOTHING_SET, {}
    for letter in reversed(letters):
        for of, values in layers:
            if own := values.get(letter):
                handed = handed.under(own, dict.fromkeys(own, Origin(letter, of)))
        out[letter] = handed
    return out


def _past(values: Values, over: Values) -> dict[str, Any]:
    """What of some values still holds under others: of another original nothing is known yet."""
    if over.get("original", values.get("original")) == values.get("original"):
        return dict(values)
    return {k: v for k, v in values.items() if k not in OF_ORIGINAL}


def to_set(
    handed: Mapping[str, Handed],
    *below: Mapping[str, Values],
    taken_back: Callable[[str, Values], Any] = lambda field, values: None,
) -> dict[str, dict[str, Any]]:
    """The other way: what has to be set over what lies `below` so that in each span holds what is
    `handed`; nothing where nothing need be set. `handed` from the widest span. `taken_back` gives
    what to set where a value of the original would be handed down and none holds; None for
    nothing."""
    wider: dict[str, Any] = {}
    out: dict[str, dict[str, Any]] = {}
    for letter, (values, _) in handed.items():
        for layer in below:
            wider = {**_past(wider, layer[letter]), **layer[letter]} if letter in layer else wider
        wider = _past(wider, values)
        own = {f: v for f, v in values.items() if f not in wider or wider[f] != v}
        for field in OF_ORIGINAL:
            if field in wider and field not in values:
                back = taken_back(field, values)
                if back is not None and back != wider[field]:
                    own[field] = back
        if own:
            out[letter] = own
        wider = {**wider, **own}
    return out
