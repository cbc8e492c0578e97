"""Which parts stand in the page itself, as drawings, and have no files."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from skypane.files.drawn import Drawn, read_drawing
from skypane.geometry import WHOLE
from skypane.model import FixedAim
from skypane.model.medium import MEDIA
from skypane.shown.nouns import PartPlan, Plan, ShownSpan

_ENDS = {0.0: "Min", 0.5: "Mid", 1.0: "Max"}
#: Ratios that differ by less than this share show the same of a drawing.
SAME_RATIO = 0.005


class Inline(NamedTuple):
    """A drawing that stands in the page, and how it lies in its frame (SVG 2 §8.5,
    `preserveAspectRatio`)."""

    drawn: Drawn
    lies: str


def inline_of(plan: Plan, part: PartPlan) -> Inline | None:
    """What stands in the page in the place of a part's files, where it was chosen and can be."""
    if part.part.way != "svg":
        return None
    found = could_be_inline(plan, part)
    return None if isinstance(found, str) else found


def could_be_inline(plan: Plan, part: PartPlan) -> Inline | str:
    """How a part could stand in the page, or why it cannot, as a sentence."""
    if not part.shown:
        return "No svg in the page as long as there is no picture."
    original = part.shown[0].original
    if MEDIA[original.medium].has_px:
        return "No svg in the page: its picture is no drawing."
    if part.part.role is not None or plan.layout.has_items:
        return "No svg in the page: that is for one drawing that stands alone."
    if plan.alternatives(part):
        return "No svg in the page: another one shows under conditions."
    if any(p.original is not original for p in part.shown):
        return "No svg in the page: spans show several."
    if any(not isinstance(p, ShownSpan) and p.effective.show != "nothing" for p in part.spans):
        return "No svg in the page: not every span shows it."
    if not original.drawing:
        return "No svg in the page: it has more than 4 kB, and is better in a file."
    drawn = read_drawing(original.drawing)
    if isinstance(drawn, str):
        return f"No svg in the page: {drawn}."
    lies = dict.fromkeys(filter(None, map(_lies, part.shown)))
    if any(p.crop is not WHOLE and p.crop != WHOLE for p in part.shown):
        return "No svg in the page: it is cropped."
    if len(lies) > 1 or "?" in lies:
        return "No svg in the page: it lies in its frame as only a file can."
    return Inline(drawn, next(iter(lies), "xMidYMid meet"))


def _lies(p: ShownSpan) -> str:
    """How a drawing lies in its frame; "" where that makes no difference, ? where it cannot be
    said."""
    natural = p.original.width_px / p.original.height_px
    if (np.abs(p.W / p.H / natural - 1) < SAME_RATIO).all():
        return ""
    aim, covers = p.effective.aim, p.effective.fit == "cover"
    x, y = (aim.x, aim.y) if isinstance(aim, FixedAim) else (0.5, 0.5)
    follows = not isinstance(aim, FixedAim) and covers
    if follows and (p.keeps or tuple(p.original.focal) != (0.5, 0.5)):
        return "?"
    if x not in _ENDS or y not in _ENDS:
        return "?"
    return f"x{_ENDS[x]}Y{_ENDS[y]} {'slice' if covers else 'meet'}"
