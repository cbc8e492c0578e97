"""What of a picture shows in a frame (CSS Images 3, §5.5 object-fit and §5.6 object-position).

Image w×h, frame W×H. `cover`: scale s = max(W/w, H/h), the visible part is W/s × H/s image px. The
*drawn* width D = w·s and height E = h·s are what the whole picture would measure on screen; in a
frame taller than the picture D exceeds W.

Following: per axis the picture's offset is o = min(0, max(W − D, W/2 − f·D)): the focal point in
the middle as long as the picture covers the frame. Each keep area [k0, k1], from the least to the
most important, projects o onto the interval in which that area is in view, [−k0·D, W − k1·D] in
either order. All areas are whole at every width where any position could keep them whole; where
none can, the more important win.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect, Rectangle, spanned
from skypane.model import Aim, Area, Fit, FixedAim, Following, Original
from skypane.widths.frames import Floats

AnyFit = Literal["cover", "contain", "fill", "none", "scale-down"]


class Shown(NamedTuple):
    """`visible` in image px; `drawn`, the whole picture's rectangle, in CSS px from the frame's top
    left corner."""

    visible: Rectangle
    drawn: Rectangle


def shows(
    image: tuple[float, float],
    frame: tuple[float, float],
    fit: AnyFit,
    position: tuple[float, float],
) -> Shown:
    """Visible part and drawn rectangle of one picture in one frame; `position` as fractions (0.5 is
    50 %).

    Raises InvalidPlan for a picture or frame without size or a fit that CSS does not know.
    """
    (w, h), (W, H) = image, frame
    for what, (a, b) in (("picture", image), ("frame", frame)):
        field = "image" if what == "picture" else what
        if not (a > 0 and b > 0 and math.isfinite(a) and math.isfinite(b)):
            raise InvalidPlan(
                f"A {what} of {a:g} × {b:g} px has no size. Give both sides above zero.",
                field=field,
            )
        if not (1e-3 <= a <= 1e6 and 1e-3 <= b <= 1e6):
            raise InvalidPlan(
                f"A {what} of {a:g} × {b:g} px is no size. Give sides from 0.001 to 1,000,000 px.",
                field=field,
            )
    if not all(math.isfinite(p) and abs(p) <= 1e6 for p in position):
        raise InvalidPlan(
            "The position must be two numbers that a page could have: 0.5 is 50 %.",
            field="position",
        )
    contain = min(W / w, H / h)
    match fit:
        case "cover":
            sx = sy = max(W / w, H / h)
        case "contain":
            sx = sy = contain
        case "fill":
            sx, sy = W / w, H / h
        case "none":
            sx = sy = 1.0
        case "scale-down":
            sx = sy = min(1.0, contain)
        case _:
            raise InvalidPlan(
                f"“{fit}” is no fit. Use cover, contain, fill, none or scale-down.", field="fit"
            )
    left, top = (W - w * sx) * position[0], (H - h * sy) * position[1]
    drawn = Rectangle(x=left, y=top, w=w * sx, h=h * sy)

    def visible(offset: float, room: float, length: float, scale: float) -> tuple[float, float]:
        first = min(max(0.0, -offset / scale), length)
        last = min(length, (room - offset) / scale)
        return first, max(0.0, last - first)

    x, vw = visible(drawn.x, W, w, sx)
    y, vh = visible(drawn.y, H, h, sy)
    return Shown(Rectangle(x=x, y=y, w=vw, h=vh), drawn)


@dataclass(frozen=True)
class Interval:
    """One keep area along one axis, as fractions of the picture."""

    name: str
    first: float
    last: float


@dataclass(frozen=True)
class Picture:
    """What the fit needs to know of a picture: px size, focal point and keep areas, the most
    important first."""

    w: float
    h: float
    focal: tuple[float, float] = (0.5, 0.5)
    keeps_x: tuple[Interval, ...] = ()
    keeps_y: tuple[Interval, ...] = ()

    @property
    def ratio(self) -> float:
        return self.w / self.h


def picture_of(
    original: Original, aim: Aim, crop: Rect = WHOLE, keeps: tuple[Area, ...] | None = None
) -> Picture:
    """The crop of the original as the aim sees it, everything in fractions of the crop.

    Keep areas count only where the aim follows them; one that reaches beyond the crop has edges
    below 0 or above 1.
    """
    w, h = crop.w, crop.h
    counted = (
        (original.keeps if keeps is None else keeps)
        if isinstance(aim, Following) and aim.areas
        else ()
    )

    def at(value: float, first: float, extent: float) -> float:
        return value if crop is WHOLE else (value - first) / extent

    return Picture(
        original.width_px * w,
        original.height_px * h,
        (at(original.focal[0], crop.x, w), at(original.focal[1], crop.y, h)),
        tuple(Interval(a.name, at(a.rect.x, crop.x, w), at(a.rect.x1, crop.x, w)) for a in counted),
        tuple(Interval(a.name, at(a.rect.y, crop.y, h), at(a.rect.y1, crop.y, h)) for a in counted),
    )


@dataclass(frozen=True)
class Windows:
    """What shows of a picture in frames W×H: fractions of the picture, one array entry per frame.

    `drawn_w` is D and `drawn_h` is E, in CSS px.
    """

    W: Floats
    H: Floats
    drawn_w: Floats
    drawn_h: Floats
    x0: Floats
    x1: Floats
    y0: Floats
    y1: Floats


def project(offset: Floats, room: Floats, drawn: Floats, area: Interval) -> Floats:
    """Move offsets as little as possible so that the area is in view, or fills the frame if it is
    wider than the frame."""
    lo, hi = -area.first * drawn, room - area.last * drawn
    return np.maximum(np.minimum(lo, hi), np.minimum(offset, np.maximum(lo, hi)))


def following_offset(
    room: Floats, drawn: Floats, focal: float, keeps: tuple[Interval, ...]
) -> Floats:
    """The picture's offset in CSS px along one axis; `room` is the frame's extent, `drawn` the
    picture's."""
    if (room >= drawn - 1e-9).all():  # nothing to move
        return np.zeros_like(room)
    offset = room / 2 - focal * drawn
    clamped = np.minimum(0.0, np.maximum(room - drawn, offset))
    if in_view_at(clamped, room, drawn, keeps):
        return clamped
    for area in reversed(keeps):
        offset = project(offset, room, drawn, area)
    return np.minimum(0.0, np.maximum(room - drawn, offset))


