"""A page around several placements: its head, and the order in which they stand in each span.

They are written, and read out, in the order of the widest span; another order is one of boxes in a
column (CSS Flexbox 1 §5.4). Where a placement is not shown it fetches nothing: that is said by its
own markup.
"""

from __future__ import annotations

from collections.abc import Sequence

from skypane.markup.lines import Line
from skypane.model import Site
from skypane.numerals import px
from skypane.paged import PageInSpan
from skypane.widths.conditions import in_testing_order, lower_condition, upper_condition

#: What the page's own elements are called.
MAIN, HEAD = "page-main", "page-head"


def is_plain(held: Sequence[PageInSpan]) -> bool:
    """Whether a page has neither a head nor another order anywhere."""
    same = {h.order for h in held}
    return len(same) == 1 and not any(h.head_px for h in held)


def wrapped(held: Sequence[PageInSpan], snippets: Sequence[str]) -> list[str]:
    """The snippets of a page, "" for those that have nothing to show, in the elements of the
    page."""
    reading = held[-1].order
    if is_plain(held):
        return [snippets[i] for i in reading if snippets[i]]
    head = [f'<header class="{HEAD}"></header>\n'] if any(h.head_px for h in held) else []
    out = [*head, f'<main class="{MAIN}">\n']
    for i in reading:
        if snippets[i]:
            inner = "".join(f"    {line}\n" for line in snippets[i].rstrip("\n").split("\n"))
            out.append(f'  <div class="{MAIN}-{i + 1}">\n{inner}  </div>\n')
    return ["".join([*out, "</main>\n"])]


def page_css(site: Site, held: Sequence[PageInSpan]) -> tuple[Line, ...]:
    """What the elements of a page need, span by span as the placements have it."""
    if is_plain(held):
        return ()
    by_letter = {h.span.letter: h for h in held}
    lines: list[Line] = []
    before: dict[str, dict[str, str]] = {}
    for n, span in enumerate(
        reversed(in_testing_order(tuple(h.span for h in held), site.media_style))
    ):
        rules = []
        for selector, declared in _rules(by_letter[span.letter]).items():
            old = before.get(selector, {})
            changed = {k: v for k, v in declared.items() if old.get(k) != v}
            before[selector] = declared
            if changed:
                said = (f"  {k}: {v};" for k, v in changed.items())
                rules += [f".{selector} {{", *said, "}"]
        if not rules:
            continue
        letters = (span.letter,)
        if n == 0:
            lines += [Line(r, letters) for r in rules]
            continue
        lower = site.media_style == "min-width"
        media = (
            lower_condition(span.first) if lower else upper_condition(span.last, site.media_style)
        )
        lines.append(Line(f"@media {media} {{", letters))
        lines += [Line(f"  {r}", letters) for r in rules]
        lines.append(Line("}", letters))
    return tuple(lines)


def _rules(h: PageInSpan) -> dict[str, dict[str, str]]:
    head = {
        "position": "relative",
        "z-index": "2",
        "height": px(h.head_px),
        "margin-bottom": px(-h.head_px) if h.head_over and h.head_px else "0",
    }
    return {
        HEAD: head,
        MAIN: {"display": "flex", "flex-direction": "column"},
        **{f"{MAIN}-{i + 1}": {"order": str(at)} for at, i in enumerate(h.order)},
    }
