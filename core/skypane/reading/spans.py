"""One part in one span of a reading."""

from __future__ import annotations

import hashlib
from typing import Any

import numpy as np

from skypane.layouts import Spot
from skypane.markup.span_css import span_css
from skypane.model import Following, PercentColumnsWidth
from skypane.numerals import number
from skypane.reading.nouns import Hold, MovingSpan, SpanReading, WidthSum
from skypane.shown.fit import following_offset
from skypane.shown.nouns import PartPlan, ShownSpan, SpanPlan
from skypane.shown.safe import in_px
from skypane.treatments import own_values
from skypane.values import once
from skypane.widths.curves import simplified
from skypane.widths.runs import stretches
from skypane.widths.sums import row_of

#: How far a curve may be from what it stands for: in CSS px, and as a share of the picture.
OFF_BY_PX, OFF_BY_SHARE = 0.5, 1e-3


def moving_span(part: PartPlan, p: SpanPlan) -> MovingSpan:
    return MovingSpan(**_told(part, p))


def _told(part: PartPlan, p: SpanPlan) -> dict[str, Any]:
    """What moves of a span; where a variant lets the usual part show, that is said of its frame."""
    moving = _moving(p)
    return {**moving, "frame_text": "as usual"} if p.span.letter in part.usual else moving


def span_reading(part: PartPlan, p: SpanPlan, items: str = "") -> SpanReading:
    """One part in one span. `items` is a print of the items that stand beside it now: a part that
    has stayed knows only those of when it was computed."""
    own = part.part.treatments.get(p.span.letter)
    return SpanReading(
        own=tuple(own_values(own)) if own else (),
        origin=part.handed[p.span.letter].origin,
        fingerprint=fingerprint(p) + items,
        is_usual=p.span.letter in part.usual,
        **_told(part, p),
        **_at_rest(p),
    )


@once
def _moving(p: SpanPlan) -> dict[str, Any]:
    t, v = p.typical, p.viewport_w
    return {
        "letter": p.span.letter,
        "first": p.span.first,
        "last": p.span.last,
        "frame_w": simplified(v, p.W[t], OFF_BY_PX),
        "frame_h": simplified(v, p.H[t], OFF_BY_PX),
        "frame_text": _frame_text(p),
        **(_window(p) if isinstance(p, ShownSpan) else _NO_WINDOW),
    }


_NO_WINDOW: dict[str, Any] = dict.fromkeys(
    ("drawn_w", "x0", "x1", "y0", "y1", "outline", "safe", "safe_px")
)


def _window(p: ShownSpan) -> dict[str, Any]:
    t, v = p.typical, p.viewport_w
    return {
        "drawn_w": simplified(v, p.drawn_cut_width[t], OFF_BY_PX),
        "x0": simplified(v, p.shown.x0[t], OFF_BY_SHARE),
        "x1": simplified(v, p.shown.x1[t], OFF_BY_SHARE),
        "y0": simplified(v, p.shown.y0[t], OFF_BY_SHARE),
        "y1": simplified(v, p.shown.y1[t], OFF_BY_SHARE),
        "outline": p.outline,
        "safe": p.safe,
        "safe_px": in_px(p.safe, p.original.width_px, p.original.height_px),
    }


@once
def _at_rest(p: SpanPlan) -> dict[str, Any]:
    """What is worked out only when nothing moves; nothing of it depends on where values come
    from."""
    heights, css = p.viewport_h, None
    if isinstance(p, ShownSpan):
        css = span_css(p, p.cut_inside)
    return {
        "title": p.span.title,
        "effective": p.effective,
        "viewport_heights": (
            (int(heights.min()), int(heights.max())) if heights.shape[0] > 1 else None
        ),
        "keeps": tuple(a.name for a in p.keeps),
        "position": css.position if css else "",
        "held_by": css.held_by if css else (),
        "holds": _holds(p) if isinstance(p, ShownSpan) else (),
        "sums": _sums(p),
        "row": _row(p),
    }