def in_view_at(offset: Floats, room: Floats, drawn: Floats, keeps: tuple[Interval, ...]) -> bool:
    """Whether every area is in view at these offsets: then no projection would move anything."""
    if not keeps:
        return True
    first, last = min(k.first for k in keeps), max(k.last for k in keeps)
    return bool(((offset >= -first * drawn) & (offset <= room - last * drawn)).all())


def windows(picture: Picture, fit: Fit, aim: Aim, W: Floats, H: Floats) -> Windows:
    """The visible part of the picture in every frame. W and H are arrays of one shape, in CSS px,
    above zero."""
    if fit == "contain":
        zero, one = np.zeros_like(W), np.ones_like(W)
        scale = np.minimum(W / picture.w, H / picture.h)
        return Windows(W, H, picture.w * scale, picture.h * scale, zero, one, zero, one)
    if W.size > 1:
        ratios = W / H
        # one ratio: every frame shows the same, only its size differs
        if ratios.max() - ratios.min() < 1e-12:
            at = (slice(0, 1),) * W.ndim
            single = windows(picture, fit, aim, W[at], H[at])
            by = W / single.W.item()
            x0, x1, y0, y1 = (
                np.full(W.shape, e.item()) for e in (single.x0, single.x1, single.y0, single.y1)
            )
            return Windows(
                W, H, single.drawn_w.item() * by, single.drawn_h.item() * by, x0, x1, y0, y1
            )
    drawn_w, drawn_h = np.maximum(W, H * picture.ratio), np.maximum(H, W / picture.ratio)
    if isinstance(aim, FixedAim):
        ox, oy = aim.x * (W - drawn_w), aim.y * (H - drawn_h)
    else:
        ox = following_offset(W, drawn_w, picture.focal[0], picture.keeps_x)
        oy = following_offset(H, drawn_h, picture.focal[1], picture.keeps_y)
    x0, y0 = -ox / drawn_w, -oy / drawn_h
    return Windows(W, H, drawn_w, drawn_h, x0, x0 + W / drawn_w, y0, y0 + H / drawn_h)


def outside(inside: Windows, crop: Rect) -> Windows:
    """Windows in fractions of a crop, told in fractions of the original; drawn sizes become those
    of the whole original."""
    if crop is WHOLE:
        return inside
    w, h = crop.w, crop.h
    return Windows(
        inside.W,
        inside.H,
        inside.drawn_w / w,
        inside.drawn_h / h,
        crop.x + inside.x0 * w,
        crop.x + inside.x1 * w,
        crop.y + inside.y0 * h,
        crop.y + inside.y1 * h,
    )


def critical_shares(seen: Floats, focal: float, keeps: tuple[Interval, ...]) -> Floats:
    """Visible shares of one axis between which every following position is a straight line in the
    share.

    In units of the drawn extent the offset is made by min and max of s/2 − f, −k0, s − k1, 0 and s
    − 1, so it can only bend where two of these lines meet: what holds at those shares and at both
    ends of what is seen holds at all shares between.
    """
    low, high = float(seen.min()), float(seen.max())
    if high - low < 1e-12:
        return np.array([low])
    slopes = np.array([0.5, 0.0, 1.0, *(v for k in keeps for v in (0.0, 1.0))])
    offsets = np.array([-focal, 0.0, -1.0, *(v for k in keeps for v in (-k.first, -k.last))])
    rise = slopes[:, None] - slopes[None, :]
    with np.errstate(divide="ignore", invalid="ignore"):
        meets = (offsets[None, :] - offsets[:, None]) / rise
    inside = meets[(rise > 0) & (meets > low) & (meets < high)]
    return np.unique(np.concatenate([[low, high], inside]))


