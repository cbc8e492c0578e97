"""`skypane …`: the same rules from a shell or a build.

Every command reads JSON and writes JSON. With `--batch` it reads JSON lines and writes one object per line in the same order; a
line that cannot be read answers `{"error": …}` and the rest goes on.
"""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterable
from typing import Annotated, Any, Literal, TypeVar

import typer
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from skypane.advice import advise
from skypane.errors import InvalidPlan, SkyPaneError
from skypane.fit import AnyFit, safe_area, shows
from skypane.keeps import fates, summary
from skypane.model import (
    GREATEST_VIEWPORT,
    LEAST_VIEWPORT,
    Container,
    HeightRange,
    Original,
    Placement,
    Site,
    Treatment,
)
from skypane.needs import SpanPlan, plan
from skypane.picks import Environment, pick
from skypane.picks.media import Policy
from skypane.reading import runs_of

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Rules of pictures at every viewport width.")

Batch = Annotated[bool, typer.Option("--batch", help="Read JSON lines, write one JSON object per line.")]


Q = TypeVar("Q", bound=BaseModel)


class _Question(BaseModel):
    model_config = ConfigDict(extra="forbid")


class PicksQuestion(_Question):
    markup: str
    width: float = Field(ge=0)
    height: float = Field(ge=0)
    density: float = Field(gt=0, le=1000)
    color_scheme: Literal["light", "dark"] = "light"
    reduced_motion: Literal["no-preference", "reduce"] = "no-preference"
    policy: Policy = "least-sufficient"
    layout_width: float | None = None


class ShowsQuestion(_Question):
    image: tuple[float, float]
    frame: tuple[float, float]
    fit: AnyFit = "cover"
    position: tuple[float, float] = (0.5, 0.5)


class SpanRange(_Question):
    """One span: first and last viewport width, and the least, typical and greatest viewport height in it (CSS px)."""

    first: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    last: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    heights: tuple[int, int, int] = (560, 800, 1200)


class KeepsQuestion(_Question):
    """One original's size, focal point and areas; one span; one treatment; all in the JSON of the model."""

    original: Original
    span: SpanRange
    treatment: Treatment = Treatment()
    container: Container = Container()
    others: list[Original] = []  # for `advise`: originals that may be proposed

    def site(self) -> Site:
        if self.span.last <= self.span.first:
            raise InvalidPlan("A span's last width must be above its first.", field="span")
        least, typical, greatest = self.span.heights
        row = HeightRange(to_px=GREATEST_VIEWPORT, least_px=least, typical_px=typical, greatest_px=greatest)
        return Site(narrowest=self.span.first, widest=self.span.last, breakpoints=(), heights=(row,), container=self.container)

    def plan(self) -> SpanPlan:
        treatment = self.treatment.model_copy(update={"original": self.original.id})
        placement = Placement(name="question", treatments={"A": treatment})
        return plan(self.site(), placement, {self.original.id: self.original})[0]


def answer_keeps(question: KeepsQuestion) -> dict[str, Any]:
    p = question.plan()
    assert p.shown is not None
    safe = safe_area(p.shown)
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
    return {"areas": areas, "safe": None if safe is None else [safe.x0, safe.x1, safe.y0, safe.y1]}


def answer_advise(question: KeepsQuestion) -> dict[str, Any]:
    p = question.plan()
    found = advise(question.site(), p, {o.id: o for o in (question.original, *question.others)})
    return {"advice": found.model_dump(mode="json", exclude_none=True) if found else None}


def answer_picks(question: PicksQuestion) -> dict[str, Any]:
    env = Environment(**question.model_dump(exclude={"markup"}))
    found = pick(question.markup, env)
    out: dict[str, Any] = {"url": found.url, "density": found.density, "trace": [s.model_dump() for s in found.trace]}
    if found.warnings:
        out["warnings"] = list(found.warnings)
    return out


def answer_shows(question: ShowsQuestion) -> dict[str, Any]:
    found = shows(question.image, question.frame, question.fit, question.position)
    return {"visible": list(found.visible), "drawn": list(found.drawn)}


def _sentence(error: Exception) -> str:
    if isinstance(error, ValidationError):
        return "; ".join(f"{'.'.join(str(p) for p in e['loc']) or 'line'}: {e['msg']}" for e in error.errors())
    if isinstance(error, json.JSONDecodeError):
        return f"This is not JSON: {error}"
    return str(error)


def answer(kind: type[Q], work: Callable[[Q], dict[str, Any]], text: str) -> dict[str, Any]:
    """One question as JSON text to one answer; every mistake in it becomes `{"error": …}`."""
    try:
        return work(kind.model_validate(json.loads(text)))
    except (ValidationError, SkyPaneError, ValueError, RecursionError) as error:
        return {"error": _sentence(error)}


def run(kind: type[Q], work: Callable[[Q], dict[str, Any]], batch: bool, lines: Iterable[bytes]) -> None:
    if not batch:
        out = answer(kind, work, b"".join(lines).decode("utf-8", "replace"))
        typer.echo(json.dumps(out, ensure_ascii=False, indent=2))
        raise typer.Exit(1 if "error" in out else 0)
    for line in lines:
        text = line.decode("utf-8", "replace")
        out = answer(kind, work, text) if text.strip() else {"error": "The line is empty."}
        sys.stdout.write(json.dumps(out, ensure_ascii=False) + "\n")
        sys.stdout.flush()


@app.command()
def picks(batch: Batch = False) -> None:
    """Which file a browser takes from markup, and why.

    In: {"markup", "width", "height", "density", "color_scheme", "reduced_motion", "policy", "layout_width"};
    out: {"url", "density", "trace"}.
    """
    run(PicksQuestion, answer_picks, batch, sys.stdin.buffer)


@app.command(name="shows")
def shows_command(batch: Batch = False) -> None:
    """What of a picture shows in a frame.

    In: {"image": [w, h], "frame": [W, H], "fit", "position": [px, py]} with the position in fractions;
    out: {"visible": [x, y, w, h] in image px, "drawn": [x, y, w, h] in CSS px of the frame}.
    """
    run(ShowsQuestion, answer_shows, batch, sys.stdin.buffer)


@app.command()
def keeps(batch: Batch = False) -> None:
    """How each keep area fares over a span: runs of whole, cut, lost and small, and the safe area.

    In: {"original", "span": {"first", "last", "heights"}, "treatment", "container"};
    out: {"areas": [{"name", "runs", "first_failing"}], "safe": [x0, x1, y0, y1] or null}.
    """
    run(KeepsQuestion, answer_keeps, batch, sys.stdin.buffer)


@app.command(name="advise")
def advise_command(batch: Batch = False) -> None:
    """The gentlest remedy for a span whose keep areas are not all whole, with every step and its figures.

    In: as for `keeps`, and "others": originals that may be proposed; out: {"advice": {…} or null}.
    """
    run(KeepsQuestion, answer_advise, batch, sys.stdin.buffer)
