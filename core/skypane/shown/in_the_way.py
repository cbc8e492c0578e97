"""What lies in the way on a picture: marks and insets over words and keep areas, and what a kind
itself lays on its pictures, as controls, over keep areas."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from skypane.shown.clear import Edges, block_edges, covered, overlap_of
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.widths.frames import Floats

#: A text that is hidden from this share on cannot be read: a twentieth of its px decides (see
#: `skypane.words.contrast`).
HIDDEN = 0.05


class Lying(NamedTuple):
    """A mark or an inset in one span: the share of each text of the words that it hides, in their
    order, and of each keep area of the picture that it covers, (widths,) at the worst viewport
    height; only of what it touches somewhere."""

    role: str
    span: ShownSpan
    texts: dict[int, Floats]
    areas: dict[str, Floats]

    @property
    def words(self) -> np.ndarray:
        """Per width whether it lies on the words at all."""
        none = np.zeros(len(self.span.viewport_w), dtype=bool)
        for share in self.texts.values():
            none = none | (share > 0)
        return none


def lying_on(plan: Plan, letter: str) -> Iterator[Lying]:
    """The marks and insets of a banner in a span that lie on words or keep areas."""
    base = plan.parts[0].of(letter)
    for part in plan.parts:
        p = part.at(letter)
        if part.part.role not in ("mark", "inset") or not isinstance(p, ShownSpan):
            continue
        area = p.laid.area
        x, y = p.frame.x - area.x, p.frame.y - area.y
        mine = Edges(x, x + p.W, y, y + p.H)
        texts = {}
        for i, words in enumerate(block_edges(base)):
            size = np.maximum((words.x1 - words.x0) * (words.y1 - words.y0), 1.0)
            over = overlap_of(mine, words)
            share: Floats = np.where(over > 1, over / size, 0.0).max(axis=0)
            if (share > 0).any():
                texts[i] = share
        areas = covered(base, (mine,))
        if texts or areas:
            yield Lying(part.part.role, p, texts, areas)


def hidden_texts(plan: Plan, letter: str) -> dict[int, np.ndarray]:
    """Per text of the words, in their order, the widths at which a mark or an inset hides it. Where
    a box lies behind the words it is hidden as a whole, and all texts with it."""
    base = plan.parts[0].of(letter)
    block = base.laid.block
    n = len(block.texts) if block else 0
    boxed = block is not None and base.on_picture.box.strength > 0
    out: dict[int, np.ndarray] = {}
    for lying in lying_on(plan, letter):
        for i, share in lying.texts.items():
            hides = share >= HIDDEN
            for text in range(n) if boxed else (i,):
                out[text] = out.get(text, np.zeros(len(hides), dtype=bool)) | hides
    return out


def covered_by_kind(part: PartPlan, p: SpanPlan, plan: Plan) -> dict[str, Floats]:
    """Per keep area of a part the share that what the kind itself lays on it covers, as controls of
    slides do, (widths,) at the worst viewport height; only of areas that are covered somewhere."""
    if not plan.layout.lies_on or not isinstance(p, ShownSpan):
        return {}
    # how many parts there are is known to the plan's own spans alone
    box = plan.layout.lying(plan.spots[part.spans.index(p)], p.index, p.H)
    if box is None:
        return {}
    return covered(p, (Edges(box.x, box.x + box.W, box.y, box.y + box.H),))
