"""What a kind of placement has to say for itself.

A layout says, for every width, how large each part's frame is and where it stands in the
placement's box, and writes the CSS for that. All that comes after, from what shows to the markup,
is worked out per part and knows no kinds.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable, Mapping, Sequence
from typing import ClassVar

from pydantic import JsonValue, ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.layouts.handles import Handle
from skypane.layouts.laid import Laid
from skypane.layouts.spot import Frame, Spot
from skypane.model import Placement, Role, Site
from skypane.model.condition import when_words
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.frames import Floats, Piece, frame_widths
from skypane.widths.sums import width_sum
from skypane.words.block import BUTTON_WEIGHT, HEADING_WEIGHT, TEXT_WEIGHT

#: Before a selector of `Layout.rules`: the rule holds only where scripts may run (Media Queries 5,
#: `scripting`).
SCRIPTED = "@scripted"


class OfLayout(InvalidPlan):
    """A value of the kind itself that cannot be had; `field` is named as it is there."""


class Nothing(Noun):
    """The values of a kind that has none of its own."""


class Layout(ABC):
    """How one kind lays its parts out. Every method is a pure function of a spot."""

    #: The kind's name as a placement says it.
    kind: ClassVar[str]
    #: What the kind can be told per span; every field is None where nothing is said.
    Values: ClassVar[type[Noun]] = Nothing
    #: Whether words belong to it: then its values are an `OnPicture`, and `laid` is there.
    has_words: ClassVar[bool] = False
    #: Whether each part is an item with a caption and a link.
    has_items: ClassVar[bool] = False
    #: Whether it may have so many parts that only the one is read that is being worked on, and
    #: what is known of the others is kept.
    is_large: ClassVar[bool] = False
    #: What lies on its pictures beside words and other parts, as controls do; "" for nothing.
    lies_on: ClassVar[str] = ""
    #: What one of its parts is called.
    one: ClassVar[str] = "part"
    #: What the width of a part's frame is called.
    width_word: ClassVar[str] = "Frame width"
    #: Whether its picture may be the background of an element: then it is decoration.
    decorates: ClassVar[bool] = False
    #: The elements around all parts and around each, where there are any.
    box: ClassVar[str | None] = None
    cell: ClassVar[str | None] = None
    #: What its parts may be beside pictures.
    roles: ClassVar[frozenset[Role]] = frozenset()
    #: Which of its values can be others under conditions: colours, and what lies under words.
    colours: ClassVar[frozenset[str]] = frozenset()
    least_parts: ClassVar[int] = 1
    most_parts: ClassVar[int] = 1

    @abstractmethod
    def frame(self, spot: Spot, part: int) -> Frame:
        """A part's frame. Raises InvalidPlan where it cannot be had."""

    def frames(self, spot: Spot) -> Sequence[Frame]:
        """The frames of all parts. Raises InvalidPlan as `frame` does."""
        return [self.frame(spot, i) for i in range(len(spot.cells))]

    def together(self, held: tuple[Effective, ...], values: Noun) -> tuple[Effective, ...]:
        """What holds for the parts of a span once they are looked at together, with the kind's own
        values."""
        return held

    @abstractmethod
    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        """The width of the same frame as straight lines, for `sizes`."""

    @abstractmethod
    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        """Declarations of a part's frame, always the same ones."""

    def laid(self, spot: Spot) -> Laid:
        """Where words and picture are, of a kind that has words. Raises InvalidPlan as `frame`
        does."""
        raise NotImplementedError(f"The kind {self.kind} has no words.")

    def lying(self, spot: Spot, part: int, high: Floats) -> Frame | None:
        """Where what `lies_on` a part stands, from the corner of the part's frame, which is `high`
        CSS px, (heights, widths); None where it does not."""
        return None

    def handles(self, spot: Spot) -> Iterable[Handle]:
        """What can be pulled in a span; the spot is one of a single viewport. None where nothing
        shows."""
        return ()

    def is_round(self, spot: Spot, part: int) -> bool:
        """Whether a part is cut to an ellipse."""
        return False

    def rules(self, spot: Spot) -> Mapping[str, dict[str, str]]:
        """Declarations of the box around all parts and of what the kind itself has in it, always
        the same ones, by what follows the placement's class in the selector. Of many items they
        follow from `spot.facts` alone."""
        return {}

    def without(self, spots: Sequence[Spot]) -> tuple[str, ...]:
        """What `rules` speaks of and the markup does not have in any span: what follows the
        placement's class begins with one of these."""
        return ()

    def texts(self, placement: Placement) -> tuple[tuple[str, int], ...]:
        """All that it writes in the site's typeface, each text with its weight."""
        words = placement.words
        if not self.has_words or words is None:
            return ()
        found = [(words.heading, HEADING_WEIGHT), (words.text, TEXT_WEIGHT)]
        found += [(label, BUTTON_WEIGHT) for label in words.labels]
        return tuple((text, weight) for text, weight in found if text.strip())

    def level(self, site: Site, placement: Placement) -> int:
        """The rank of its headings (HTML Standard §4.3.11)."""
        own = placement.title_level
        if self.has_words:
            own = placement.words.level if placement.words else None
        return own or site.heading_level

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        """The width of a part's frame at one viewport width as a sum."""
        page_px = viewport_px - spot.scrollbar_px
        return width_sum(spot.cells[part].effective.width, spot.container, page_px)

    def word(self, spot: Spot) -> str:
        """How it arranges its parts in a span, in a word; nothing where there is nothing to say."""
        return ""

    def box_widths(self, spot: Spot) -> Floats:
        """The width of the box around all parts at every width of a span, in CSS px."""
        e = spot.cells[0].effective
        return frame_widths(e.width, spot.page_widths, spot.container)

    def keeps_ratios(self, spot: Spot) -> bool:
        """Whether each part keeps its own ratio in a span, whatever its height rule says."""
        return False

    def box_around(self, spot: Spot, frame_px: float) -> float | None:
        """How wide the box around all parts is where a part's frame is so wide, in CSS px; None
        where the box is not limited by them."""
        return None

    def notes(self, spot: Spot) -> tuple[str, ...]:
        """What it has to say of a span beside its values, in sentences."""
        return ()

    def first_seen(self, spot: Spot, part: int, frames: Sequence[Frame]) -> bool:
        """Whether a part may show before anything has been moved: of many those of the first row
        do. `frames` are those of all parts."""
        return bool(frames[part].y.max() <= frames[0].y.max() + 1)

    def words_lie_on(self, spot: Spot) -> bool:
        """Whether words lie on the picture in a span."""
        return False

    def words_below(self) -> dict[str, JsonValue]:
        """The kind's own values that put words below the picture."""
        return {}

    def begin(self, site: Site, placement: Placement) -> Placement:
        """A placement that has just become one of this kind, with what the kind begins with."""
        return placement

    def with_first(self, placement: Placement, letter: str, original: int) -> Placement:
        """What a first original brings with it in the values of the kind; the part shows it in the
        span `letter`, the widest."""
        return placement

    def values(self, said: Mapping[str, object]) -> Noun:
        """The kind's own values, checked. Raises InvalidPlan with the field as it is named
        there."""
        try:
            return self.Values.model_validate(said)
        except ValidationError as error:
            where = error.errors(include_url=False)[0]["loc"]
            names = [str(p) for p in where if isinstance(p, int) or p not in ("plain", "linear")]
            raise OfLayout(sentence_of(error), field=".".join(names)) from None

    def check(self, placement: Placement) -> None:
        """Raises InvalidPlan where the placement has too few or too many parts, those that stand in
        for others not counted."""
        n = len(placement.usual)
        if not self.least_parts <= n <= self.most_parts:
            least, most = self.least_parts, self.most_parts
            said = f"{least}" if least == most else f"{least} to {most}"
            raise InvalidPlan(
                f"A placement of the kind {self.kind} has {said} part{'s' if most > 1 else ''};"
                f" this one has {n}.",
                field="parts",
            )


