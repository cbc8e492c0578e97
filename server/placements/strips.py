"""Spans in small, as they stand in lists."""

from __future__ import annotations

from ninja import Schema
from originals.models import preview_url
from skypane import Plan, ShownSpan, SpanPlan, StripFrame, strip_frame, strip_screens
from skypane.model import Rect, Shows

#: How wide previews in lists are, in px.
THUMB_PX = 480


class StripFrameOut(Schema):
    """One span's frame in small: a preview of the whole original, the window of it that shows at
    the span's last width, and where that lies in the frame, in fractions of it. All are null where
    no picture shows."""

    letter: str
    show: Shows
    colour: str
    frame_ratio: float
    thumb: str | None
    window: Rect | None
    place: Rect | None


class StripCellOut(Schema):
    """One picture of a placement in small: where its frame lies in the box, in fractions of it."""

    x: float
    y: float
    w: float
    h: float
    round: bool
    frame: StripFrameOut


class StripTextOut(Schema):
    """One text of a placement in small: where its lines lie in the box, in fractions of it."""

    x: float
    y: float
    w: float
    h: float
    lines: int
    ink: str
    fill: str | None


class StripScreenOut(Schema):
    """One span of a placement in small, as visitors see it."""

    letter: str
    show: Shows
    colour: str
    box_ratio: float
    cells: list[StripCellOut]
    texts: list[StripTextOut]


def _frame_out(frame: StripFrame, sha256: str | None) -> StripFrameOut:
    thumb = None
    if frame.original is not None and sha256 is not None:
        thumb = preview_url(frame.original, THUMB_PX, sha256)
    return StripFrameOut(**frame.model_dump(exclude={"original"}), thumb=thumb)


def strip_frame_out(p: SpanPlan) -> StripFrameOut:
    return _frame_out(strip_frame(p), p.original.sha256 if isinstance(p, ShownSpan) else None)


def strip_screens_out(plan: Plan) -> list[StripScreenOut]:
    """A placement in every span, from the narrowest."""
    known = {p.original.id: p.original.sha256 for part in plan.parts for p in part.shown}
    return [
        StripScreenOut(
            **screen.model_dump(exclude={"cells"}),
            cells=[
                StripCellOut(
                    **cell.model_dump(exclude={"frame"}),
                    frame=_frame_out(cell.frame, known.get(cell.frame.original or 0)),
                )
                for cell in screen.cells
            ],
        )
        for screen in strip_screens(plan)
    ]
