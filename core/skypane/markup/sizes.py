"""The `sizes` attribute (HTML Standard, §2.5.1.3 “sizes attributes”)."""

from __future__ import annotations

import math
from collections.abc import Sequence

from skypane.files.groups import drawn_lines
from skypane.model import MediaStyle, Rendition
from skypane.numerals import floored, number, px
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.widths.frames import Piece


def drawn_sizes(spans: Sequence[SpanPlan], style: MediaStyle) -> str:
    """The `sizes` attribute of consecutive spans from the narrowest: the drawn width of what the
    file carries; of the frame where no picture shows.

    It never says more than is drawn: a file that has just the px needed is then taken (rules
    §7).
    """
    pieces = [
        (
            p.span.first,
            p.span.last,
            drawn_lines(p) if isinstance(p, ShownSpan) else p.layout.pieces(p.spot, p.index),
        )
        for p in spans
    ]
    return sizes_css(pieces, style)


#: Firefox rounds a size to 1/60 px (docs/engines.md): a multiple of it stays as it is.
_PER_PX = 20


def steady_size(files: Sequence[Rendition]) -> str:
    """The `sizes` of files for densities that are written as widths: the width at which each of
    them has its own density, so that the same file is taken; the greatest, which is taken wherever
    no other suffices, may have fewer px."""
    ascending = sorted(files, key=lambda f: f.density or 1)
    each = [f.width_px / (f.density or 1) for f in (ascending[:-1] or ascending)]
    return px(math.floor(min(each) * _PER_PX) / _PER_PX)


def sizes_css(
    spans: Sequence[tuple[float, float, Sequence[Piece]]], style: MediaStyle = "max-width"
) -> str:
    """The `sizes` attribute of spans from the narrowest, each as (first width, last width, the
    frame's width as straight lines).

    Evaluates to the frame width at every viewport width, in all engines: written with media
    conditions, plain lengths and `calc()` with + and − alone (docs/engines.md: WebKit drops an
    entry with min(), max() or clamp()).
    """
    found: list[tuple[float, float, str]] = []  # from, to and with, length
    start = float(spans[0][0]) - 1  # no narrower viewport is asked about
    for i, (_, last, pieces) in enumerate(spans):
        ends = math.inf if i == len(spans) - 1 else float(last)
        for piece in pieces:
            until = min(piece.until, ends)
            if until <= start:
                continue
            text = _line_css(piece)
            if found and found[-1][2] == text:
                found[-1] = (found[-1][0], until, text)
            else:
                found.append((start, until, text))
            start = until
    posts = {float(last) for _, last, _ in spans}
    if style == "min-width":
        entries = [
            (f"(min-width: {px(at + 1 if at in posts else at)})", text)
            for at, _, text in reversed(found)
        ]
    else:
        entries = [(_until_css(until, style, until in posts), text) for _, until, text in found]
    return ", ".join(
        text if i == len(entries) - 1 else f"{media} {text}"
        for i, (media, text) in enumerate(entries)
    )


def _until_css(until: float, style: MediaStyle, is_post: bool) -> str:
    """Up to a width: at a post as the sources have it, elsewhere, where two lines meet, in whatever
    way is plain."""
    if style == "range":
        return f"(width < {px(until + 1)})" if is_post else f"(width <= {px(until)})"
    return f"(max-width: {px(until)})"


def _line_css(piece: Piece) -> str:
    """share·v + constant as a length: 50vw, 320px or calc(50vw - 20px)."""
    share, constant = floored(piece.share * 100), floored(piece.constant)
    if share == 0:
        return px(constant)
    if constant == 0:
        return f"{number(share)}vw"
    return f"calc({number(share)}vw {'-' if constant < 0 else '+'} {px(abs(constant))})"
