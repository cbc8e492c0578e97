"""The markup of a placement: its pictures with the files of a delivery, and what its kind puts
around them.

Every source lists all its densities or widths, its type and the px size of its files. Widths go
with `sizes`, which says how wide the file is drawn.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from skypane.files.groups import drawn_widths
from skypane.files.inline import Inline, inline_of
from skypane.files.names import part_class
from skypane.files.renditions import Files, by_letter, by_part
from skypane.markup.drawing import drawing_element
from skypane.markup.elements import Candidate, Element, File, Value, element
from skypane.markup.html import html_of
from skypane.markup.lines import Line
from skypane.markup.own import writer_of
from skypane.markup.sizes import drawn_sizes, steady_size
from skypane.markup.sources import Img, Served, Source, picture_element
from skypane.markup.substitute import instead_of
from skypane.markup.types import TYPES
from skypane.markup.ways import way_of
from skypane.markup.words import words_element
from skypane.model import MediaStyle, Rendition
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.values import once
from skypane.widths.conditions import media_of
from skypane.widths.spans import Span


def placement_lines(plan: Plan, files: Files, folder: str = "images/") -> tuple[Line, ...]:
    """The markup of a placement as HTML. Without any file there is nothing to show and no line."""
    return html_of(folder).lines(placement_elements(plan, files))


def placement_elements(plan: Plan, files: Files) -> Sequence[Element]:
    """The markup of a placement. Without any file there is nothing to show and no element."""
    of = by_part(files)
    return boxed(plan, [_part_element(plan, part, of) for part in plan.written])


def boxed(plan: Plan, pictures: Sequence[Element | None]) -> Sequence[Element]:
    """All pictures of a placement, None for those that are not there yet, in the elements that its
    kind puts around them."""
    box, cell, words = plan.layout.box, plan.layout.cell, words_element(plan)
    there = [p for p in pictures if p is not None]
    if not box:
        return there
    if not there and words is None:
        return ()
    writer = writer_of(plan.layout.kind)
    if writer is not None:
        return writer(plan, pictures)
    each = [element(cell, None, [p]) for p in there] if cell else there
    inner = [words, *each] if words is not None else each
    return [element(box, {"class": plan.placement.called}, inner)]


def alt_text(part: PartPlan) -> str | None:
    """The part's own alt text, else that of the widest span's original; None where nobody has
    written any."""
    if part.part.alt is not None:
        return part.part.alt
    return part.shown[-1].original.alt if part.shown else None


class _Offered(NamedTuple):
    """Neighbouring spans of a part with the files that all of them take; none where they show no
    picture."""

    spans: tuple[SpanPlan, ...]
    files: tuple[Rendition, ...]

    @property
    def by_width(self) -> bool:
        return bool(self.files) and self.files[0].density is None

    def sizes(self, style: MediaStyle) -> str:
        """What goes with files that are offered by width."""
        return drawn_sizes(self.spans, style) if self.by_width else steady_size(self.files)

    def with_next(self, other: _Offered) -> _Offered:
        return _Offered((*self.spans, *other.spans), self.files)

    def sources(self, style: MediaStyle, as_widths: bool) -> tuple[Source, ...]:
        """One for each format; `as_widths`: all lists of the picture say widths."""
        formats = dict.fromkeys(r.format for r in self.files)
        each = ([r for r in self.files if r.format == f] for f in formats)
        sizes = self.sizes(style) if as_widths and self.files else None
        return tuple(_source(self, files, sizes, as_widths) for files in each)


class _Served(NamedTuple):
    """Neighbouring spans that the same sources serve, as one span: what they take, and what they
    take instead under conditions, in the order of testing."""

    span: Span
    offered: _Offered
    instead: tuple[tuple[str, _Offered], ...]

    @property
    def letters(self) -> tuple[str, ...]:
        return tuple(p.span.letter for p in self.offered.spans)

    @property
    def by_width(self) -> bool:
        return self.offered.by_width or any(of.by_width for _, of in self.instead)

    @property
    def files(self) -> tuple[object, ...]:
        """All that decides whether neighbours are one."""
        return (self.offered.files, *((media, of.files) for media, of in self.instead))

    def continued(self, by: _Served) -> _Served | None:
        """This run of spans and the next one as one, where they take the same and lie side by side;
        else None."""
        if self.files != by.files or self.span.last + 1 != by.span.first:
            return None
        span = Span(by.span.letter, "", self.span.first, by.span.last)
        instead = tuple(
            (media, of.with_next(other))
            for (media, of), (_, other) in zip(self.instead, by.instead, strict=True)
        )
        return _Served(span, self.offered.with_next(by.offered), instead)


def _served(part: PartPlan, mine: Files, others: tuple[_Other, ...]) -> list[_Served]:
    """What each run of spans takes, from the narrowest; nothing at all where no span has a picture
    yet.

    A span that still waits for its picture shows none: not that of another span.
    """
    if not mine and len(part.waiting) == len(part.spans):
        return []
    files = by_letter(mine)
    instead_of = [(media_of(o.part.when), o, by_letter(theirs)) for o, theirs in others]
    out: list[_Served] = []
    for at, p in enumerate(part.spans):
        letter = p.span.letter
        instead = tuple(
            (media, _Offered((other.spans[at],), theirs.get(letter, ())))
            for media, other, theirs in instead_of
            if letter not in other.usual
        )
        one = _Served(p.span, _Offered((p,), files.get(letter, ())), instead)
        both = out[-1].continued(one) if out else None
        out = [*out[:-1], both] if both else [*out, one]
    return out


def _part_element(plan: Plan, part: PartPlan, of: Mapping[int, Files]) -> Element | None:
    """The picture of a part."""
    others = tuple((o, of.get(o.index, ())) for o in plan.alternatives(part))
    called = part_class(plan.placement, part.index, bool(plan.layout.box))
    inline = inline_of(plan, part)
    if inline is not None:
        return _inline(part, inline, called)
    at_once, style = loads_at_once(plan, part), plan.site.media_style
    mine = of.get(part.index, ())
    way = way_of(plan, part, mine)
    if way == "background":
        return _background(part, mine, others, called)
    instead = instead_of(plan, part)
    picture = _picture(part, mine, others, called, at_once, style, instead)
    return _alone(picture, called) if picture is not None and way == "img" else picture


@once
def _inline(part: PartPlan, inline: Inline, called: str) -> Element:
    return drawing_element(inline, called, alt_text(part) or "")


@once
def _background(
    part: PartPlan, files: Files, others: tuple[_Other, ...], called: str
) -> Element | None:
    """The element whose background it is: its style sheet names the files."""
    return element("div", {"class": called}) if _served(part, files, others) else None


@once
def _alone(picture: Element, called: str) -> Element:
    """The `img` of a picture that has no sources, in the place of that picture."""
    (img,) = picture.children
    assert isinstance(img, Element)
    return element("img", {"class": called, **dict(img.attributes)}, spans=img.spans)


#: What stands in for a part, and its files.
_Other = tuple[PartPlan, Files]


@once
def _picture(
    part: PartPlan,
    files: Files,
    others: tuple[_Other, ...],
    called: str,
    at_once: bool,
    style: MediaStyle,
    instead: Rendition | None,
) -> Element | None:
    served, as_widths = _with_sources(part, files, others, style)
    if not served:
        return None
    rest = {**_loading(part, at_once), "data-instead": File(instead) if instead else None}
    img = Img(alt_text(part) or "", rest)
    return picture_element({"class": called}, served, style, img, as_widths=as_widths)


def _with_sources(
    part: PartPlan, files: Files, others: tuple[_Other, ...], style: MediaStyle
) -> tuple[list[Served], bool]:
    """What runs of spans are served with, and whether all of it says widths."""
    found = _served(part, files, others)
    # beside lists of widths those of densities are written as widths too: then every source says
    # its sizes, as checkers ask
    as_widths = any(s.by_width for s in found)
    return [
        Served(
            s.span,
            s.letters,
            s.offered.sources(style, as_widths),
            tuple((media, o.sources(style, as_widths)) for media, o in s.instead),
        )
        for s in found
    ], as_widths


def served_by(plan: Plan, part: PartPlan, of: Mapping[int, Files]) -> Sequence[Served]:
    """What each run of spans of a part is served with, from the narrowest; `of` has the files of
    all parts."""
    others = tuple((o, of.get(o.index, ())) for o in plan.alternatives(part))
    return _with_sources(part, of.get(part.index, ()), others, plan.site.media_style)[0]


def _source(
    offered: _Offered, files: Sequence[Rendition], sizes: str | None, as_widths: bool
) -> Source:
    def descriptor(f: Rendition) -> str:
        if as_widths:
            return f"{f.width_px}w"
        return "" if f.density == 1 else f.descriptor

    plain = _plain(offered, files)
    ascending = sorted(files, key=lambda f: f.width_px)
    return Source(
        candidates=tuple(Candidate(f, descriptor(f)) for f in ascending),
        plain=plain,
        width_px=plain.width_px,
        height_px=plain.height_px,
        type=TYPES[files[0].format],
        sizes=sizes,
    )


def _plain(offered: _Offered, files: Sequence[Rendition]) -> Rendition:
    """The file for browsers that read no lists, and whose px size says the ratio: that of a screen
    of density 1 at its widest."""
    if files[0].density is not None:
        return files[0]
    needed = max(drawn_widths(p).max() for p in offered.spans if isinstance(p, ShownSpan))
    ascending = sorted(files, key=lambda f: f.width_px)
    return next((f for f in ascending if f.width_px >= needed), ascending[-1])


def loads_at_once(plan: Plan, part: PartPlan) -> bool:
    """Whether the first screen may show it: of many pictures of a lead placement only those of the
    first row do, in some span."""
    if not plan.placement.lead or not plan.layout.has_items:
        return plan.placement.lead
    at = [i for i, p in enumerate(part.spans) if isinstance(p, ShownSpan)]
    of_all = ([other.spans[i].frame for other in plan.written] for i in at)
    return any(
        plan.layout.first_seen(plan.spots[i], plan.place_of(part), frames)
        for i, frames in zip(at, of_all, strict=True)
    )


def _loading(part: PartPlan, lead: bool) -> dict[str, Value]:
    """Of a lead placement only the picture itself comes before all else: a page can have one
    picture of high priority (rules §11)."""
    return {
        "loading": "eager" if lead else "lazy",
        "fetchpriority": "high" if lead and part.part.role is None and not part.index else None,
        "decoding": "async",
    }
