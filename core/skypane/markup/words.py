"""The words of a placement: written once, before its pictures, so that the heading is read first
wherever they stand (WCAG 2.2, 1.3.2). Text is text: nothing that it holds is read as markup."""

from __future__ import annotations

from skypane.markup.elements import Element, element
from skypane.shown.nouns import Plan
from skypane.words.lines import lines_of


def words_element(plan: Plan) -> Element | None:
    """None where there are no words. `dir="auto"`: each text runs as its own script does (HTML
    Standard §3.2.6.4)."""
    words = plan.placement.words
    if not plan.layout.has_words or words is None or words.empty:
        return None
    own = {"dir": "auto"}
    out = []
    if words.heading.strip():
        out.append(element(f"h{plan.spots[0].level}", own, [_text(words.heading)]))
    if words.text.strip():
        out.append(element("p", own, [_text(words.text)]))
    links = [
        element("a", {"href": b.href, **own}, [_text(b.label)])
        for b in words.buttons
        if b.label.strip()
    ]
    if links:
        # without bullets a list is no longer told as one by some screen readers, unless it says so
        each = [element("li", None, [link], on_a_line=True) for link in links]
        out.append(element("ul", {"role": "list"}, each))
    return element("div", {"class": f"{plan.placement.called}-words"}, out)


def _text(text: str) -> str:
    """Text content as it is laid out."""
    return "\n".join(lines_of(text))