_KNOWN: dict[str, Layout] = {}


def known(layout: type[Layout]) -> type[Layout]:
    """Make a layout known, under its kind."""
    _KNOWN[layout.kind] = layout()
    return layout


def kind_names() -> Sequence[str]:
    return tuple(_KNOWN)


def value_classes(*, has_words: bool = False) -> Sequence[type[Noun]]:
    """The values of all kinds, or of those that have words; each type once."""
    found = (layout.Values for layout in _KNOWN.values() if layout.has_words or not has_words)
    return tuple(dict.fromkeys(found))


def values_of_kind(kind: str) -> type[Noun] | None:
    """The type of the values of a kind; None where there is no such kind."""
    layout = _KNOWN.get(kind)
    return layout.Values if layout else None


def colours_of(kind: str) -> frozenset[str]:
    """The values of a kind that can be others under conditions."""
    return _KNOWN[kind].colours if kind in _KNOWN else frozenset()


def value_names(kind: str) -> dict[str, str]:
    """What each value of a kind is called, by its field; nothing where there is no such kind."""
    values = values_of_kind(kind)
    fields = values.model_fields if values else {}
    return {name: field.title or name for name, field in fields.items()}


def has_items(kind: str) -> bool:
    """Whether each part of a kind is an item; of no kind that there is, none is."""
    return kind in _KNOWN and _KNOWN[kind].has_items


