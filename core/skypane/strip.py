"""A placement in small: what each span shows at its last width, with what lies on the picture."""

from __future__ import annotations

from skypane.geometry import Rect
from skypane.model import FixedAim, Shows
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.values import Noun

#: More pictures than these are not told apart in small, nor what lies further down than so many
#: widths of the box.
MOST_CELLS, MOST_HIGH = 24, 1.6


class StripFrame(Noun):
    """One span in small: `window` is what shows of the original at the span's last width and
    typical height, `place` where that lies in the frame, in fractions of it; all None where no
    picture shows. `frame_ratio` is width over height."""

    letter: str
    show: Shows
    colour: str
    frame_ratio: float
    original: int | None
    window: Rect | None
    place: Rect | None


class StripCell(Noun):
    """One picture among several: where its frame lies in the box, in fractions of it, and what it
    shows. `round`: cut to an ellipse."""

    x: float
    y: float
    w: float
    h: float
    round: bool
    frame: StripFrame


class StripText(Noun):
    """One text: where its lines lie in the box, in fractions of it, and its colours."""

    x: float
    y: float
    w: float
    h: float
    lines: int
    ink: str
    fill: str | None


class StripScreen(Noun):
    """All of a placement in one span, in a box of this ratio: its pictures from below, and its
    texts. Of what is turned sideways only what shows first."""

    letter: str
    show: Shows
    colour: str
    box_ratio: float
    cells: tuple[StripCell, ...]
    texts: tuple[StripText, ...]


def strip_of(part: PartPlan) -> tuple[StripFrame, ...]:
    return tuple(map(strip_frame, part.spans))


def strip_screens(plan: Plan) -> tuple[StripScreen, ...]:
    """A placement in every span, from the narrowest."""
    return tuple(_screen(plan, at) for at in range(len(plan.spots)))


def _screen(plan: Plan, at: int) -> StripScreen:
    spot = plan.spots[at]
    parts = [part.spans[at] for part in plan.written]
    shown = [p for p in parts if p.effective.show != "nothing"]
    first = strip_frame(parts[0])
    box_w = float(plan.layout.box_widths(spot)[-1])
    if plan.layout.has_words:
        laid = plan.layout.laid(spot)
        row = parts[0].typical
        box_w, box_h = float(laid.box_w[row, -1]), float(laid.box_h[row, -1])
    else:
        box_h = max((_edge(p) for p in shown if _at(p)[0] < box_w - 1), default=box_w)
    box_h = min(box_h, MOST_HIGH * box_w)
    cells: list[StripCell] = []
    for p in shown:
        x, y, w, h = _at(p)
        if x < box_w - 1 and y < box_h - 1 and len(cells) < MOST_CELLS and box_w > 0:
            cells.append(
                StripCell(
                    x=x / box_w,
                    y=y / box_h,
                    w=w / box_w,
                    h=h / box_h,
                    round=plan.layout.is_round(spot, p.index),
                    frame=strip_frame(p),
                )
            )
    shows: Shows = "nothing" if not shown else first.show
    if shown and plan.layout.has_items:
        shows = "picture" if any(p.effective.show == "picture" for p in shown) else "colour"
    return StripScreen(
        letter=spot.span.letter,
        show=shows,
        colour=first.colour,
        box_ratio=box_w / box_h if shown else 1,
        cells=tuple(cells),
        texts=_texts(plan, at, box_w, box_h),
    )


def _at(p: SpanPlan) -> tuple[float, float, float, float]:
    """A frame from its box's corner at the span's last width, in CSS px."""
    f, row = p.frame, p.typical
    return tuple(float(a[row, -1]) for a in (f.x, f.y, f.W, f.H))  # type: ignore[return-value]


def _edge(p: SpanPlan) -> float:
    _, y, _, h = _at(p)
    return y + h


def _texts(plan: Plan, at: int, box_w: float, box_h: float) -> tuple[StripText, ...]:
    if not plan.layout.has_words:
        return ()
    laid, row = plan.layout.laid(plan.spots[at]), plan.parts[0].spans[at].typical
    if laid.block is None or laid.words is None:
        return ()
    left, top = float(laid.words.x[row, -1]), float(laid.words.y[row, -1])
    return tuple(
        StripText(
            x=(left + float(t.x[-1])) / box_w,
            y=(top + float(t.y[-1])) / box_h,
            w=float((t.w + 0 * t.x)[-1]) / box_w,
            h=float((t.h + 0 * t.x)[-1]) / box_h,
            lines=int(t.lines[-1]),
            ink=t.ink,
            fill=t.fill,
        )
        for t in laid.block.texts
    )


def strip_frame(p: SpanPlan) -> StripFrame:
    row, show = p.typical, p.effective.show
    window = place = None
    if isinstance(p, ShownSpan):
        s = p.shown
        x0, x1, y0, y1 = (float(edge[row, -1]) for edge in (s.x0, s.x1, s.y0, s.y1))
        window = Rect.between(x0, x1, y0, y1)
        # of a picture that is shown whole the frame may be larger than what is drawn
        w = min(1.0, (x1 - x0) * float(s.drawn_w[row, -1] / p.W[row, -1]))
        h = min(1.0, (y1 - y0) * float(s.drawn_h[row, -1] / p.H[row, -1]))
        aim = p.effective.aim
        across, down = (aim.x, aim.y) if isinstance(aim, FixedAim) else (0.5, 0.5)
        place = Rect(x=(1 - w) * across, y=(1 - h) * down, w=w, h=h)
    return StripFrame(
        letter=p.span.letter,
        show=show,
        colour=p.effective.background,
        frame_ratio=float(p.W[row, -1] / p.H[row, -1]) if show != "nothing" else 1,
        original=p.original.id if isinstance(p, ShownSpan) else None,
        window=window,
        place=place,
    )