class Turns(NamedTuple):
    """Per axis the critical shares of what is seen."""

    x: Floats
    y: Floats


def turns_of(picture: Picture, shown: Windows) -> Turns:
    """Where following positions can bend in these frames."""
    return Turns(
        critical_shares(shown.W / shown.drawn_w, picture.focal[0], picture.keeps_x),
        critical_shares(shown.H / shown.drawn_h, picture.focal[1], picture.keeps_y),
    )


def windows_between(picture: Picture, aim: Aim, turns: Turns) -> Windows:
    """Windows at every share, between the least and the greatest that the frames show, at which the
    window's edges can turn.

    Along one axis what shows depends on the visible share alone, so this covers viewport heights
    between those computed. The two axes are told apart: their arrays may differ in length.
    """

    def first(share: Floats, focal: float, keeps: tuple[Interval, ...], fixed: float) -> Floats:
        one = np.ones_like(share)
        if isinstance(aim, FixedAim):
            return -fixed * (share - one)
        return -following_offset(share, one, focal, keeps)

    fx, fy = (aim.x, aim.y) if isinstance(aim, FixedAim) else (0.0, 0.0)
    across, down = turns
    x0 = first(across, picture.focal[0], picture.keeps_x, fx)
    y0 = first(down, picture.focal[1], picture.keeps_y, fy)
    return Windows(across, down, np.ones_like(x0), np.ones_like(y0), x0, x0 + across, y0, y0 + down)


def union(shown: Windows) -> Rect:
    """All that shows at some frame: what a rendition has to carry."""
    return Rect.between(
        max(0.0, float(shown.x0.min())),
        min(1.0, float(shown.x1.max())),
        max(0.0, float(shown.y0.min())),
        min(1.0, float(shown.y1.max())),
    )


def safe_edges(shown: Windows) -> tuple[float, float, float, float]:
    """The edges x0, x1, y0, y1 between which lies what shows at every frame."""
    return (
        float(shown.x0.max()),
        float(shown.x1.min()),
        float(shown.y0.max()),
        float(shown.y1.min()),
    )


def safe_area(shown: Windows) -> Rect | None:
    """What shows at every frame; None if there is nothing."""
    return spanned(*safe_edges(shown))


def share_in_view(shown: Windows, rect: tuple[float, float, float, float]) -> Floats:
    """area(K ∩ visible)/area(K) of the rectangle (x0, x1, y0, y1), per frame."""
    kx0, kx1, ky0, ky1 = rect
    across = np.clip(np.minimum(kx1, shown.x1) - np.maximum(kx0, shown.x0), 0, None) / (kx1 - kx0)
    down = np.clip(np.minimum(ky1, shown.y1) - np.maximum(ky0, shown.y0), 0, None) / (ky1 - ky0)
    in_view: Floats = across * down
    return in_view


Edge = float | Floats


def is_whole(shown: Windows, rect: tuple[Edge, Edge, Edge, Edge], picture: Picture) -> np.ndarray:
    """Whether the rectangle is in view with a tolerance of half an image px on every side.

    Edges may be arrays that numpy broadcasts against the windows: many rectangles at once.
    """
    kx0, kx1, ky0, ky1 = rect
    tx, ty = 0.5 / picture.w, 0.5 / picture.h
    inside: np.ndarray = np.asarray(kx0 >= shown.x0 - tx)
    inside = inside & (kx1 <= shown.x1 + tx) & (ky0 >= shown.y0 - ty) & (ky1 <= shown.y1 + ty)
    return inside


def binding(
    room: Floats, drawn: float, focal: float, keeps: tuple[Interval, ...]
) -> tuple[Interval, ...]:
    """The keep areas without which the offset would differ by more than a hundredth of a px at some
    visible share of one axis. `room` are the critical shares, `drawn` is the greatest drawn extent
    in CSS px.
    """
    if not keeps or room[0] >= 1 - 1e-9:
        return ()
    whole = np.ones_like(room)
    least = 0.01 / drawn
    plain = following_offset(room, whole, focal, ())
    if in_view_at(plain, room, whole, keeps):
        return ()
    offset = room / 2 - focal
    kept: list[Interval] = []
    # one whose projection moves nothing can be left out without asking further
    for area in reversed(keeps):
        moved = project(offset, room, whole, area)
        if np.abs(moved - offset).max() >= least:
            kept.insert(0, area)
        offset = moved
    result = np.minimum(0.0, np.maximum(room - whole, offset))
    if not kept or np.abs(plain - result).max() < least:
        return ()
    for area in kept[::-1]:
        without = tuple(k for k in kept if k is not area)
        if np.abs(following_offset(room, whole, focal, without) - result).max() < least:
            kept.remove(area)
    return tuple(kept)
