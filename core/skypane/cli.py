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

from skypane.errors import SkyPaneError
from skypane.fit import AnyFit, shows
from skypane.picks import Environment, pick
from skypane.picks.media import Policy

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
