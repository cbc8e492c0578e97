"""What is wrong with words on a picture."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.covers import covers_area
from skypane.findings.rule import Case, Found, Matter, rule, widths_at
from skypane.markup.picture import alt_text
from skypane.shown.clear import COVERED, block_edges, covered, outgrown
from skypane.shown.nouns import SpanPlan
from skypane.shown.readable import (
    before_loading_sentence,
    seen_in,
    unread,
    unread_before_loading,
)


def _worded(case: Case) -> Iterator[SpanPlan]:
    """The spans whose words show, told once for a placement."""
    if case.part.index == 0 and case.plan.layout.has_words:
        yield from (p for p in case.part.spans if p.laid.block is not None)


@rule("unreadable", "wrong", "words", "See the advice for this span in Words.", under=True)
def unreadable(case: Case) -> Iterator[Found]:
    """Text has less contrast with what lies under it than it needs: 4.5 : 1, large text 3 : 1, for
    the worst twentieth of the px (WCAG 2.2, 1.4.3; rules §9)."""
    for p in _worded(case):
        for s, at in unread(p, seen_in(p, case.pixels)):
            worst = float(s.worst.min())
            yield Matter(
                "",
                p.span.letter,
                widths_at(p.viewport_w, at),
                s.needed / max(worst, 1.0),
                f"{{what}} cannot be read {{where}}: {worst:.1f} : 1 at worst, {s.needed:g} : 1"
                " needed.",
                _text_named(s.text.name),
            )


def _text_named(name: str) -> str:
    return f"The {name.lower()}"


@rule(
    "unreadable-before-loading",
    "wrong",
    "words",
    "Take a background colour that does alone; Words proposes one.",
    shows=False,
    under=True,
)
def unreadable_before_loading(case: Case) -> Iterator[Found]:
    """Text cannot be read on the background colour alone: until the picture has loaded, or where it
    never does, that is all there is (rules §9)."""
    for p in _worded(case):
        for t, ratio, least in unread_before_loading(p):
            yield Matter(
                "",
                p.span.letter,
                ((p.span.first, p.span.last),),
                least / ratio,
                before_loading_sentence(p, "{what}", ratio, least),
                _text_named(t.name),
            )


@rule(
    "words-on-area",
    "wrong",
    "words",
    "Move the words to another of the nine places, or below.",
    at="place",
    under=True,
)
def words_on_area(case: Case) -> Iterator[Found]:
    """Words lie on a keep area: on a face, a boat, lettering of the picture itself (common
    practice)."""
    for p in _worded(case):
        for name, share in covered(p, block_edges(p)).items():
            at = np.flatnonzero(share > COVERED)
            yield covers_area("The words", name, p, at, float(share.max()))


@rule(
    "words-outgrow",
    "wrong",
    "words",
    "Make them smaller, the banner higher, or put them below.",
    at="heading_px",
    under=True,
)
def words_outgrow(case: Case) -> Iterator[Found]:
    """What lies on the picture needs more height than the banner has: it grows there, and shows
    more or less of the picture than was meant."""
    for p in _worded(case):
        over = outgrown(p)
        at = np.flatnonzero(over)
        if at.size:
            most = float(over.max())
            yield Matter(
                "",
                p.span.letter,
                widths_at(p.viewport_w, at),
                most,
                f"The words need up to {round(most)} px more than the banner is high {{where}}: it"
                " grows by that much.",
            )


@rule("word-broken", "wrong", "words", "Make the text smaller or the words wider.", at="percent")
def word_broken(case: Case) -> Iterator[Found]:
    """A word is wider than its line and is broken where no language breaks it (CSS Text 3,
    `overflow-wrap`)."""
    for p in _worded(case):
        block = p.laid.block
        for t in block.texts if block else ():
            at = np.flatnonzero(t.w + 0.02 < t.longest_px + 0.0 * t.w)
            if at.size:
                yield Matter(
                    t.name,
                    p.span.letter,
                    widths_at(p.viewport_w, at),
                    t.longest_px,
                    f"A word of the {t.name.lower()} is {round(t.longest_px)} px wide and is broken"
                    " in two {where}.",
                )


@rule(
    "lettering-not-read",
    "wrong",
    "words",
    "Let the alt text say what the lettering in the picture says.",
)
def lettering_not_read(case: Case) -> Iterator[Found]:
    """Words are off in a span because the picture carries its own lettering there, and its alt text
    does not say them (WCAG 2.2, 1.4.5 and 1.1.1)."""
    words = case.plan.placement.words
    if case.part.index or words is None or not words.heading.strip():
        return
    off = tuple(
        p.span.letter
        for p in case.part.spans
        if case.plan.layout.has_words
        and p.on_picture.shows == "off"
        and p.effective.show != "nothing"
    )
    said = " ".join((alt_text(case.part) or "").casefold().split())
    if off and " ".join(words.heading.casefold().split()) not in said:
        yield (
            off,
            "The words are off there, and the alt text does not say them:"
            f" “{' '.join(words.heading.split())}”.",
        )
