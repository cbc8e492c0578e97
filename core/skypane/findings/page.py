"""What is wrong with text that has the colours of its page."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.layouts import Spot
from skypane.model import CaptionValues, Feature
from skypane.model.condition import when_words
from skypane.words.contrast import needed, ratio_of

_WHENS: tuple[tuple[Feature, ...], ...] = ((), ("dark",))
#: From this size on text is large, in CSS px: 18 pt (WCAG 2.2, “large scale”).
LARGE_PX = 24


@rule("captions-faint", "wrong", "words", "Choose other colours for pages, in Site.")
def captions_faint(case: Case) -> Iterator[Found]:
    """Captions have the page's colours, and those have less contrast than text needs: 4.5 : 1,
    large text 3 : 1 (WCAG 2.2, 1.4.3), as pages usually are or in a dark colour scheme."""
    if case.part.index:
        return
    site = case.site
    for when in _WHENS:
        colours = site.colours_under(when)
        if when and colours == site.colours:
            continue
        ratio = ratio_of(colours.ink, colours.ground)
        asks = {s.span.letter: _needed(s) for s in case.plan.spots}
        letters = tuple(letter for letter, least in asks.items() if least and ratio < least - 1e-9)
        if letters:
            least = max(asks[letter] for letter in letters)
            where = f" {when_words(when)}" if when else ""
            yield (
                letters,
                f"Captions cannot be read{where}: {ratio:.1f} : 1 on {colours.ground},"
                f" {least:g} : 1 needed.",
            )


def _needed(spot: Spot) -> float:
    """What captions under pictures need in a span; 0 where none shows on the page."""
    v = spot.values
    if not isinstance(v, CaptionValues) or v.captions == "none":
        return 0
    if getattr(v, "captions_lie", "under") != "under":
        return 0
    items = [c.item for c in spot.cells if c.item]
    sizes = [v.title_px] if any(i.title.strip() for i in items) else []
    if v.captions == "all" and any(i.text.strip() for i in items):
        sizes.append(v.caption_px)
    return max((needed(size >= LARGE_PX) for size in sizes), default=0)
