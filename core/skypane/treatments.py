"""What holds in a span: treatments handed down from wider spans to narrower ones (02-rules §3), and
in each span from the site's named frame to the placement, and from there to its parts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import (
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

#: How `origin` names what comes from the values for all parts, "all D", and from the named frame,
#: "frame D".
ALL, NAMED = "all ", "frame "

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
    """What holds, and where each field of it comes from: the letter of a span, with `ALL` before it
    where it is said for all parts and `NAMED` where the named frame says it, or "" for a
    default."""

    effective: Effective
    origin: dict[str, str]

    def laid(self, own: Treatment, source: str) -> Resolved:
        values = own_values(own)
        effective, origin = self.effective.with_own(own), {**self.origin}
        if effective.original != self.effective.original:
            origin.update(dict.fromkeys(OF_ORIGINAL, ""))
        return Resolved(effective, {**origin, **dict.fromkeys(values, source)})


NOTHING_SAID = Resolved(
    Effective(**{f: getattr(DEFAULTS, f) for f in FIELDS}), dict.fromkeys(FIELDS, "")
)


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
    below = (_Layer(NAMED, frame_treatments(site, placement)), _Layer(ALL, placement.common))
    return tuple(_chain(letters, (*below, _Layer("", part.treatments))) for part in placement.parts)


class _Layer(NamedTuple):
    """Treatments that lie over those of the layers before, and how `origin` names them."""

    named: str
    treatments: Treatments


def _chain(letters: Sequence[str], layers: Sequence[_Layer]) -> dict[str, Resolved]:
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
    return said_by(frame)


def said_by(frame: NamedFrame) -> Treatments:
    """A named frame as treatments."""
    return {
        letter: Treatment(**{f: getattr(values, f) for f in OF_FRAME})
        for letter, values in frame.spans.items()
    }


def layout_values(site: Site, placement: Placement) -> dict[str, dict[str, Any]]:
    """Per letter the values of the kind itself, handed down from wider spans."""
    current: dict[str, Any] = {}
    out = {}
    for span in reversed(spans_of(site)):
        own = placement.layout.get(span.letter, {})
        current = {**current, **{k: v for k, v in own.items() if v is not None}}
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
    """The placement with all its rules, but another original wherever it shows one. What speaks of
    the one that was there, a crop and the areas that matter, goes with it."""

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
        for part in placement.parts
    )
    return placement.model_copy(update={"parts": parts, "common": shown(placement.common)})


def parted(site: Site, placement: Placement) -> Placement:
    """The placement without its named frame, whose values become its own wherever they hold."""
    if placement.frame is None:
        return placement
    common = dict(placement.common)
    for letter, said in frame_treatments(site, placement).items():
        over = own_values(common[letter]) if letter in common else {}
        common[letter] = Treatment(**{**own_values(said), **over})
    return placement.model_copy(update={"frame": None, "common": common})


def respan(
    before: Site,
    after: Site,
    placement: Placement,
    areas: Mapping[int, tuple[str, ...]] | None = None,
) -> Placement:
    """The placement after the site's breakpoints have changed: every width keeps what it did, as
    far as spans allow. `after` has its named frames carried over already (see `respanned`).

    A new span takes what held at its last width; what equals the next wider span is handed down
    rather than own. `areas` are the names of each original's keep areas: what a span says that
    shows all of them beside a wider one that names some. A ladder stays with the span that ends
    where its own did, and goes where there is none.
    """
    if len(before.breakpoints) == len(after.breakpoints):
        return placement
    letters, areas = [s.letter for s in spans_of(before)], areas or {}
    taken = _taken_from(before, after)
    old, new = frame_treatments(before, placement), frame_treatments(after, placement)
    below = (_Layer(NAMED, old), _Layer(ALL, placement.common))
    common = _carried(taken, _chain(letters, below), (new,), areas)
    ends = {s.last: s.letter for s in spans_of(after)}
    kept = {s.letter: ends[s.last] for s in spans_of(before) if s.last in ends}
    parts = []
    for part, held in zip(placement.parts, resolve(before, placement), strict=True):
        treatments = _carried(taken, held, (new, common), areas)
        ladders = {kept[k]: rungs for k, rungs in part.ladders.items() if k in kept}
        parts.append(part.model_copy(update={"treatments": treatments, "ladders": ladders}))
    values = layout_values(before, placement)
    layout: dict[str, dict[str, Any]] = {}
    wider: dict[str, Any] = {}
    for letter, was in taken.items():
        own = {k: v for k, v in values[was].items() if k not in wider or wider[k] != v}
        if own:
            layout[letter] = own
        wider = values[was]
    changed = {"parts": tuple(parts), "common": common, "layout": layout}
    return placement.model_copy(update=changed)


def respanned(before: Site, after: Site) -> Site:
    """The site after its breakpoints have changed in number, its named frames carried over like the
    treatments of placements (see `respan`)."""
    if len(before.breakpoints) == len(after.breakpoints):
        return after
    letters, taken = [s.letter for s in spans_of(before)], _taken_from(before, after)
    frames = []
    for frame in before.frames:
        held = _chain(letters, (_Layer("", said_by(frame)),))
        carried = _carried(taken, held, (), {})
        spans = {k: FrameValues(**{f: getattr(t, f) for f in OF_FRAME}) for k, t in carried.items()}
        frames.append(frame.model_copy(update={"spans": spans}))
    return after.model_copy(update={"frames": tuple(frames)})


def _taken_from(before: Site, after: Site) -> dict[str, str]:
    """Per new letter, from the widest, the old span that it takes after."""
    old = spans_of(before)
    return {
        span.letter: next((s for s in old if s.last >= span.last), old[-1]).letter
        for span in reversed(spans_of(after))
    }


def _carried(
    taken: Mapping[str, str],
    held: Mapping[str, Resolved],
    below: Sequence[Treatments],
    areas: Mapping[int, tuple[str, ...]],
) -> Treatments:
    """Own treatments that come to what held, over those that lie below."""
    treatments: Treatments = {}
    wider: dict[str, Any] = {}
    for letter, old in taken.items():
        for layer in below:
            laid = own_values(layer[letter]) if letter in layer else {}
            if laid.get("original", wider.get("original")) != wider.get("original"):
                wider = {k: v for k, v in wider.items() if k not in OF_ORIGINAL}
            wider |= laid
        e, origin = held[old]
        values = {f: getattr(e, f) for f in FIELDS if origin[f]}
        if wider.get("original") == e.original:  # else crop and areas are not handed down to it
            if e.crop is None and wider.get("crop") is not None:
                values["crop"] = WHOLE
            if e.keeps is None and wider.get("keeps") is not None and e.original is not None:
                values["keeps"] = areas.get(e.original, ())
        else:
            wider = {k: v for k, v in wider.items() if k not in OF_ORIGINAL}
        own = {
            f: v for f, v in values.items() if v is not None and (f not in wider or wider[f] != v)
        }
        if own:
            treatments[letter] = Treatment.model_validate(own)
        wider |= own
    return treatments
