"""The words of a banner: where they stand, whether they can be read and lie clear, at every
width."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from skypane.advice.words import words_detail
from skypane.handing_down import Handed
from skypane.layouts import Laid
from skypane.model import Words
from skypane.reading.nouns import (
    Band,
    BoxCurves,
    LinesRun,
    MarkSpan,
    WordsReading,
    WordsSpan,
    WordsText,
)
from skypane.shown.clear import COVERED, block_edges, covered, outgrown
from skypane.shown.in_the_way import hidden_texts, lying_on
from skypane.shown.lettering import readable_from
from skypane.shown.nouns import Plan, ShownSpan, SpanPlan
from skypane.shown.readable import Seen, ratio_before_loading, seen_in
from skypane.shown.under import Pixels
from skypane.values import once
from skypane.widths.curves import Curve, simplified
from skypane.widths.frames import Floats, standing_left
from skypane.widths.runs import Run, equal_runs, merged, runs_of
from skypane.words.block import BUTTON_WEIGHT, HEADING_WEIGHT, TEXT_IDS, TEXT_WEIGHT, TextBox
from skypane.words.contrast import needed
from skypane.words.lines import unset

#: How far a curve may be from what it stands for.
OFF_BY_PX, OFF_BY_RATIO = 0.5, 0.01


def words_reading(
    plan: Plan, pixels: Pixels, chosen: tuple[int, str] | None = None
) -> WordsReading | None:
    """None where the kind has no words. `chosen`, part and letter, asks for the detail of a
    span."""
    if not plan.layout.has_words:
        return None
    spans = plan.parts[0].spans
    seen = {p.span.letter: seen_in(p, pixels) for p in spans}
    shown = [p for p in spans if p.laid.block is not None]
    in_detail = plan.parts[0].at(chosen[1]) if chosen else None
    return WordsReading(
        spans=tuple(words_span(p, plan.handed_of_kind) for p in spans),
        bands=(
            *_readable_bands(plan, seen),
            *_clear_band(shown),
            *_lying_bands(plan),
            *_fits_band(shown),
        ),
        marks=tuple(
            _mark(p) for part in plan.parts if part.part.role == "mark" for p in part.shown
        ),
        measured=all(seen[p.span.letter] for p in shown),
        unset=_unset(plan),
        detail=(
            words_detail(plan.parts[0], in_detail.span.letter, pixels, plan.handed_of_kind)
            if in_detail
            else None
        ),
    )


@once
def _mark(p: ShownSpan) -> MarkSpan:
    least = readable_from(p)
    return MarkSpan(
        letter=p.span.letter,
        narrowest_px=round(float(p.drawn_cut_width.min()), 1),
        widest_px=round(float(p.drawn_cut_width.max()), 1),
        readable_from_px=None if least is None else round(least, 1),
    )


def words_span(p: SpanPlan, handed_of_kind: Mapping[str, Handed]) -> WordsSpan:
    letter = p.span.letter
    held = handed_of_kind[letter]
    laid = p.laid
    return WordsSpan(
        letter=letter,
        values=p.on_picture,
        own=tuple(sorted(held.set_in(letter))),
        origin=held.origin,
        texts=tuple(_text(p, laid, t) for t in (laid.block.texts if laid.block else ())),
        covers=tuple(covered(p, block_edges(p))),
        **_places(p),
    )


@once
def _places(p: SpanPlan) -> dict[str, BoxCurves | None]:
    laid, t, v = p.laid, p.typical, p.viewport_w

    def curves(*values: Floats) -> BoxCurves:
        x, y, w, h = (simplified(v, a, OFF_BY_PX) for a in values)
        return BoxCurves(x=x, y=y, w=w, h=h)

    zero = np.zeros_like(v)
    left = standing_left(p.effective.stands, p.effective.width, v, laid.box_w[t], p.spot.container)
    area, words = laid.area, laid.words
    return {
        "area": curves(area.x[t], area.y[t], area.W[t], area.H[t]),
        "banner": curves(left, zero, laid.box_w[t], laid.box_h[t]),
        "block": curves(words.x[t], words.y[t], words.W[t], words.H[t]) if words else None,
    }


def _text(p: SpanPlan, laid: Laid, text: TextBox) -> WordsText:
    v, t, words = p.viewport_w, p.typical, laid.words
    bx, by = (words.x[t], words.y[t]) if words else (0.0, 0.0)
    lines = text.lines
    return WordsText(
        kind=text.kind,
        id=text.id,
        name=text.name,
        size_px=text.size_px,
        large=text.large,
        needed=needed(text.large),
        x=simplified(v, bx + text.x, OFF_BY_PX),
        y=simplified(v, by + text.y, OFF_BY_PX),
        w=simplified(v, text.w + 0.0 * v, OFF_BY_PX),
        h=simplified(v, text.h + 0.0 * v, OFF_BY_PX),
        lines=tuple(
            LinesRun(first=int(v[a]), last=int(v[b - 1]), lines=int(lines[a]))
            for a, b in equal_runs(lines)
        ),
        before_loading=round(ratio_before_loading(p, text), 2),
        broken=bool((text.w + 0.02 < text.longest_px).any()),
    )


def _readable_bands(plan: Plan, seen: Mapping[str, tuple[Seen, ...]]) -> tuple[Band, ...]:
    """One band per text, in reading order. What a mark or an inset hides has no contrast."""
    spans = plan.parts[0].spans
    hidden = {p.span.letter: hidden_texts(plan, p.span.letter) for p in spans}
    texts = {s.text.id: s.text.name for mine in seen.values() for s in mine}
    bands = []
    for id_ in sorted(texts, key=TEXT_IDS.index):
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        asked: list[tuple[float, float]] = []
        for p in spans:
            for i, s in enumerate(seen[p.span.letter]):
                if s.text.id == id_:
                    mine, curve = _ratio_runs(p, s, hidden[p.span.letter].get(i))
                    runs += mine
                    points += curve.points
                    asked += [(p.span.first, s.needed), (p.span.last, s.needed)]
        bands.append(
            Band(
                kind="readable",
                id=f"readable.{id_}",
                name=f"{texts[id_]} readable",
                wrong="words faint",
                figured="words {contrast}",
                runs=merged(runs),
                curve=Curve(points=tuple(points)),
                needed=Curve(points=tuple(asked)),
            )
        )
    return tuple(bands)


def _ratio_runs(p: SpanPlan, s: Seen, hidden: np.ndarray | None = None) -> tuple[list[Run], Curve]:
    v = p.viewport_w
    worst = np.interp(np.arange(len(v)), s.columns, s.worst)
    if hidden is not None:
        worst = np.where(hidden, 1.0, worst)
    verdicts = np.where(worst >= s.needed - 1e-9, "readable", "faint")
    return runs_of(v, verdicts, worst), simplified(v, worst, OFF_BY_RATIO)


def _clear_band(shown: list[SpanPlan]) -> tuple[Band, ...]:
    """Whether words lie clear of keep areas: the share of the worst covered one that is free."""
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in shown:
        if not block_edges(p):
            continue
        found = covered(p, block_edges(p))
        free = np.ones(len(p.viewport_w))
        for share in found.values():
            free = np.minimum(free, 1 - share)
        verdicts = np.where(free < 1 - 0.005, "covered", "clear")
        runs += runs_of(p.viewport_w, verdicts, free)
        points += simplified(p.viewport_w, free, 0.005).points
    if not runs:
        return ()
    return (
        Band(
            kind="clear",
            id="clear.words",
            name="Words clear of areas",
            runs=merged(runs),
            curve=Curve(points=tuple(points)),
            wrong="words in the way",
        ),
    )


def _lying_bands(plan: Plan) -> tuple[Band, ...]:
    """Whether the mark and the inset lie clear of words and keep areas: the share of what is
    touched worst that is free."""
    out: list[Band] = []
    for role in ("mark", "inset"):
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        for p in (q for part in plan.parts if part.part.role == role for q in part.shown):
            free = np.ones(len(p.viewport_w))
            for lying in lying_on(plan, p.span.letter):
                if lying.span is p:
                    for share in (*lying.texts.values(), *lying.areas.values()):
                        free = np.minimum(free, 1 - np.minimum(1, share))
            verdicts = np.where(free < 1 - COVERED, "covered", "clear")
            runs += runs_of(p.viewport_w, verdicts, free)
            points += simplified(p.viewport_w, free, 0.005).points
        if any(r.verdict == "covered" for r in runs):
            out.append(
                Band(
                    kind="clear",
                    id=f"clear.{role}",
                    name=f"{role.capitalize()} clear",
                    runs=merged(runs),
                    curve=Curve(points=tuple(points)),
                    wrong=f"{role} in the way",
                )
            )
    return tuple(out)


def _fits_band(shown: list[SpanPlan]) -> tuple[Band, ...]:
    """Whether words fit their banner: the CSS px by which it falls short, told as what is below
    0."""
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in shown:
        over = outgrown(p)
        runs += runs_of(p.viewport_w, np.where(over > 0, "grows", "fits"), -over)
        points += simplified(p.viewport_w, -over, OFF_BY_PX).points
    if all(r.verdict == "fits" for r in runs):
        return ()
    return (
        Band(
            kind="fits",
            id="fits.words",
            name="Words fit",
            runs=merged(runs),
            curve=Curve(points=tuple(points)),
            wrong="words too tall",
        ),
    )


def _unset(plan: Plan) -> tuple[str, ...]:
    words: Words | None = plan.placement.words
    if words is None:
        return ()
    face = plan.site.typeface
    found = [*unset(face, HEADING_WEIGHT, words.heading), *unset(face, TEXT_WEIGHT, words.text)]
    for label in words.labels:
        found += unset(face, BUTTON_WEIGHT, label)
    return tuple(dict.fromkeys(found))
