"""Spans in small, as they stand in lists."""

from __future__ import annotations

from ninja import Schema
from originals.models import preview_url
from skypane import ShownSpan, SpanPlan, strip_frame
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


def strip_frame_out(p: SpanPlan) -> StripFrameOut:
    frame = strip_frame(p)
    thumb = None
    if isinstance(p, ShownSpan):
        thumb = preview_url(p.original.id, THUMB_PX, p.original.sha256)
    return StripFrameOut(
        letter=frame.letter,
        show=frame.show,
        colour=frame.colour,
        frame_ratio=frame.frame_ratio,
        thumb=thumb,
        window=frame.window,
        place=frame.place,
    )
