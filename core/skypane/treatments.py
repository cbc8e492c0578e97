"""What holds in a span: treatments handed down from wider spans to narrower ones (rules §3), and
in each span from the site's named frame to the placement, and from there to its parts."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.handing_down import OF_ORIGINAL, Handed, Layer, Origin, handed_down
from skypane.model import (
    NO_BACKGROUND,
    Aim,
    Area,
    Feature,
    Fit,
    Following,
    FrameValues,
    FullWidth,
    HeightRule,
    NamedFrame,
    NaturalHeight,
    Original,
    Part,
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

_DEFAULTS = {f: getattr(DEFAULTS, f) for f in FIELDS}

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
    def waits(self) -> bool:
        """Whether it shows a picture but has none yet."""
        return self.original is None and self.show == "picture"


class Resolved(NamedTuple):
    """What holds for a part in one span, and what of it has been set, by whom. `is_usual`: of a
    variant, that the part in whose place it stands shows."""

    effective: Effective
    handed: Handed
    is_usual: bool = False

    @property
    def origin(self) -> Mapping[str, Origin]:
        """Where each field comes from; one that is a default is not among them."""
        return self.handed.origin


def on_its_own(resolved: Resolved, original: Original | None) -> Effective:
    """What holds with its original known: what can be seen through lies on nothing unless somebody
    has chosen a colour, or shows only that."""
    e = resolved.effective
    if "background" in resolved.origin or original is None or e.show != "picture":
        return e
    return replace(e, background=NO_BACKGROUND) if original.alpha else e


def own_values(treatment: Treatment) -> dict[str, Any]:
    """The fields that a treatment sets."""
    return {f: v for f in FIELDS if (v := getattr(treatment, f)) is not None}


def set_in(treatments: Treatments) -> dict[str, dict[str, Any]]:
    """The fields that treatments set, by letter."""
    return {letter: own_values(own) for letter, own in treatments.items()}


def resolve(site: Site, placement: Placement) -> tuple[dict[str, Resolved], ...]:
    """Per part and letter what holds there; wider spans hand down to narrower ones. Raises
    InvalidPlan for letters without a span."""
    letters = [s.letter for s in spans_of(site)]
    asked = {letter for letter, _ in placement.all_treatments()} | set(placement.layout)
    asked |= {letter for under in placement.layout_under for letter in under.layout}
    if unknown := asked - set(letters):
        raise InvalidPlan(
            f"There is no span {', '.join(sorted(unknown))} in this site.", field="treatments"
        )
    below = layers_below(site, placement)
    usual = {
        part.key: _effective(handed_down(letters, *below, part_layer(part)))
        for part in placement.usual
        if part.key is not None
    }
    found = tuple(
        _varied(usual[part.of], handed_down(letters, part_layer(part)))
        if part.of is not None
        else usual.get(part.key or "") or _effective(handed_down(letters, *below, part_layer(part)))
        for part in placement.parts
    )
    service = site.hand_over.service
    return found if service is None or service.cuts else tuple(map(_uncut, found))


def _uncut(held: Mapping[str, Resolved]) -> dict[str, Resolved]:
    """What holds where files cannot be cut to what shows."""
    return {
        letter: r._replace(effective=replace(r.effective, whole=True)) for letter, r in held.items()
    }


def layers_below(site: Site, placement: Placement) -> tuple[Layer, Layer]:
    """What lies below what a part sets itself: the named frame, and what holds for all parts."""
    return (
        Layer("frame", set_in(frame_treatments(site, placement))),
        Layer("all", set_in(placement.common)),
    )


def part_layer(part: Part) -> Layer:
    return Layer("part", set_in(part.treatments))


def _effective(held: Mapping[str, Handed]) -> dict[str, Resolved]:
    out: dict[str, Resolved] = {}
    before: Resolved | None = None
    for letter, there in held.items():
        if before is None or there is not before.handed:
            before = Resolved(Effective(**{**_DEFAULTS, **there.values}), there)
        out[letter] = before
    return out


def _varied(usual: Mapping[str, Resolved], held: Mapping[str, Handed]) -> dict[str, Resolved]:
    """Per letter what holds of a variant over what holds of the part that it stands in for: that
    part where it has set nothing yet or shows the usual one; and where that part shows nothing,
    unless it says in that very span what it shows."""
    out = {}
    for letter, of_usual in usual.items():
        values, origin = held[letter]
        below = as_usual(of_usual.handed)
        is_usual = not values or values.get("show") == "usual"
        says_so = "show" in origin and origin["show"].letter == letter
        if is_usual or (of_usual.effective.show == "nothing" and not says_so):
            out[letter] = Resolved(of_usual.effective, below, is_usual=True)
        else:
            over = below.under(values, origin)
            out[letter] = Resolved(Effective(**{**_DEFAULTS, **over.values}), over)
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
    return set_by(frame)


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


def set_by(frame: NamedFrame) -> Treatments:
    """A named frame as treatments."""
    return {
        letter: Treatment(**{f: getattr(values, f) for f in OF_FRAME})
        for letter, values in frame.spans.items()
    }


def handed_of_kind(
    site: Site, placement: Placement, when: tuple[Feature, ...] = ()
) -> dict[str, Handed]:
    """Per letter the values of the kind itself, handed down from wider spans, while all of some
    conditions hold: those of most conditions lie on top (rules §14)."""
    letters = [s.letter for s in spans_of(site)]
    held = handed_down(letters, kind_layer(placement.layout))
    over = [u for u in placement.layout_under if set(u.when) <= set(when)]
    for under in sorted(over, key=lambda u: len(u.when)):
        held = over_usual(held, handed_down(letters, kind_layer(under.layout)))
    return held


def over_usual(usual: Mapping[str, Handed], over: Mapping[str, Handed]) -> dict[str, Handed]:
    """Per letter what holds once what holds under conditions lies over what usually does."""
    return {letter: as_usual(below).under(*over[letter]) for letter, below in usual.items()}


def as_usual(held: Handed) -> Handed:
    """What usually holds, as it lies below what holds under conditions."""
    return Handed(held.values, {k: Origin(o.letter, "usual") for k, o in held.origin.items()})


def kind_layer(layout: Mapping[str, Mapping[str, Any]]) -> Layer:
    """Values of a kind by letter; one that is None is not set."""
    return Layer(
        "kind",
        {letter: {k: v for k, v in own.items() if v is not None} for letter, own in layout.items()},
    )


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
    return with_fields(treatments, letter, own_values(values))


def with_fields(treatments: Treatments, letter: str, fields: Mapping[str, Any]) -> Treatments:
    """The treatments with some fields of one span set; those that are None are taken back."""
    own = treatments.get(letter, Treatment())
    return {**treatments, letter: own.model_copy(update=dict(fields))}


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
