"""What is wrong with frames and with what is still to come into them."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule


@rule("no-original", "unfinished", "aim", "Drop an original on the map or choose one.")
def no_original(case: Case) -> Iterator[Found]:
    """A span shows a picture, but has none yet. Visitors would see an empty frame there."""
    empty = tuple(p.span.letter for p in case.part.waiting)
    if empty:
        everywhere = len(empty) == len(case.part.spans)
        yield empty, "No picture yet." if everywhere else f"No picture in span {', '.join(empty)}."


@rule(
    "wider-than-page",
    "wrong",
    "frame",
    "Use a share of the page there, or give the frame a greatest width.",
)
def wider_than_page(case: Case) -> Iterator[Found]:
    """The frame is wider than the page at some width, which makes the whole page scroll sideways
    (WCAG 2.2, 1.4.10 Reflow)."""
    for p in case.part.spans:
        over = p.viewport_w[(p.viewport_w + 0.5 < p.W).any(axis=0)]
        if over.size and p.effective.show != "nothing":
            yield (
                (p.span.letter,),
                f"The frame is wider than the page from {int(over[0])} to {int(over[-1])} px and"
                " scrolls it sideways.",
            )