def _sums(p: SpanPlan) -> tuple[WidthSum, ...]:
    """At both ends, and where the frame is widest if that is in between."""
    ends = [p.span.first, p.span.last]
    peak = int(p.viewport_w[int(p.W[0].argmax())])
    if p.W[0].max() > max(p.W[0][0], p.W[0][-1]) + 0.5:
        ends.insert(1, peak)
    return tuple(
        WidthSum(at=at, text=p.layout.width_sum(p.spot, p.index, at)) for at in dict.fromkeys(ends)
    )


def sum_at(p: SpanPlan, viewport_px: float) -> WidthSum:
    """How the frame's width comes about at one viewport width of the span."""
    text = p.layout.width_sum(p.spot, p.index, viewport_px)
    return WidthSum(at=round(viewport_px), text=text)


def _row(p: SpanPlan) -> str | None:
    rule = p.effective.width
    if not isinstance(rule, PercentColumnsWidth):
        return None
    return row_of(rule, p.viewport_w, p.spot.container).text


def _holds(p: ShownSpan) -> tuple[Hold, ...]:
    """At which widths each binding area holds the picture: where leaving it out would move it by
    half a px (typical height)."""
    if not isinstance(p.effective.aim, Following):
        return ()
    s, t, out = p.inside, p.typical, []
    axes = (
        (p.binding["x"], s.W[t], s.drawn_w[t], p.picture.focal[0]),
        (p.binding["y"], s.H[t], s.drawn_h[t], p.picture.focal[1]),
    )
    for binding, room, drawn, focal in axes:
        result = following_offset(room, drawn, focal, binding)
        for area in binding:
            others = tuple(k for k in binding if k is not area)
            moved = np.abs(following_offset(room, drawn, focal, others) - result) >= 0.5
            out += [
                Hold(name=area.name, first=first, last=last)
                for first, last in stretches(p.viewport_w, moved)
            ]
    return tuple(dict.fromkeys(out))


@once
def fingerprint(p: SpanPlan) -> str:
    """Equal ones show the same at every width: frame, window, original, colour, how its areas fare,
    and what the kind itself lays on it."""
    hashed = hashlib.blake2b(digest_size=9)
    e = p.effective
    areas = [(a.name, *a.rect.edges, a.least_px) for a in p.keeps]
    arrays, of = [p.W, p.H], ""
    if isinstance(p, ShownSpan):
        of = p.original.sha256 or str(p.original.id)
        arrays += [p.shown.x0, p.shown.x1, p.shown.y0, p.shown.y1]
    laid = (_same(p.spot.values.model_dump()), p.spot.words, p.spot.typeface, p.spot.level)
    said = (p.span.first, p.span.last, e.show, e.fit, e.background, of, areas, laid)
    hashed.update(repr(said).encode())
    for values in arrays:
        hashed.update(values.astype(np.float32).tobytes())
    return hashed.hexdigest()


def _same(value: Any) -> Any:
    """Equal numbers written alike: 0 and 0.0 are one."""
    if isinstance(value, dict):
        return {k: _same(v) for k, v in value.items()}
    if isinstance(value, list | tuple):
        return [_same(v) for v in value]
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    return float(value) if is_number else value


def items_print(spot: Spot) -> str:
    """Equal ones have the same items in the same order, with the same words; the same in every
    process."""
    hashed = hashlib.blake2b(digest_size=9)
    for cell in spot.cells:
        e, i = cell.effective, cell.item
        words = (i.title, i.text, i.href, i.wide) if i else ()
        hashed.update(repr((e.original, e.show, words)).encode())
    return hashed.hexdigest()


def _frame_text(p: SpanPlan) -> str:
    """The frame's shape in a word for the span's tag: `4:5` where it never changes, else `varies`,
    vh or px as set; of many pictures how they are arranged."""
    if p.effective.show != "picture":
        return "only colour" if p.effective.show == "colour" else "not shown"
    said = p.layout.word(p.spot)
    if said:
        return said
    h = p.effective.height
    ratios = p.W / p.H
    match h.kind:
        case "ratio" if np.ptp(ratios) < 0.01:
            return f"{number(h.w)}:{number(h.h)}"
        case "fixed":
            return f"{number(h.height_px)} px high"
        case "vh":
            return f"{number(h.percent)}vh"
        case "natural" if np.ptp(ratios) < 0.01:
            return "natural"
    return "varies"
