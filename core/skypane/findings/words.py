"""What is wrong with words, marks and insets on a picture."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.lettering import too_low
from skypane.findings.rule import Case, Found, Matter, plain, rule, widths_at
from skypane.galleries.logo import least_width
from skypane.layouts.banner import laid_out, values_of
from skypane.markup.picture import alt_text
from skypane.shown.clear import COVERED, block_edges, covered, outgrown
from skypane.shown.in_the_way import lying_on
from skypane.shown.lettering import lettering_of
from skypane.shown.nouns import SpanPlan
from skypane.shown.readable import (
    before_loading_said,
    seen_in,
    unread,
    unread_before_loading,
)
from skypane.shown.sets import shown_of_set


def _worded(case: Case) -> Iterator[SpanPlan]:
    """The spans whose words show, told once for a placement."""
    if case.part.index == 0 and case.plan.layout.has_words:
        yield from (p for p in case.part.spans if laid_out(p.spot).block is not None)


@rule("unreadable", "wrong", "words", "See the advice for this span in Words.")
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
                before_loading_said(p, "{what}", ratio, least),
                _text_named(t.name),
            )


@rule(
    "words-on-area",
    "wrong",
    "words",
    "Move the words to another of the nine places, or below.",
    at="place",
)
def words_on_area(case: Case) -> Iterator[Found]:
    """Words lie on a keep area: on a face, a boat, lettering of the picture itself (common
    practice)."""
    for p in _worded(case):
        for name, share in covered(p, block_edges(p)).items():
            at = np.flatnonzero(share > COVERED)
            yield _covers("The words", name, p, at, float(share.max()))


def _covers(what: str, name: str, p: SpanPlan, at: np.ndarray, most: float) -> Matter:
    """Something lies on a keep area, `at` some widths of a span."""
    sentence = f"{what} cover{'' if what.endswith('s') else 's'} {plain(name)} {{where}}, at most"
    percent = max(1, round(most * 100))
    runs = widths_at(p.viewport_w, at)
    return Matter(f"covers {name}", p.span.letter, runs, most, f"{sentence} {percent} % of it.")


@rule(
    "words-outgrow",
    "wrong",
    "words",
    "Make them smaller, the banner higher, or put them below.",
    at="heading_px",
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
        block = laid_out(p.spot).block
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
        and values_of(p.spot).shows == "off"
        and p.effective.show != "nothing"
    )
    said = " ".join((alt_text(case.part) or "").casefold().split())
    if off and " ".join(words.heading.casefold().split()) not in said:
        yield (
            off,
            "The words are off there, and the alt text does not say them:"
            f" “{' '.join(words.heading.split())}”.",
        )


@rule(
    "mark-opaque",
    "wrong",
    "words",
    "Bring it as SVG, or as PNG or WebP with transparency.",
    at="mark",
)
def mark_opaque(case: Case) -> Iterator[Found]:
    """A mark has no transparency: its own background covers the picture as a box."""
    if case.part.part.role != "mark":
        return
    opaque = {p.original.name: None for p in case.part.shown if not p.original.alpha}
    for name in opaque:
        letters = tuple(p.span.letter for p in case.part.shown if p.original.name == name)
        yield letters, f"{name} has no transparency and covers the picture as a box."


@rule("mark-untrimmed", "wasteful", "words", "Trim its transparent edges.", at="trim")
def mark_untrimmed(case: Case) -> Iterator[Found]:
    """A mark has transparent edges: it looks smaller and stands elsewhere than its figures say."""
    if case.part.part.role != "mark":
        return
    told = set()
    for p in case.part.shown:
        found = case.pixels(p.original)
        if p.original.id in told or found is None or not found.alpha:
            continue
        told.add(p.original.id)
        alpha = found.by_width[0][..., 3]
        edges = (alpha[0], alpha[-1], alpha[:, 0], alpha[:, -1])
        if all(int(e.max()) == 0 for e in edges):
            yield (p.span.letter,), f"{p.original.name} has transparent edges on all four sides."


@rule(
    "mark-small",
    "wrong",
    "words",
    "Make the mark larger there, or show a cut with less lettering.",
    at="mark_percent",
)
def mark_small(case: Case) -> Iterator[Found]:
    """A mark is drawn so small that what is marked as lettering on its original cannot be read, as
    for the cuts of a logo."""
    if case.part.part.role != "mark":
        return
    for p in case.part.shown:
        cut = lettering_of(p)
        found = cut and too_low(p, cut, least_width(cut))
        if found:
            yield found


def _in_the_way(case: Case, role: str) -> Iterator[Found]:
    if case.part.part.role != role:
        return
    for p in case.part.shown:
        for lying in lying_on(case.plan, p.span.letter):
            if lying.span is not p:
                continue
            if lying.words.any():
                most = max(float(share.max()) for share in lying.texts.values())
                runs = widths_at(p.viewport_w, np.flatnonzero(lying.words))
                sentence = f"The {role} lies on the words {{where}}."
                yield Matter("words", p.span.letter, runs, most, sentence)
            for name, share in lying.areas.items():
                at = np.flatnonzero(share > COVERED)
                yield _covers(f"The {role}", name, p, at, float(share.max()))


@rule(
    "mark-in-the-way",
    "wrong",
    "words",
    "Move the mark to another place, or make it smaller.",
    at="mark_place",
)
def mark_in_the_way(case: Case) -> Iterator[Found]:
    """A mark lies on the words or on a keep area of the picture."""
    yield from _in_the_way(case, "mark")


@rule(
    "inset-in-the-way",
    "wrong",
    "words",
    "Move the inset to another place, or make it smaller.",
    at="inset_place",
)
def inset_in_the_way(case: Case) -> Iterator[Found]:
    """An inset lies on the words or on a keep area of the picture."""
    yield from _in_the_way(case, "inset")


@rule(
    "one-of-a-set",
    "wrong",
    "frame",
    "Let each span show one of them: set the others to nothing there, in Aim.",
    at="one_of",
)
def one_of_a_set(case: Case) -> Iterator[Found]:
    """Of placements that stand in for each other none shows at some width, or more than one
    (rules §1 and §6)."""
    if case.part.index:
        return
    found = shown_of_set(case.site, case.plan.placement, case.siblings)
    for letter, names in (found or {}).items():
        if len(names) != 1:
            name = case.plan.placement.one_of
            which = f"{' and '.join(names)} show" if names else "none shows"
            yield (letter,), f"Of {name} {which} in span {letter}, and just one should."
