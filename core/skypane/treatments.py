"""What holds in a span: treatments handed down from wider spans to narrower ones (02-rules §3)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect, Region
from skypane.model import (
    Aim,
    Area,
    Fit,
    Following,
    FullWidth,
    HeightRule,
    NaturalHeight,
    Original,
    Placement,
    Shows,
    Site,
    Stands,
    Treatment,
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

#: The crop that is no crop.
UNCROPPED = Rect(x=0, y=0, w=1, h=1)


@dataclass(frozen=True)
class Effective:
    """What holds in one span after handing down. `origin` says, per field, the letter it comes from
    ("" for a default)."""

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
    origin: dict[str, str]

    def under(self, own: Treatment, letter: str) -> Effective:
        """What holds once a span's own values are laid on top."""
        values = {f: v for f in FIELDS if (v := getattr(own, f)) is not None}
        origin = {**self.origin, **dict.fromkeys(values, letter)}
        if values.get("original", self.original) != self.original:
            for field in OF_ORIGINAL:
                if field not in values:
                    values[field], origin[field] = None, ""
        return replace(self, **values, origin=origin)


def respan(
    before: Site,
    after: Site,
    placement: Placement,
    areas: Mapping[int, tuple[str, ...]] | None = None,
) -> Placement:
    """The placement after the site's breakpoints have changed: every width keeps what it did, as
    far as spans allow.

    A new span takes what held at its last width; what equals the next wider span is handed down
    rather than own. `areas` are the names of each original's keep areas: what a span says that
    shows all of them beside a wider one that names some.
    """
    if len(before.breakpoints) == len(after.breakpoints):
        return placement
    held, old = resolve(before, placement), spans_of(before)
    treatments: dict[str, Treatment] = {}
    wider: dict[str, object] = {}
    for span in reversed(spans_of(after)):
        e = held[next((s for s in old if s.last >= span.last), old[-1]).letter]
        values = {f: getattr(e, f) for f in FIELDS if e.origin[f]}
        if wider.get("original") == e.original:  # else crop and areas are not handed down to it
            if e.crop is None and wider.get("crop") is not None:
                values["crop"] = UNCROPPED
            if e.keeps is None and wider.get("keeps") is not None and e.original is not None:
                values["keeps"] = (areas or {}).get(e.original, ())
        else:
            for field in OF_ORIGINAL:
                wider.pop(field, None)
        own = {
            f: v for f, v in values.items() if v is not None and (f not in wider or wider[f] != v)
        }
        if own:
            treatments[span.letter] = Treatment.model_validate(own)
        wider.update(own)
    return placement.model_copy(update={"treatments": treatments})


def resolve(site: Site, placement: Placement) -> dict[str, Effective]:
    """Per letter what holds there; wider spans hand down to narrower ones. Raises InvalidPlan for
    letters without a span."""
    spans = spans_of(site)
    unknown = set(placement.treatments) - {s.letter for s in spans}
    if unknown:
        raise InvalidPlan(
            f"There is no span {', '.join(sorted(unknown))} in this site.", field="treatments"
        )
    current = Effective(
        **{f: getattr(DEFAULTS, f) for f in FIELDS}, origin=dict.fromkeys(FIELDS, "")
    )
    out: dict[str, Effective] = {}
    for span in reversed(spans):
        current = current.under(placement.treatments.get(span.letter, Treatment()), span.letter)
        out[span.letter] = current
    return out


def keeps_of(original: Original, names: tuple[str, ...] | None) -> tuple[Area, ...]:
    """The keep areas named, in that order; all in their own order where no names are given. Unknown
    names are passed over."""
    if names is None:
        return original.keeps
    by_name = {a.name: a for a in original.keeps}
    return tuple(by_name[n] for n in names if n in by_name)


def crop_region(crop: Rect | None) -> Region:
    """The crop by its edges; WHOLE itself where nothing is cut."""
    if crop is None or (crop.w > 1 - 1e-9 and crop.h > 1 - 1e-9):
        return WHOLE
    return Region(crop.x, min(1.0, crop.x + crop.w), crop.y, min(1.0, crop.y + crop.h))
