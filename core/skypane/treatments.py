"""What holds in a span: treatments handed down from wider spans to narrower ones (rules §3), and
in each span from the site's named frame to the placement, and from there to its parts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import (
    NO_BACKGROUND,
    Aim,
    Area,
    Fit,
    Following,
    FrameValues,
    FullWidth,
    HeightRule,
    NamedFrame,
    NaturalHeight,
    Original,
    Placement,
    Shows,
    Site,
    Stands,
    Treatment,
    Treatments,
    WidthRule,
)
from skypane.widths.spans import spans_of

#: Fields of a treatment in the order in which they are shown.
FIELDS = (
    "width",
    "height",
    "stands",
    "show",
    "original",
    "crop",
    "keeps",
    "fit",
    "aim",
    "whole",
    "background",
)

#: Fields that speak of one original and are not handed down past another one.
OF_ORIGINAL = ("crop", "keeps")

#: What a placement does when nobody has said anything yet.
DEFAULTS = Treatment(
    width=FullWidth(),
    height=NaturalHeight(),
    stands="centre",
    show="picture",
    fit="cover",
    aim=Following(),
    whole=False,
    background="#d5d9da",
)

#: What pages are where nobody has said otherwise.
PAGE_COLOUR = "#ffffff"

#: How `origin` names what comes from the values for all parts, "all D", from the named frame,
#: "frame D", and from the part that a variant stands in for, "usual D".
ALL, NAMED, USUAL = "all ", "frame ", "usual "

#: Fields that a named frame can set.
OF_FRAME = tuple(FrameValues.model_fields)


@dataclass(frozen=True)
class Effective:
    """What holds for a part in one span after handing down."""

    width: WidthRule
    height: HeightRule
    stands: Stands
    show: Shows
    original: int | None
    crop: Rect | None
    keeps: tuple[str, ...] | None
    fit: Fit
    aim: Aim
    whole: bool
    background: str

    def with_own(self, own: Treatment) -> Effective:
        """What holds once other values are laid on top."""
        values = own_values(own)
        if values.get("original", self.original) != self.original:
            values = {**dict.fromkeys(OF_ORIGINAL), **values}
        return replace(self, **values) if values else self

    @property
    def ground(self) -> str:
        """The colour that lies behind the picture: where it keeps none the page's, which is taken
        to be white (common practice)."""
        return PAGE_COLOUR if self.background == NO_BACKGROUND else self.background

    @property
    def waits(self) -> bool:
        """Whether it shows a picture but has none yet."""
        return self.original is None and self.show == "picture"


class Resolved(NamedTuple):
    """What holds, and where each field of it comes from: the letter of a span, with `ALL` before it
    where it is said for all parts, `NAMED` where the named frame says it and `USUAL` where a
    variant has it from the part that it stands in for, or "" for a default. `is_usual`: of a
    variant, that this part holds."""

    effective: Effective
    origin: dict[str, str]
    is_usual: bool = False

    def laid(self, own: Treatment, source: str) -> Resolved:
        values = own_values(own)
        effective, origin = self.effective.with_own(own), {**self.origin}
        if effective.original != self.effective.original:
            origin.update(dict.fromkeys(OF_ORIGINAL, ""))
        return Resolved(effective, {**origin, **dict.fromkeys(values, source)})


NOTHING_SAID = Resolved(
    Effective(**{f: getattr(DEFAULTS, f) for f in FIELDS}), dict.fromkeys(FIELDS, "")
)


def on_its_own(held: Resolved, original: Original | None) -> Effective:
    """What holds with its original known: what can be seen through lies on nothing unless somebody
    has chosen a colour, or shows only that."""
    e = held.effective
    if held.origin["background"] or original is None or e.show != "picture":
        return e
    return replace(e, background=NO_BACKGROUND) if original.alpha else e


def own_values(treatment: Treatment) -> dict[str, Any]:
    """The fields that a treatment sets."""
    return {f: v for f in FIELDS if (v := getattr(treatment, f)) is not None}


def resolve(site: Site, placement: Placement) -> tuple[dict[str, Resolved], ...]:
    """Per part and letter what holds there; wider spans hand down to narrower ones. Raises
    InvalidPlan for letters without a span."""
    letters = [s.letter for s in spans_of(site)]
    said = {letter for letter, _ in placement.all_treatments()} | set(placement.layout)
    if unknown := said - set(letters):
        raise InvalidPlan(
            f"There is no span {', '.join(sorted(unknown))} in this site.", field="treatments"
        )
    below = (Layer(NAMED, frame_treatments(site, placement)), Layer(ALL, placement.common))
    usual = {
        part.key: chain(letters, (*below, Layer("", part.treatments)))
        for part in placement.usual
        if part.key is not None
    }
    return tuple(
        varied(usual[part.of], handed_down(letters, part.treatments))
        if part.of is not None
        else usual.get(part.key or "") or chain(letters, (*below, Layer("", part.treatments)))
        for part in placement.parts
    )


class Said(NamedTuple):
    """What somebody has said so far in a span, and the letter of the span that each value is
    from."""

    values: dict[str, Any]
    origin: dict[str, str]


def handed_down(letters: Sequence[str], treatments: Treatments) -> dict[str, Said]:
    """Per letter what treatments say there or in a wider span; what speaks of one original not past
    another one."""
    current, out = Said({}, {}), {}
    for letter in reversed(letters):
        own = own_values(treatments[letter]) if letter in treatments else {}
        before = current.values
        if own.get("original", before.get("original")) != before.get("original"):
            before = {k: v for k, v in before.items() if k not in OF_ORIGINAL}
        origin = {**current.origin, **dict.fromkeys(own, letter)}
        current = Said({**before, **own}, origin)
        out[letter] = current
    return out


def varied(usual: Mapping[str, Resolved], said: Mapping[str, Said]) -> dict[str, Resolved]:
    """Per letter what holds of a variant over what holds of the part that it stands in for: that
    part where it has said nothing yet or shows the usual one, and where that part shows nothing."""
    out = {}
    for letter, held in usual.items():
        values, origin = said[letter]
        below = {k: f"{USUAL}{source}" if source else "" for k, source in held.origin.items()}
        is_usual = not values or values.get("show") == "usual"
        if is_usual or held.effective.show == "nothing":
            out[letter] = Resolved(held.effective, below, is_usual=True)
            continue
        effective = held.effective.with_own(Treatment(**values))
        if effective.original != held.effective.original:
            below.update(dict.fromkeys(OF_ORIGINAL, ""))
        own = {k: source for k, source in origin.items() if k in values}
        out[letter] = Resolved(effective, {**below, **own})
    return out


class Layer(NamedTuple):
    """Treatments that lie over those of the layers before, and how `origin` names them."""

    named: str
    treatments: Treatments


def chain(letters: Sequence[str], layers: Sequence[Layer]) -> dict[str, Resolved]:
    current, out = NOTHING_SAID, {}
    for letter in reversed(letters):
        for named, treatments in layers:
            if letter in treatments:
                current = current.laid(treatments[letter], f"{named}{letter}")
        out[letter] = current
    return out


def frame_treatments(site: Site, placement: Placement) -> Treatments:
    """What the placement's named frame says, by letter; nothing where it has none. Raises
    InvalidPlan where the site has no such frame."""
    if placement.frame is None:
        return {}
    frame = site.frame_of(placement.frame)
    if frame is None:
        raise InvalidPlan(
            f"The frame {placement.frame} is not among the frames of this site. Choose another, or"
            " none.",
            field="frame",
        )
    check_frames(site, frame)
    return said_by(frame)


def check_frames(site: Site, *frames: NamedFrame) -> None:
    """Raises InvalidPlan where one of the frames speaks of a span that the site does not have."""
    letters = {s.letter for s in spans_of(site)}
    for frame in frames:
        if unknown := sorted(set(frame.spans) - letters):
            raise InvalidPlan(
                f"The frame {frame.name} speaks of span {unknown[0]}, which this site does not"
                " have. Remove it there.",
                field="plan.frames",
            )


def said_by(frame: NamedFrame) -> Treatments:
    """A named frame as treatments."""
    return {
        letter: Treatment(**{f: getattr(values, f) for f in OF_FRAME})
        for letter, values in frame.spans.items()
    }


class LayoutSaid(NamedTuple):
    """The values of the kind itself in one span, and the letter of the span that each is from."""

    values: dict[str, Any]
    origin: dict[str, str]

    def source(self, field: str | None, letter: str) -> str:
        """Where in a placement a value is set; in the span itself where it is a default."""
        top = (field or "").split(".")[0]
        return f"layout.{self.origin.get(top, letter)}" + (f".{field}" if field else "")


def layout_values(site: Site, placement: Placement) -> dict[str, LayoutSaid]:
    """Per letter the values of the kind itself, handed down from wider spans."""
    current = LayoutSaid({}, {})
    out = {}
    for span in reversed(spans_of(site)):
        own = {k: v for k, v in placement.layout.get(span.letter, {}).items() if v is not None}
        origin = dict.fromkeys(own, span.letter)
        current = LayoutSaid({**current.values, **own}, {**current.origin, **origin})
        out[span.letter] = current
    return out


def keeps_of(original: Original, names: tuple[str, ...] | None) -> tuple[Area, ...]:
    """The keep areas named, in that order; all in their own order where no names are given. Unknown
    names are passed over."""
    if names is None:
        return original.keeps
    by_name = {a.name: a for a in original.keeps}
    return tuple(by_name[n] for n in names if n in by_name)


def effective_crop(crop: Rect | None) -> Rect:
    """The crop; WHOLE itself where nothing is cut."""
    if crop is None or (crop.w > 1 - 1e-9 and crop.h > 1 - 1e-9):
        return WHOLE
    return crop


# -- changes of treatments ------------------------------------------------------------------


def with_values(treatments: Treatments, letter: str, values: Treatment) -> Treatments:
    """The treatments with what `values` sets laid on one span."""
    own = treatments.get(letter, Treatment())
    return {**treatments, letter: own.model_copy(update=own_values(values))}


def showing(placement: Placement, original: int) -> Placement:
    """The placement with all its rules, but another original wherever it shows one; what lies on
    the picture stays. What speaks of the one that was there, a crop and the areas that matter, goes
    with it."""

    def shown(treatments: Treatments) -> Treatments:
        out = {}
        for letter, own in treatments.items():
            values = {k: v for k, v in own_values(own).items() if k not in OF_ORIGINAL}
            if "original" in values:
                values["original"] = original
            out[letter] = Treatment(**values)
        return out

    parts = tuple(
        part.model_copy(update={"treatments": shown(part.treatments), "alt": None})
        if part.role is None and part.of is None
        else part
        for part in placement.parts
    )
    return placement.model_copy(update={"parts": parts, "common": shown(placement.common)})


def seen_in(site: Site, placement: Placement, letter: str, shows: bool) -> Placement:
    """The placement shown or not shown in one span, and in no other one otherwise than before. What
    is shown again shows its picture."""
    letters = [s.letter for s in spans_of(site)]
    narrower = letters[: letters.index(letter)][-1:]
    resolved = resolve(site, placement)
    parts = []
    for part, held in zip(placement.parts, resolved, strict=True):
        if part.of is not None:
            # shows only where that in whose place it stands does
            parts.append(part)
            continue
        treatments = part.treatments
        for other in narrower:
            own = treatments.get(other)
            if own is None or own.show is None:
                was = Treatment(show=held[other].effective.show)
                treatments = with_values(treatments, other, was)
        now: Shows = "nothing"
        if shows:
            now = (
                "picture"
                if held[letter].effective.show == "nothing"
                else held[letter].effective.show
            )
        treatments = with_values(treatments, letter, Treatment(show=now))
        parts.append(part.model_copy(update={"treatments": treatments}))
    return placement.model_copy(update={"parts": tuple(parts)})


def with_named(placement: Placement, numbers: Mapping[int, int]) -> Placement:
    """The placement with the originals that values of its kind name under other numbers."""

    def told(values: Any) -> Any:
        if isinstance(values, Mapping):
            out = {k: told(v) for k, v in values.items()}
            named = out.get("original")
            if isinstance(named, int) and named in numbers:
                return {**out, "original": numbers[named]}
            return out
        return [told(v) for v in values] if isinstance(values, list | tuple) else values

    return placement.model_copy(update={"layout": told(placement.layout)})
