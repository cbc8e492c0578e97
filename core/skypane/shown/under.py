"""The px that lie under the words of a banner (rules §9).

They are CSS px at density 1 whose centre lies in the content box of a text, put together in sRGB
values as a browser does: background colour, picture as it is cut and scaled there, scrim, box, a
button's own colour. The picture is sampled from its four nearest px at the px' centre, out of a
copy that is at least as large as it is drawn and less than twice that, as browsers keep them.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from skypane.model import FixedAim, OnPicture, Original
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.values import once
from skypane.widths.frames import Floats
from skypane.words import scrim
from skypane.words.block import TextBox, channels
from skypane.words.copies import Bytes, Copies

#: Gives the px of an original; None where they cannot be had now.
Pixels = Callable[[Original], Copies | None]


def no_pixels(original: Original) -> None:
    """Where no picture can be had."""
    return None


class At(NamedTuple):
    """Some viewports of a span: places in its widths, and in the rows of its frame."""

    columns: NDArray[np.int64]
    rows: NDArray[np.int64]


#: How many px of a text are looked at, at each width: a grid over all of it. At most so many: which
#: ratio 95 % of them reach is that of between 94.3 and 95.7 % of all, or nearer (the deviation of a
#: share of random points; these lie more evenly).
MOST_PX = 1000


#: Steps of a sequence that fills a square evenly, however many of its points are taken: the inverse
#: of the plastic number, and of its square (Kronecker sequences; common practice).
_ACROSS, _DOWN = 0.7548776662466927, 0.5698402909980532


def centres(text: TextBox, at: At, most: int) -> tuple[Floats, Floats]:
    """Points of a text from its content box's corner, (viewports, points), in CSS px: all of its px
    where it has at most `most`, else as many spread evenly over it."""
    w, h = text.w[at.columns][:, None], text.h[at.columns][:, None]
    across, down = max(1, round(float(w.max()))), max(1, round(float(h.max())))
    if across * down <= most:
        v, u = np.divmod(np.arange(across * down), across)
        return ((u + 0.5) / across)[None, :] * w, ((v + 0.5) / down)[None, :] * h
    x, y = _spread(most)
    return x[None, :] * w, y[None, :] * h


@lru_cache(maxsize=8)
def _spread(n: int) -> tuple[Floats, Floats]:
    """Points of a square, row by row: px that lie together are fetched together."""
    i = np.arange(n)
    x = np.mod(0.5 + i * _ACROSS, 1.0).astype(np.float64)
    y = np.mod(0.5 + i * _DOWN, 1.0).astype(np.float64)
    order = np.lexsort((x, np.floor(y * 64)))
    return x[order], y[order]


class Under(NamedTuple):
    """What lies under points of a text before the scrim, (viewports, points, 3); the points in CSS
    px from the picture's frame, whose size is W × H, (viewports, 1)."""

    below: Bytes
    x: Floats
    y: Floats
    W: Floats
    H: Floats
    on_picture: bool
    scrim: tuple[Floats, Floats] | None = None  # of full strength, see `painted`


def under(
    p: SpanPlan,
    pixels: Pixels,
    text: TextBox,
    at: At,
    place: tuple[Floats, Floats] | None = None,
    most: int = MOST_PX,
) -> Under | None:
    """What lies under a text at some viewports. `place` is where the block's corner would be
    instead, relative to the picture's frame, (viewports,) each. None where the picture is not to be
    had."""
    laid, v = p.laid, p.on_picture
    if laid.words is None:
        return None
    area = laid.area
    x, y = centres(text, at, most)
    left = text.x[at.columns] if isinstance(text.x, np.ndarray) else text.x
    top = text.y[at.columns] if isinstance(text.y, np.ndarray) else text.y
    if place is None:
        words = laid.words
        bx = words.x[at.rows, at.columns] - area.x[at.rows, at.columns]
        by = words.y[at.rows, at.columns] - area.y[at.rows, at.columns]
    else:
        bx, by = place
    x = np.floor(x + (bx + left)[:, None]) + 0.5
    y = np.floor(y + (by + top)[:, None]) + 0.5
    W, H = area.W[at.rows, at.columns][:, None], area.H[at.rows, at.columns][:, None]
    below = np.broadcast_to(np.array(channels(p.ground), np.uint8), (*x.shape, 3)).copy()
    on_picture = v.shows == "on"
    if on_picture and isinstance(p, ShownSpan):
        found = pixels(p.original)
        if found is None:
            return None
        _lay_picture(p, found, below, x, y, at)
    painted = scrim.painted(v.scrim, 1.0, x, y, W, H) if on_picture else None
    return Under(below, x, y, W, H, on_picture, painted)


