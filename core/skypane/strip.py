"""A part in small: what each span shows at its last width."""

from __future__ import annotations

from skypane.geometry import Rect
from skypane.model import FixedAim, Shows
from skypane.shown.nouns import PartPlan, ShownSpan, SpanPlan
from skypane.values import Noun


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


def strip_of(part: PartPlan) -> tuple[StripFrame, ...]:
    return tuple(map(strip_frame, part.spans))


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
