"""What holds for a page in each span: its head, and the order in which its placements stand."""

from __future__ import annotations

from typing import NamedTuple

from skypane.errors import InvalidPlan
from skypane.handing_down import Handed, Layer, handed_down
from skypane.model import PageLayout, PageValues, Site
from skypane.widths.spans import Span, spans_of


class PageInSpan(NamedTuple):
    """`order` has every placement of the page, by its place in reading order."""

    span: Span
    head_px: float
    head_over: bool
    order: tuple[int, ...]


def page_in_spans(site: Site, layout: PageLayout, n: int) -> tuple[PageInSpan, ...]:
    """What holds in every span of a page of `n` placements, from the narrowest. Raises InvalidPlan
    for letters without a span."""
    spans = spans_of(site)
    if unknown := sorted(set(layout) - {s.letter for s in spans}):
        raise InvalidPlan(f"There is no span {', '.join(unknown)} in this site.", field="layout")
    out, held = [], page_values(site, layout)
    for span in spans:
        values = PageValues(**held[span.letter].values)
        named = [i for i in values.order or () if 0 <= i < n]
        order = (*named, *(i for i in range(n) if i not in set(named)))
        out.append(PageInSpan(span, values.head_px or 0, bool(values.head_over), order))
    return tuple(out)


def page_values(site: Site, layout: PageLayout) -> dict[str, Handed]:
    """Per letter what holds of all that has been set of a page."""
    own = {letter: values.model_dump(exclude_none=True) for letter, values in layout.items()}
    return handed_down([s.letter for s in spans_of(site)], Layer("page", own))


def places_on_page(site: Site, layout: PageLayout, n: int, at: int) -> dict[str, int]:
    """Where the placement that is read at place `at` stands among the `n` of its page, from 1, by
    the letter of a span."""
    return {h.span.letter: h.order.index(at) + 1 for h in page_in_spans(site, layout, n)}