def begun(kind: str, site: Site, placement: Placement) -> Placement:
    """A placement as another kind: what both know stays, what the new one needs is begun, what only
    the old one knew goes. Raises InvalidPlan where there is no such kind."""
    bare = placement.model_copy(
        update={"kind": kind, "layout": {}, "layout_under": (), "words": None}
    )
    layout = _known_kind(bare)
    # of many items each may be what was something beside the picture
    known = [
        p for p in placement.usual if layout.has_items or p.role is None or p.role in layout.roles
    ]
    kept = tuple(known[: layout.most_parts])
    keys = {p.key for p in kept}
    kept += tuple(p for p in placement.parts if p.of is not None and p.of in keys)
    return layout.begin(site, bare.model_copy(update={"parts": kept}))


def _known_kind(placement: Placement) -> Layout:
    layout = _KNOWN.get(placement.kind)
    if layout is None:
        raise InvalidPlan(
            f"There is no kind of placement called {placement.kind}. Use {' or '.join(_KNOWN)}.",
            field="kind",
        )
    return layout


def layout_of(placement: Placement) -> Layout:
    """The layout of a placement's kind. Raises InvalidPlan where there is none, or where it cannot
    have so many parts."""
    layout = _known_kind(placement)
    check_variants(placement)
    _check_under(layout, placement)
    layout.check(placement)
    return layout


def _check_under(layout: Layout, placement: Placement) -> None:
    """Raises InvalidPlan where a value of the kind is another under conditions that cannot be, or
    where one set of conditions is there twice."""
    whens = [u.when for u in placement.layout_under]
    for i, under in enumerate(placement.layout_under):
        if under.when in whens[:i]:
            raise InvalidPlan(
                f"What holds {when_words(under.when)} is there twice. Remove one.",
                field=f"layout_under.{i}.when",
            )
        for letter, own in under.layout.items():
            for field in sorted(own.keys() - layout.colours):
                name = value_names(layout.kind).get(field, field)
                raise InvalidPlan(
                    f"{name[:1].upper()}{name[1:]} cannot be another {when_words(under.when)}:"
                    " only colours and what lies under words can. Set it for always.",
                    field=f"layout_under.{i}.layout.{letter}.{field}",
                )


def check_variants(placement: Placement) -> None:
    """Raises InvalidPlan where a part stands in for one that is not there, or does so twice under
    the same conditions; where parts have one key; or where others come after variants."""
    usual = placement.usual
    keys = [p.key for p in usual if p.key is not None]
    if len(set(keys)) < len(keys):
        raise InvalidPlan("Two parts have the same key. Give each its own.", field="parts")
    if placement.parts[: len(usual)] != usual:
        raise InvalidPlan(
            "What stands in for other pictures comes after all of them.", field="parts"
        )
    seen = set()
    for i, part in enumerate(placement.parts[len(usual) :], len(usual)):
        if part.of not in keys:
            raise InvalidPlan(
                f"There is no part {part.of} that another picture could stand in for.",
                field=f"parts.{i}.of",
            )
        if (part.of, part.when) in seen:
            raise InvalidPlan(
                f"Two pictures stand in for part {part.of} under the same conditions. Remove one.",
                field=f"parts.{i}.when",
            )
        seen.add((part.of, part.when))
    for i, part in enumerate(usual):
        for letter, own in part.treatments.items():
            if own.show == "usual":
                raise InvalidPlan(
                    "Only what stands in for another picture can show the usual one.",
                    field=f"parts.{i}.treatments.{letter}.show",
                )
