"""`picks`, `shows`, `keeps` and `advise`: the rules of one picture."""

from __future__ import annotations

import sys
from dataclasses import asdict
from functools import partial
from typing import Annotated, Any, Literal

import typer
from pydantic import Field

from skypane.advice.walk import advise
from skypane.cli.batch import Batch, Question, run
from skypane.errors import InvalidPlan
from skypane.model import (
    GREATEST_VIEWPORT,
    LEAST_VIEWPORT,
    Container,
    HeightRange,
    Original,
    Site,
    Treatment,
    picture,
)
from skypane.picks import Environment, pick
from skypane.picks.engines import Policy
from skypane.shown.fit import AnyFit, safe_edges, shows
from skypane.shown.keeps import fates, summary
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.plan import plan
from skypane.widths.runs import runs_of

commands = typer.Typer()

ScreenHeight = Annotated[int, Field(ge=200, le=6000)]
Number = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Length = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


class PicksQuestion(Question):
    markup: str
    width: Length
    height: Length
    density: float = Field(gt=0, le=1000)
    color_scheme: Literal["light", "dark"] = "light"
    reduced_motion: Literal["no-preference", "reduce"] = "no-preference"
    policy: Policy | None = None  # that of the command line, else the standard's
    layout_width: Length | None = None


class ShowsQuestion(Question):
    image: tuple[Number, Number]
    frame: tuple[Number, Number]
    fit: AnyFit = "cover"
    position: tuple[Number, Number] = (0.5, 0.5)


class SpanRange(Question):
    """One span: first and last viewport width, and the least, typical and greatest viewport height
    in it (CSS px)."""

    first: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    last: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    heights: tuple[ScreenHeight, ScreenHeight, ScreenHeight] = (560, 800, 1200)


class KeepsQuestion(Question):
    """One original's size, focal point and areas; one span; one treatment; all in the JSON of the
    model."""

    original: Original
    span: SpanRange
    treatment: Treatment = Treatment()
    container: Container = Container()
    # for `advise`: originals that may be proposed
    others: Annotated[list[Original], Field(max_length=500)] = []

    def site(self) -> Site:
        if self.span.last < self.span.first:
            raise InvalidPlan("A span's last width must not be below its first.", field="span")
        least, typical, greatest = self.span.heights
        row = HeightRange(
            to_px=GREATEST_VIEWPORT, least_px=least, typical_px=typical, greatest_px=greatest
        )
        return Site(
            narrowest=self.span.first,
            widest=self.span.last,
            breakpoints=(),
            heights=(row,),
            container=self.container,
        )

    def plan(self) -> SpanPlan:
        treatment = self.treatment.model_copy(update={"original": self.original.id})
        placement = picture("question", {"A": treatment})
        return plan(self.site(), placement, {self.original.id: self.original}).parts[0].spans[0]


def answer_keeps(question: KeepsQuestion) -> dict[str, Any]:
    p = question.plan()
    # only a colour, or nothing: no area is in view, and none is cut
    if not isinstance(p, ShownSpan):
        return {"areas": [], "safe": None}
    areas = []
    for area in p.keeps:
        verdicts, share = fates(p, area)
        runs = runs_of(p.viewport_w, verdicts, share)
        areas.append(
            {
                "name": area.name,
                "runs": [r.model_dump() for r in runs],
                "first_failing": summary(p, area).first_failing,
            }
        )
    x0, x1, y0, y1 = safe_edges(p.shown)
    return {"areas": areas, "safe": [x0, x1, y0, y1] if x1 > x0 and y1 > y0 else None}


def answer_advise(question: KeepsQuestion) -> dict[str, Any]:
    known = {o.id: o for o in (question.original, *question.others)}
    found = advise(question.plan(), known, question.site().budget_bytes)
    if found is None:
        return {"advice": None}
    advice = found.model_dump(mode="json", exclude_none=True)
    # of one picture in one span nothing else is set, which `also` has always said here
    advice["steps"] = [
        {"also" if k == "layout" else k: v for k, v in step.items() if k != "follow"}
        for step in advice["steps"]
    ]
    return {"advice": advice}


def answer_picks(question: PicksQuestion, policy: Policy = "least-sufficient") -> dict[str, Any]:
    env = Environment(
        **question.model_dump(exclude={"markup", "policy"}), policy=question.policy or policy
    )
    found = pick(question.markup, env)
    out: dict[str, Any] = {
        "url": found.url,
        "density": found.density,
        "trace": [asdict(s) for s in found.trace],
    }
    if found.warnings:
        out["warnings"] = list(found.warnings)
    return out


def answer_shows(question: ShowsQuestion) -> dict[str, Any]:
    found = shows(question.image, question.frame, question.fit, question.position)
    visible, drawn = found.visible, found.drawn
    return {
        "visible": [visible.x, visible.y, visible.w, visible.h],
        "drawn": [drawn.x, drawn.y, drawn.w, drawn.h],
    }


@commands.command()
def picks(
    batch: Batch = False,
    policy: Annotated[
        Policy, typer.Option(help="Which engine picks, where the question does not say.")
    ] = "least-sufficient",
) -> None:
    """Which file a browser takes from markup, and why.

    In: {"markup", "width", "height", "density", "color_scheme", "reduced_motion", "policy",
    "layout_width"}; out: {"url", "density", "trace", "warnings" where engines part}.
    """
    run(PicksQuestion, partial(answer_picks, policy=policy), batch, sys.stdin.buffer)


@commands.command(name="shows")
def shows_command(batch: Batch = False) -> None:
    """What of a picture shows in a frame.

    In: {"image": [w, h], "frame": [W, H], "fit", "position": [px, py]} with the position in
    fractions; out: {"visible": [x, y, w, h] in image px, "drawn": [x, y, w, h] in CSS px of the
    frame}.
    """
    run(ShowsQuestion, answer_shows, batch, sys.stdin.buffer)


@commands.command()
def keeps(batch: Batch = False) -> None:
    """How each keep area fares over a span: runs of whole, cut, lost and small, and the safe area.

    In: {"original", "span": {"first", "last", "heights"}, "treatment", "container"};
    out: {"areas": [{"name", "runs", "first_failing"}], "safe": [x0, x1, y0, y1] or null}.
    """
    run(KeepsQuestion, answer_keeps, batch, sys.stdin.buffer)


@commands.command(name="advise")
def advise_command(batch: Batch = False) -> None:
    """The gentlest remedy for a span whose keep areas are not all whole, with every step and its
    figures.

    In: as for `keeps`, and "others": originals that may be proposed; out: {"advice": {…} or null}.
    """
    run(KeepsQuestion, answer_advise, batch, sys.stdin.buffer)
