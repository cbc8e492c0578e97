"""The words of a placement as HTML: written once, before its pictures, so that the heading is read
first wherever they stand (WCAG 2.2, 1.3.2). Text is text: nothing that it holds is read as markup.
"""

from __future__ import annotations

import html

from skypane.markup.lines import Line, attributes_html
from skypane.shown.nouns import Plan
from skypane.words.lines import lines_of


def words_lines(plan: Plan) -> tuple[Line, ...]:
    """A line each; none where there are no words. `dir="auto"`: each text runs as its own script
    does (HTML Standard §3.2.6.4)."""
    words = plan.placement.words
    if not plan.layout.has_words or words is None or words.empty:
        return ()
    out = [Line(f'<div class="{plan.placement.called}-words">')]
    if words.heading.strip():
        tag = f"h{plan.spots[0].level}"
        out.append(Line(f'  <{tag} dir="auto">{_text(words.heading)}</{tag}>'))
    if words.text.strip():
        out.append(Line(f'  <p dir="auto">{_text(words.text)}</p>'))
    buttons = [b for b in words.buttons if b.label.strip()]
    if buttons:
        # without bullets a list is no longer told as one by some screen readers, unless it says so
        out.append(Line('  <ul role="list">'))
        for b in buttons:
            link = f'<a{attributes_html({"href": b.href})} dir="auto">{_text(b.label)}</a>'
            out.append(Line(f"    <li>{link}</li>"))
        out.append(Line("  </ul>"))
    return (*out, Line("</div>"))


def _text(text: str) -> str:
    """Text content; a line feed stays one, as `white-space: pre-line` shows it."""
    return html.escape("\n".join(lines_of(text)), quote=False).replace("\n", "&#10;")
