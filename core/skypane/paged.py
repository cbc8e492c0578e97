"""What holds for a page in each span: its head, and the order in which its placements stand."""

from __future__ import annotations

from typing import NamedTuple

from skypane.errors import InvalidPlan
from skypane.model import PageLayout, PageValues, Site
from skypane.widths.spans import Span, spans_of


class PageHeld(NamedTuple):
    """`order` has every placement of the page, by its place in reading order."""

    span: Span
    head_px: float
    head_over: bool
    order: tuple[int, ...]


def page_held(site: Site, layout: PageLayout, n: int) -> tuple[PageHeld, ...]:
    """What holds in every span of a page of `n` placements, from the narrowest. Raises InvalidPlan
    for letters without a span."""
    spans = spans_of(site)
    if unknown := sorted(set(layout) - {s.letter for s in spans}):
        raise InvalidPlan(f"There is no span {', '.join(unknown)} in this site.", field="layout")
    out, held = [], PageValues(head_px=0, head_over=False, order=())
    for span in reversed(spans):
        own = layout.get(span.letter, PageValues()).model_dump(exclude_none=True)
        held = held.model_copy(update=own)
        said = [i for i in held.order or () if 0 <= i < n]
        order = (*said, *(i for i in range(n) if i not in set(said)))
        out.append(PageHeld(span, held.head_px or 0, bool(held.head_over), order))
    return tuple(reversed(out))


def page_respanned(before: Site, after: Site, layout: PageLayout) -> PageLayout:
    """The layout of a page after breakpoints have changed in number: a new span takes what held at
    its last width, and says only what the next wider one does not."""
    if len(before.breakpoints) == len(after.breakpoints) or not layout:
        return layout
    current, held = PageValues(), {}
    for span in reversed(spans_of(before)):
        own = layout.get(span.letter, PageValues()).model_dump(exclude_none=True)
        current = current.model_copy(update=own)
        held[span.letter] = current
    out: PageLayout = {}
    wider = PageValues()
    for span in reversed(spans_of(after)):
        there = (s.letter for s in spans_of(before) if s.first <= span.last <= s.last)
        here = held[next(there, spans_of(before)[-1].letter)]
        own = {k: v for k, v in here if v is not None and v != getattr(wider, k)}
        if own:
            out[span.letter] = PageValues(**own)
        wider = here
    return out
