"""A picture's caption as a browser lays it out under or beside it: a title and a text."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from skypane.model import CaptionValues, Item, Typeface
from skypane.numerals import number, px
from skypane.widths.frames import Floats
from skypane.words.fallbacks import css_family
from skypane.words.lines import lines_at

#: Line heights, as multiples of the type size; weights; room above the caption in CSS px.
TITLE_LINE, TEXT_LINE, TITLE_WEIGHT, TEXT_WEIGHT = 1.3, 1.45, 600, 400
ABOVE_PX = 8.0


def caption_texts(item: Item | None, values: CaptionValues) -> tuple[str, str]:
    """Title and text as far as they show."""
    if item is None or values.captions == "none":
        return "", ""
    return item.title.strip(), item.text.strip() if values.captions == "all" else ""


def caption_heights(
    item: Item | None, typeface: Typeface, values: CaptionValues, rooms: Floats
) -> Floats:
    """The height of a caption in rooms of these widths, in CSS px; nothing without one."""
    title, text = caption_texts(item, values)
    room = np.maximum(rooms, 1.0).tobytes()
    h = np.zeros_like(rooms)
    if title:
        n = _lines(typeface, TITLE_WEIGHT, values.title_px, title, room)
        h = h + n * TITLE_LINE * values.title_px
    if text:
        n = _lines(typeface, TEXT_WEIGHT, values.caption_px, text, room)
        h = h + n * TEXT_LINE * values.caption_px
    return h


@lru_cache(maxsize=2048)
def _lines(
    typeface: Typeface, weight: int, size_px: float, text: str, rooms: bytes
) -> NDArray[np.int64]:
    """How many lines a text has in rooms of these widths, for as long as it is asked for: while one
    of many pictures is worked on the captions of the others stay."""
    return lines_at(typeface, weight, size_px, text, np.frombuffer(rooms)).n


def caption_css(typeface: Typeface, values: CaptionValues) -> dict[str, dict[str, str]]:
    """Declarations of captions, by what follows the placement's selector."""
    shows = values.captions != "none"
    return {
        " figcaption": {
            "display": "block" if shows else "none",
            "font-family": css_family(typeface),
            "overflow-wrap": "anywhere",
            "text-rendering": "geometricPrecision",
            "-webkit-text-size-adjust": "100%",
            "text-size-adjust": "100%",
        },
        " figcaption > b": {
            "display": "block",
            "font-size": px(values.title_px),
            "font-weight": str(TITLE_WEIGHT),
            "line-height": number(TITLE_LINE),
            "white-space": "pre-line",
        },
        " figcaption > span": {
            "display": "block" if values.captions == "all" else "none",
            "font-size": px(values.caption_px),
            "font-weight": str(TEXT_WEIGHT),
            "line-height": number(TEXT_LINE),
            "white-space": "pre-line",
        },
    }
