"""`sizes` and `ladder`: the rules of widths and of files."""

from __future__ import annotations

import sys
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from itertools import pairwise
from typing import Annotated, Any

import numpy as np
import typer
from pydantic import Field

from skypane.cli.batch import Batch, Question, run
from skypane.errors import InvalidPlan
from skypane.files.ladder import (
    USUAL_GROWTH,
    Bytes,
    Growth,
    Ladder,
    Need,
    best,
    fitted,
    merged_needs,
)
from skypane.markup.sizes import sizes_css
from skypane.model import (
    GREATEST_VIEWPORT,
    LEAST_VIEWPORT,
    MOST_VIEWERS,
    Container,
    MediaStyle,
    Viewers,
    WidthRule,
)
from skypane.numerals import number, whole_px
from skypane.picks import Environment
from skypane.picks.sizes import evaluate_sizes
from skypane.widths.frames import Piece, frame_widths, width_pieces
from skypane.widths.sums import figure, width_sum

commands = typer.Typer()


class FrameOfSpan(Question):
    """The frame of one span up to the viewport width `last`, which the widest span does not say.
    `share`: how wide the file is drawn, over the frame's width; more than 1 where the sides of the
    picture are out of view."""

    last: int | None = Field(None, ge=1, le=100_000)
    width: WidthRule
    share: float = Field(1, gt=0, le=1000)


class SizesQuestion(Question):
    """Frame rules of all spans from the narrowest, and viewport widths to evaluate them at."""

    spans: Annotated[list[FrameOfSpan], Field(min_length=1, max_length=40)]
    container: Container = Container()
    style: MediaStyle = "max-width"
    at: Annotated[list[Annotated[float, Field(ge=1, le=100_000)]], Field(max_length=10_000)] = []

    def ends(self) -> list[int]:
        """The last widths of all spans but the widest."""
        *narrower, widest = self.spans
        ends = [s.last for s in narrower if s.last is not None]
        if widest.last is not None or len(ends) < len(narrower):
            raise InvalidPlan("Every span but the widest says its last width, and only those.")
        if any(b <= a for a, b in pairwise(ends)):
            raise InvalidPlan("The last widths of spans must grow.", field="spans")
        return ends


def answer_sizes(question: SizesQuestion) -> dict[str, Any]:
    ends = question.ends()
    spans, start = [], LEAST_VIEWPORT
    for frame, last in zip(question.spans, [*ends, GREATEST_VIEWPORT], strict=True):
        pieces = width_pieces(frame.width, question.container)
        drawn = [Piece(p.until, p.share * frame.share, p.constant * frame.share) for p in pieces]
        spans.append((start, last, drawn))
        start = last + 1
    text = sizes_css(spans, question.style)
    frames = [question.spans[_span_at(ends, width, question.style)] for width in question.at]
    return {
        "sizes": text,
        "widths": [evaluate_sizes(text, Environment(v, 800)).width for v in question.at],
        "sums": [_sum(f, question.container, v) for f, v in zip(frames, question.at, strict=True)],
    }


def _span_at(ends: Sequence[int], width: float, style: MediaStyle) -> int:
    """The span that holds at a width, which may lie between two px: its conditions are tested as
    they are written, `max-width: 600px`, `min-width: 601px` or `width < 601px`."""
    if style == "max-width":
        return bisect_left(ends, width)
    return bisect_right([e + 1 for e in ends], width)


def _sum(frame: FrameOfSpan, container: Container, viewport_px: float) -> str:
    """How the width comes about: that of the frame, then the share of it that the file is drawn
    with."""
    said = width_sum(frame.width, container, viewport_px)
    if frame.share == 1:
        return said
    whole = float(frame_widths(frame.width, np.array([viewport_px]), container)[0])
    drawn = figure(whole * frame.share)
    return f"{said}; {number(round(frame.share * 100, 4))} % of {figure(whole)} = {drawn}"


class FormatGrowth(Question):
    """How the bytes of one format grow with the width in px: c·wᵉ, or the real files that say so as
    [width, bytes]. `share` of the audience takes it."""

    c: float = Field(1, gt=0, le=1e9)
    e: float = Field(USUAL_GROWTH.e, ge=0.1, le=4)
    made: Annotated[list[tuple[int, int]], Field(max_length=200)] | None = None
    share: float = Field(1, gt=0, le=1e9)

    def growth(self) -> Growth:
        if self.made is None:
            return Growth(c=self.c, e=self.e)
        if any(w < 1 or size < 1 for w, size in self.made) or not (found := fitted(self.made)):
            raise InvalidPlan("Give the bytes of at least two files of different widths.")
        return found


class WeighedNeed(Question):
    """Visitors of one weight who need a file of so many px."""

    px: int = Field(ge=1, le=1_000_000)
    weight: float = Field(1, ge=0, le=1e9)


class LadderQuestion(Question):
    """What visitors need, as px or as an audience with the `sizes` that its browsers evaluate; the
    px that the crop has; how bytes grow; and how many files there may be."""

    crop: int = Field(ge=1, le=1_000_000)
    needs: Annotated[list[WeighedNeed], Field(max_length=5000)] = []
    audience: Annotated[list[Viewers], Field(max_length=MOST_VIEWERS)] = []
    sizes: Annotated[str, Field(max_length=20_000)] = "100vw"
    top: int | None = Field(None, ge=1, le=1_000_000)
    bytes: Annotated[list[FormatGrowth], Field(min_length=1, max_length=8)] = [FormatGrowth()]
    n: int = Field(6, ge=1, le=100)


def answer_ladder(question: LadderQuestion) -> dict[str, Any]:
    asked = [Need(n.px, n.weight) for n in question.needs]
    for v in question.audience:
        drawn = evaluate_sizes(question.sizes, Environment(v.width, v.height)).width
        asked.append(Need(max(1, whole_px(drawn * v.density)), v.weight))
    if not asked:
        raise InvalidPlan("Say what visitors need: needs, or an audience with sizes.")
    top = min(question.crop, question.top or max(n.px for n in asked))
    named = {str(i): f for i, f in enumerate(question.bytes)}
    size = Bytes({k: f.growth() for k, f in named.items()}, {k: f.share for k, f in named.items()})
    needs = merged_needs(asked, top)
    found = best(needs, question.n, size)

    def told(ladder: Ladder) -> dict[str, Any]:
        return {
            "widths": list(ladder.widths),
            "expected": ladder.expected,
            "waste": ladder.waste,
        }

    return {
        **told(found[-1]),
        "needs": [[n.px, n.weight] for n in needs],
        "curve": [{"n": len(x.widths), **told(x)} for x in found],
    }


@commands.command()
def sizes(batch: Batch = False) -> None:
    """The `sizes` attribute of a frame, and its width at any viewport.

    In: {"spans": [{"last", "width", "share"}], "container", "style", "at": [viewport widths]};
    out: {"sizes", "widths" in CSS px, "sums"}.
    """
    run(SizesQuestion, answer_sizes, batch, sys.stdin.buffer)


@commands.command()
def ladder(batch: Batch = False) -> None:
    """The best widths for at most n files, what they weigh on average, and what they waste.

    In: {"crop" in px, "needs": [{"px", "weight"}] or "audience" and "sizes", "top", "bytes":
    [{"c", "e", "share"} or {"made": [[px, bytes]], "share"}], "n"}; out: {"widths", "expected",
    "waste", "needs", "curve"}.
    """
    run(LadderQuestion, answer_ladder, batch, sys.stdin.buffer)
