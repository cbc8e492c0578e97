"""A part in small: what each span shows at its last width."""

from __future__ import annotations

from skypane.geometry import Rect
from skypane.model import Shows
from skypane.shown.plan import PartPlan, ShownSpan, SpanPlan
from skypane.values import Noun


class StripFrame(Noun):
    """One span in small: `window` is what shows of the original at the span's last width and
    typical height, both None where no picture shows. `frame_ratio` is width over height."""

    letter: str
    show: Shows
    colour: str
    frame_ratio: float
    original: int | None
    window: Rect | None


def strip_of(part: PartPlan) -> tuple[StripFrame, ...]:
    return tuple(map(strip_frame, part.spans))


def strip_frame(p: SpanPlan) -> StripFrame:
    row, show = p.typical, p.effective.show
    window = None
    if isinstance(p, ShownSpan):
        s = p.shown
        edges = (float(edge[row, -1]) for edge in (s.x0, s.x1, s.y0, s.y1))
        window = Rect.between(*edges)
    return StripFrame(
        letter=p.span.letter,
        show=show,
        colour=p.effective.background,
        frame_ratio=float(p.W[row, -1] / p.H[row, -1]) if show != "nothing" else 1,
        original=p.original.id if isinstance(p, ShownSpan) else None,
        window=window,
    )