def _lay_picture(p: ShownSpan, found: Copies, below: Bytes, x: Floats, y: Floats, at: At) -> None:
    s = p.shown
    columns, rows = at

    def here(values: Floats) -> Floats:
        return values[rows, columns][:, None]

    dw, dh = here(s.drawn_w), here(s.drawn_h)
    left, top = -here(s.x0) * dw, -here(s.y0) * dh
    inside = None
    if p.effective.fit == "contain":
        aim = p.effective.aim
        fx, fy = (aim.x, aim.y) if isinstance(aim, FixedAim) else (0.5, 0.5)
        crop_w, crop_h = here(p.inside.drawn_w), here(p.inside.drawn_h)
        ox, oy = (here(p.W) - crop_w) * fx, (here(p.H) - crop_h) * fy
        left, top = ox - p.crop.x * dw, oy - p.crop.y * dh
        inside = (x >= ox) & (x < ox + crop_w) & (y >= oy) & (y < oy + crop_h)
    # what the file carries is stretched between whole px (docs/chromium.md, §7)
    cut = p.cut
    x0, x1 = np.floor(left + cut.x * dw + 0.5), np.floor(left + cut.x1 * dw + 0.5)
    y0, y1 = np.floor(top + cut.y * dh + 0.5), np.floor(top + cut.y1 * dh + 0.5)
    # the file that plain screens take is as wide as it is drawn at most in the span
    usual = float(s.drawn_w.max())
    chosen = [found.for_drawing(float(d), usual) for d in dw[:, 0]]
    sizes = np.array([c.shape[1] for c in chosen])
    # what is sampled is cut to whole values; px that are drawn as they are stay what they are
    as_they_are = np.abs(dw - (found.file_width or usual)) < 0.6
    cutting = np.where(as_they_are, np.float32(0.5), np.float32(0.01))[..., None]
    widths = np.unique(sizes)
    for width in widths:
        mine = np.s_[:] if len(widths) == 1 else sizes == width
        copy = chosen[int(np.argmax(sizes == width))]
        # from CSS px to px of the copy, along each side
        across, down = (
            n / (end - start)[mine]
            for n, start, end in ((cut.w * copy.shape[1], x0, x1), (cut.h * copy.shape[0], y0, y1))
        )
        u = (x[mine] - x0[mine]) * across + cut.x * copy.shape[1]
        v = (y[mine] - y0[mine]) * down + cut.y * copy.shape[0]
        laid = _sampled(copy, u, v)
        seen = laid[..., :3]
        if found.alpha:
            alpha = laid[..., 3:] / 255
            seen *= alpha
            seen += below[mine] * (1 - alpha)
        seen += cutting[mine]
        whole = seen.astype(np.uint8)
        if inside is not None:
            whole = np.where(inside[mine][..., None], whole, below[mine])
        below[mine] = whole


def _sampled(copy: Bytes, u: Floats, v: Floats) -> NDArray[np.float32]:
    """Values between the centres of four px, with opacity as a fourth."""
    h, w = copy.shape[:2]
    u, v = np.clip(u - 0.5, 0, w - 1), np.clip(v - 0.5, 0, h - 1)
    i, j = u.astype(np.int32), v.astype(np.int32)
    fu, fv = (u - i).astype(np.float32)[..., None], (v - j).astype(np.float32)[..., None]
    px = copy.view(np.uint32).ravel()  # a px is one number: fetching it takes a third of the time
    at = j * w + i
    right, down = (i < w - 1).astype(np.int32), (j < h - 1) * np.int32(w)

    def values(where: NDArray[np.int32]) -> NDArray[np.float32]:
        return px[where].view(np.uint8).reshape(*where.shape, 4).astype(np.float32)

    upper, lower = values(at), values(at + down)
    upper += (values(at + right) - upper) * fu
    lower += (values(at + right + down) - lower) * fu
    lower -= upper
    lower *= fv
    upper += lower
    return upper


def composited(
    found: Under, v: OnPicture, text: TextBox, strength: float | None = None
) -> np.ndarray:
    """The px under a text with scrim, box and button laid over them; `strength` in place of the
    scrim's own."""
    if text.fill is not None:
        return np.broadcast_to(np.array(channels(text.fill), np.uint8), found.below.shape)
    out: np.ndarray = found.below
    by = v.strength if strength is None else strength
    if found.scrim is not None and by > 0:
        colour, alpha = found.scrim
        if v.scrim.kind == "plain":
            out = scrim.painted_over(out, colour * by, by)
        else:
            out = scrim.over(out, colour * by, alpha * by)
    if v.box.strength:
        colour = np.array(channels(v.box.colour)) * v.box.strength
        out = scrim.painted_over(out, colour, v.box.strength)
    return out


@once
def all_rows(p: SpanPlan) -> Sequence[int]:
    """The rows of a span's frame: one, or those of the least, typical and greatest viewport
    height."""
    return range(p.W.shape[0])


def at_widths(p: SpanPlan, columns: Sequence[int] | NDArray[Any]) -> At:
    """Viewports at some widths, at all the viewport heights that matter there."""
    rows = np.array(all_rows(p))
    cols = np.asarray(columns, dtype=np.int64)
    return At(np.tile(cols, len(rows)), np.repeat(rows, len(cols)))
