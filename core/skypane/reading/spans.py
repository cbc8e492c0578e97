"""One span of a reading."""

from __future__ import annotations

import hashlib

import numpy as np

from skypane.geometry import Edges
from skypane.markup.css import span_css
from skypane.model import Following, Placement, Site, Treatment
from skypane.numerals import number
from skypane.reading.nouns import Hold, SpanReading
from skypane.shown.fit import following_offset, safe_area, union
from skypane.shown.keeps import edges
from skypane.shown.plan import SpanPlan, drawn_cut_width
from skypane.treatments import FIELDS
from skypane.widths.curves import simplified
from skypane.widths.frames import depends_on_viewport_height
from skypane.widths.runs import stretches


def _holds(p: SpanPlan) -> tuple[Hold, ...]:
    """At which widths each binding area holds the picture: where leaving it out would move it by
    half a px (typical height)."""
    if p.picture is None or p.inside is None or not isinstance(p.effective.aim, Following):
        return ()
    s, t, out = p.inside, typical_row(p), []
    axes = (
        ("x", s.W[t], s.drawn_w[t], p.picture.focal[0]),
        ("y", s.H[t], s.drawn_h[t], p.picture.focal[1]),
    )
    for axis, room, drawn, focal in axes:
        held = p.held["x" if axis == "x" else "y"]
        result = following_offset(room, drawn, focal, held)
        for area in held:
            without = following_offset(room, drawn, focal, tuple(k for k in held if k is not area))
            moved: np.ndarray = np.abs(without - result) >= 0.5
            out += [
                Hold(name=area.name, first=first, last=last)
                for first, last in stretches(p.viewport_w, moved)
            ]
    return tuple(dict.fromkeys(out))


def fingerprint(p: SpanPlan) -> str:
    """Equal prints show the same at every width: frame, window, original, colour, and how its areas
    fare."""
    hashed = hashlib.blake2b(digest_size=9)
    e = p.effective
    of = p.original.sha256 or str(p.original.id) if p.original else ""
    areas = [(a.name, *edges(a), a.least_px) for a in p.keeps]
    hashed.update(
        repr((p.span.first, p.span.last, e.show, e.fit, e.background, of, areas)).encode()
    )
    arrays = [p.W, p.H]
    if p.shown is not None:
        arrays += [p.shown.x0, p.shown.x1, p.shown.y0, p.shown.y1]
    for values in arrays:
        hashed.update(values.astype(np.float32).tobytes())
    return hashed.hexdigest()


def typical_row(p: SpanPlan) -> int:
    heights: int = p.viewport_h.shape[0]
    return heights // 2


def span_reading(site: Site, placement: Placement, p: SpanPlan) -> SpanReading:
    t, v, e = typical_row(p), p.viewport_w, p.effective
    own = placement.treatments.get(p.span.letter, Treatment())
    out: dict[str, object] = {}
    if p.shown is not None and p.picture is not None:
        region, safe = union(p.shown), safe_area(p.shown)
        css = span_css(site, p, p.cut_inside)
        out = {
            "drawn_w": simplified(v, drawn_cut_width(p)[t], 0.5),
            "x0": simplified(v, p.shown.x0[t], 1e-3),
            "x1": simplified(v, p.shown.x1[t], 1e-3),
            "y0": simplified(v, p.shown.y0[t], 1e-3),
            "y1": simplified(v, p.shown.y1[t], 1e-3),
            "outline": Edges(**region._asdict()),
            "safe": Edges(**safe._asdict()) if safe else None,
            "position": css.position,
            "held_by": css.held_by,
            "holds": _holds(p),
        }
    heights = None
    if depends_on_viewport_height(e.height):
        heights = (int(p.viewport_h.min()), int(p.viewport_h.max()))
    return SpanReading(
        letter=p.span.letter,
        title=p.span.title,
        first=p.span.first,
        last=p.span.last,
        effective=Treatment(**{f: getattr(e, f) for f in FIELDS}),
        own=tuple(f for f in FIELDS if getattr(own, f) is not None),
        origin=e.origin,
        frame_w=simplified(v, p.W[t], 0.5),
        frame_h=simplified(v, p.H[t], 0.5),
        viewport_heights=heights,
        frame_text=_frame_text(p),
        keeps=tuple(a.name for a in p.keeps),
        print=fingerprint(p),
        **out,
    )


def _frame_text(p: SpanPlan) -> str:
    """The frame's shape in a word for the span's tag: `4:5` where it never changes, else `varies`,
    vh or px as set."""
    if p.effective.show != "picture":
        return "only colour" if p.effective.show == "colour" else "not shown"
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
