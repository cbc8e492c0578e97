"""The `picture` element of a placement (HTML Standard §4.8.1–4.8.4: picture, source, img).

Sources stand in the order in which they have to be tested, by span and within a span by format,
most modern first; every source lists all its densities or widths, its type and the px size of its
files. Widths go with `sizes`, which says how wide the file is drawn.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from skypane.files.groups import drawn_widths
from skypane.files.names import part_class
from skypane.files.renditions import Files, by_part
from skypane.markup.lines import Line, attributes_html
from skypane.markup.own import writer_of
from skypane.markup.sizes import drawn_sizes, steady_size
from skypane.markup.words import words_lines
from skypane.model import MediaStyle, Rendition
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.widths.conditions import conditions, in_portrait
from skypane.widths.spans import Span

TYPES = {
    "avif": "image/avif",
    "webp": "image/webp",
    "jpeg": "image/jpeg",
    "png": "image/png",
    "svg": "image/svg+xml",
}


def alt_text(part: PartPlan) -> str | None:
    """The part's own alt text, else that of the widest span's original; None where nobody has
    written any."""
    if part.part.alt is not None:
        return part.part.alt
    return part.shown[-1].original.alt if part.shown else None


def _srcset(files: list[Rendition], folder: str, as_widths: bool) -> str:
    def descriptor(f: Rendition) -> str:
        if as_widths:
            return f" {f.width_px}w"
        return "" if f.density == 1 else f" {f.descriptor}"

    return ", ".join(
        f"{folder}{f.name}{descriptor(f)}" for f in sorted(files, key=lambda f: f.width_px)
    )


#: An image of nothing, for spans that show none: no request is made, where a picture that is only
#: hidden would be fetched.
BLANK = "data:image/svg+xml,%3Csvg%20xmlns=%22http://www.w3.org/2000/svg%22/%3E"


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

    @property
    def by_format(self) -> list[list[Rendition]]:
        formats = dict.fromkeys(r.format for r in self.files)
        return [[r for r in self.files if r.format == f] for f in formats]


class _Served(NamedTuple):
    """Neighbouring spans that the same sources serve, as one span: what they take, and what they
    take instead in portrait orientation, where there is such a thing."""

    span: Span
    offered: _Offered
    portrait: _Offered

    @property
    def letters(self) -> tuple[str, ...]:
        return tuple(p.span.letter for p in self.offered.spans)

    @property
    def by_width(self) -> bool:
        return self.offered.by_width or self.portrait.by_width

    def continued(self, by: _Served) -> _Served | None:
        """Both as one, where they take the same and lie side by side."""
        same = self.offered.files == by.offered.files and self.portrait.files == by.portrait.files
        if not same or self.span.last + 1 != by.span.first:
            return None
        span = Span(by.span.letter, "", self.span.first, by.span.last)
        return _Served(
            span, self.offered.with_next(by.offered), self.portrait.with_next(by.portrait)
        )


def _served(part: PartPlan, turned: PartPlan | None, files: Files) -> dict[str, _Served]:
    """What each run of spans takes, by its last letter, from the narrowest; nothing at all where no
    span has a picture yet.

    A span that still waits for its picture shows none: not that of another span.
    """
    mine = _files_of(part, files)
    if not mine and len(part.waiting) == len(part.spans):
        return {}
    others = _files_of(turned, files) if turned else {}
    out: list[_Served] = []
    for at, p in enumerate(part.spans):
        letter = p.span.letter
        own = _Offered((turned.spans[at],), others.get(letter, ())) if turned else _Offered((), ())
        one = _Served(p.span, _Offered((p,), mine.get(letter, ())), own)
        both = out[-1].continued(one) if out else None
        out = [*out[:-1], both] if both else [*out, one]
    return {s.span.letter: s for s in out}


def _files_of(part: PartPlan, files: Files) -> dict[str, tuple[Rendition, ...]]:
    """The files of a part by the letters of the spans that take them."""
    return {p.span.letter: made for g, made in files if g.part == part.index for p in g.spans}


def placement_lines(plan: Plan, files: Files, folder: str = "images/") -> tuple[Line, ...]:
    """The markup of a placement, a line each. Without any file there is nothing to show and no
    line."""
    of = by_part(files)
    instead = of.get(plan.in_portrait.index, ()) if plan.in_portrait else ()
    parts = [
        _part_lines(plan, part, (*of.get(part.index, ()), *instead), folder)
        for part in plan.written
    ]
    return boxed(plan, parts)


def boxed(plan: Plan, parts: Sequence[tuple[Line, ...]]) -> tuple[Line, ...]:
    """The markup of all parts, in the elements that the layout puts around them."""
    box, cell = plan.layout.box, plan.layout.cell
    if not box:
        return tuple(line for lines in parts for line in lines)
    if not any(parts) and not words_lines(plan):
        return ()
    writer = writer_of(plan.layout.kind)
    if writer is not None:
        return writer(plan, parts)
    out = [Line(text=f'<{box} class="{plan.placement.called}">')]
    out += [line.indented() for line in words_lines(plan)]
    for lines in parts:
        inner = [line.indented() for line in lines]
        if cell and inner:
            inner = [Line(text=f"  <{cell}>"), *(li.indented() for li in inner)]
            inner.append(Line(text=f"  </{cell}>"))
        out += inner
    return (*out, Line(text=f"</{box}>"))


def _part_lines(plan: Plan, part: PartPlan, files: Files, folder: str) -> tuple[Line, ...]:
    served = _served(part, plan.instead(part), files)
    if not served:
        return ()
    style = plan.site.media_style
    called = part_class(plan.placement, part.index, bool(plan.layout.box))
    # beside lists of widths those of densities are written as widths too: then every source says
    # its sizes, as checkers ask
    said = _Said(style, folder, any(s.by_width for s in served.values()))
    lines = [Line(text=f'<picture class="{called}">')]
    for letter, media in conditions(tuple(s.span for s in served.values()), style):
        one = served[letter]
        turned = in_portrait(media)
        texts = [_source(one.portrait, mine, turned, said) for mine in one.portrait.by_format]
        offers = one.offered.by_format
        texts += [_source(one.offered, mine, media, said) for mine in offers]
        if not offers:
            texts.append(blank_html(part, media, said.as_widths))
        elif media is None:
            listed = _attributes(one.offered, offers[-1], said)
            if len(offers[-1]) == 1:
                listed = {k: v for k, v in listed.items() if k in ("width", "height")}
            src = folder + _plain(one.offered, offers[-1]).name
            texts[-1] = _img(part, loads_at_once(plan, part), src, listed)
        lines += [Line(text=text, spans=one.letters) for text in texts]
    lines.append(Line(text="</picture>"))
    return tuple(lines)


class _Said(NamedTuple):
    """How sources are written; `as_widths`: all lists of a picture say widths."""

    style: MediaStyle
    folder: str
    as_widths: bool


def _attributes(offered: _Offered, files: list[Rendition], said: _Said) -> dict[str, object]:
    """What is said of files of one format."""
    plain = _plain(offered, files)
    return {
        "srcset": _srcset(files, said.folder, said.as_widths),
        "sizes": offered.sizes(said.style) if said.as_widths else None,
        "width": plain.width_px,
        "height": plain.height_px,
    }


def _source(offered: _Offered, files: list[Rendition], media: str | None, said: _Said) -> str:
    first = {"media": media, "type": TYPES[files[0].format]}
    return f"  <source{attributes_html({**first, **_attributes(offered, files, said)})}>"


def _plain(offered: _Offered, files: Sequence[Rendition]) -> Rendition:
    """The file for browsers that read no lists, and whose px size says the ratio: that of a screen
    of density 1 at its widest."""
    if files[0].density is not None:
        return files[0]
    needed = max(drawn_widths(p).max() for p in offered.spans if isinstance(p, ShownSpan))
    ascending = sorted(files, key=lambda f: f.width_px)
    return next((f for f in ascending if f.width_px >= needed), ascending[-1])


def blank_html(part: PartPlan, media: str | None, as_widths: bool = False) -> str:
    if media is None:
        return f"  <img{attributes_html({'src': BLANK, 'alt': alt_text(part) or ''})}>"
    sized = {"srcset": f"{BLANK} 1w", "sizes": "1px"} if as_widths else {"srcset": BLANK}
    return f"  <source{attributes_html({'media': media, **sized})}>"


def loads_at_once(plan: Plan, part: PartPlan) -> bool:
    """Whether the first screen may show it: of many pictures of a lead placement only those of the
    first row do, in some span."""
    if not plan.placement.lead or not plan.layout.has_items:
        return plan.placement.lead
    at = [i for i, p in enumerate(part.spans) if isinstance(p, ShownSpan)]
    of_all = ([other.spans[i].frame for other in plan.parts] for i in at)
    return any(
        plan.layout.first_seen(plan.spots[i], part.index, frames)
        for i, frames in zip(at, of_all, strict=True)
    )


def _img(part: PartPlan, lead: bool, src: str, offered: dict[str, object]) -> str:
    """Of a lead placement only the picture itself comes before all else: a page can have one
    picture of high priority (rules §11)."""
    attributes = {
        "src": src,
        **offered,
        "alt": alt_text(part) or "",
        "loading": "eager" if lead else "lazy",
        "fetchpriority": "high" if lead and part.part.role is None and not part.index else None,
        "decoding": "async",
    }
    return f"  <img{attributes_html(attributes)}>"
