"""What is wrong with many pictures in one spot."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.markup.picture import alt_text


@rule("link-unnamed", "wrong", "words", "Write an alt text that says where the link leads.")
def link_unnamed(case: Case) -> Iterator[Found]:
    """A picture is a link, and nothing says where it leads: its alt text is the link's name (WCAG
    2.2, 2.4.4 and 4.1.2)."""
    item = case.part.part.item
    if item is not None and item.href is not None and not (alt_text(case.part) or "").strip():
        yield (), f"Item {case.part.index + 1} leads to {item.href}, and its link has no name."
