"""`skypane …`: the same rules from a shell or a build.

`plan`, `export` and `check` make a site from its file. Every other command reads JSON and writes
JSON. With `--batch` it reads JSON lines and writes one object per line in the same order; a line
that cannot be read answers `{"error": …}` and the rest goes on.
"""

from __future__ import annotations

import json
import sys
from bisect import bisect_left
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, BinaryIO, Literal, TypeVar

import typer
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from skypane.advice.walk import advise
from skypane.errors import InvalidPlan, SkyPaneError, say
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
    HeightRange,
    MediaStyle,
    Original,
    Site,
    Treatment,
    Viewers,
    WidthRule,
    picture,
)
from skypane.numerals import whole, whole_px
from skypane.picks import Environment, pick
from skypane.picks.engines import Policy
from skypane.picks.sizes import evaluate_sizes
from skypane.shown.fit import AnyFit, safe_edges, shows
from skypane.shown.keeps import fates, summary
from skypane.shown.plan import ShownSpan, SpanPlan, plan
from skypane.widths.frames import Piece, width_pieces
from skypane.widths.runs import runs_of
from skypane.widths.sums import width_sum

if TYPE_CHECKING:
    from skypane.build import Step

app = typer.Typer(
    no_args_is_help=True, add_completion=False, help="Rules of pictures at every viewport width."
)

Batch = Annotated[
    bool, typer.Option("--batch", help="Read JSON lines, write one JSON object per line.")
]


Q = TypeVar("Q", bound=BaseModel)

#: A line longer than this is answered with an error: nobody writes one, and it is read whole.
MOST_LINE_BYTES = 4_000_000

ScreenHeight = Annotated[int, Field(ge=200, le=6000)]
Number = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Length = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


class _Question(BaseModel):
    model_config = ConfigDict(extra="forbid")


class PicksQuestion(_Question):
    markup: str
    width: Length
    height: Length
    density: float = Field(gt=0, le=1000)
    color_scheme: Literal["light", "dark"] = "light"
    reduced_motion: Literal["no-preference", "reduce"] = "no-preference"
    policy: Policy | None = None  # that of the command line, else the standard's
    layout_width: Length | None = None


class ShowsQuestion(_Question):
    image: tuple[Number, Number]
    frame: tuple[Number, Number]
    fit: AnyFit = "cover"
    position: tuple[Number, Number] = (0.5, 0.5)


class SpanRange(_Question):
    """One span: first and last viewport width, and the least, typical and greatest viewport height
    in it (CSS px)."""

    first: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    last: int = Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)
    heights: tuple[ScreenHeight, ScreenHeight, ScreenHeight] = (560, 800, 1200)


class KeepsQuestion(_Question):
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
    # what narrower spans take for their own has always been called `also` here
    advice["steps"] = [
        {"also" if k == "narrower" else k: v for k, v in step.items()} for step in advice["steps"]
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
        "trace": [s.model_dump() for s in found.trace],
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


class FrameOfSpan(_Question):
    """The frame of one span up to the viewport width `last`, which the widest span does not say.
    `share`: how wide the file is drawn, over the frame's width; more than 1 where the sides of the
    picture are out of view."""

    last: int | None = Field(None, ge=1, le=100_000)
    width: WidthRule
    share: float = Field(1, gt=0, le=1000)


class SizesQuestion(_Question):
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
    rules = [question.spans[bisect_left(ends, width)].width for width in question.at]
    return {
        "sizes": text,
        "widths": [evaluate_sizes(text, Environment(v, 800)).width for v in question.at],
        "sums": [
            width_sum(rule, question.container, v)
            for rule, v in zip(rules, question.at, strict=True)
        ],
    }


class FormatGrowth(_Question):
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


class WeighedNeed(_Question):
    """Visitors of one weight who need a file of so many px."""

    px: int = Field(ge=1, le=1_000_000)
    weight: float = Field(1, ge=0, le=1e9)


class LadderQuestion(_Question):
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


def answer(kind: type[Q], work: Callable[[Q], dict[str, Any]], text: str) -> dict[str, Any]:
    """One question as JSON text to one answer; every mistake in it becomes `{"error": …}`, so that
    a batch always goes on."""
    if not text.strip():
        return {"error": "The line is empty."}
    try:
        asked = json.loads(text, parse_int=whole)
    except json.JSONDecodeError as error:
        return {"error": f"This is not JSON: {error.msg}, at character {error.pos + 1}."}
    except RecursionError:
        return {"error": "This is nested too deeply to be a question."}
    try:
        out = work(kind.model_validate(asked))
        json.dumps(out, ensure_ascii=False, allow_nan=False)
        return out
    except ValidationError as error:
        return {
            "error": "; ".join(
                f"{'.'.join(str(p) for p in e['loc']) or 'line'}: {say(e)}" for e in error.errors()
            )
        }
    except SkyPaneError as error:
        return {"error": str(error)}
    except (ArithmeticError, ValueError, RecursionError):
        return {
            "error": (
                "These numbers or texts are beyond what can be worked with. Give values that a page"
                " could have."
            )
        }


def run(kind: type[Q], work: Callable[[Q], dict[str, Any]], batch: bool, source: BinaryIO) -> None:
    if not batch:
        text = source.read(MOST_LINE_BYTES + 1)
        out = (
            _too_long()
            if len(text) > MOST_LINE_BYTES
            else answer(kind, work, text.decode("utf-8", "replace"))
        )
        typer.echo(json.dumps(out, ensure_ascii=True, indent=2))
        raise typer.Exit(1 if "error" in out else 0)
    for line in _lines(source):
        out = _too_long() if line is None else answer(kind, work, line.decode("utf-8", "replace"))
        sys.stdout.write(_text(out) + "\n")
        sys.stdout.flush()


def _too_long() -> dict[str, Any]:
    return {"error": f"The line is longer than {MOST_LINE_BYTES // 1_000_000} MB."}


def _text(out: dict[str, Any]) -> str:
    """As JSON on one line; what UTF-8 cannot hold, half of a surrogate pair, stays escaped."""
    text = json.dumps(out, ensure_ascii=False)
    try:
        text.encode()
    except UnicodeEncodeError:
        return json.dumps(out)
    return text


def _lines(source: BinaryIO) -> Iterator[bytes | None]:
    """The lines, None for one that is too long; never more than one line is held."""
    while line := source.readline(MOST_LINE_BYTES + 1):
        if len(line) <= MOST_LINE_BYTES or line.endswith(b"\n"):
            yield line
            continue
        while (rest := source.readline(MOST_LINE_BYTES)) and not rest.endswith(b"\n"):
            pass
        yield None


@app.command()
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


@app.command(name="shows")
def shows_command(batch: Batch = False) -> None:
    """What of a picture shows in a frame.

    In: {"image": [w, h], "frame": [W, H], "fit", "position": [px, py]} with the position in
    fractions; out: {"visible": [x, y, w, h] in image px, "drawn": [x, y, w, h] in CSS px of the
    frame}.
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
    """The gentlest remedy for a span whose keep areas are not all whole, with every step and its
    figures.

    In: as for `keeps`, and "others": originals that may be proposed; out: {"advice": {…} or null}.
    """
    run(KeepsQuestion, answer_advise, batch, sys.stdin.buffer)


@app.command()
def sizes(batch: Batch = False) -> None:
    """The `sizes` attribute of a frame, and its width at any viewport.

    In: {"spans": [{"last", "width", "share"}], "container", "style", "at": [viewport widths]};
    out: {"sizes", "widths" in CSS px, "sums"}.
    """
    run(SizesQuestion, answer_sizes, batch, sys.stdin.buffer)


@app.command()
def ladder(batch: Batch = False) -> None:
    """The best widths for at most n files, what they weigh on average, and what they waste.

    In: {"crop" in px, "needs": [{"px", "weight"}] or "audience" and "sizes", "top", "bytes":
    [{"c", "e", "share"} or {"made": [[px, bytes]], "share"}], "n"}; out: {"widths", "expected",
    "waste", "needs", "curve"}.
    """
    run(LadderQuestion, answer_ladder, batch, sys.stdin.buffer)


# -- a site in a build ------------------------------------------------------------------------

SiteArgument = Annotated[Path, typer.Argument(help="The site's file, site.json.")]
OriginalsArgument = Annotated[Path, typer.Argument(help="The folder with its originals.")]
OutArgument = Annotated[Path, typer.Argument(help="The folder that is built into.")]
Json = Annotated[bool, typer.Option("--json", help="Write one JSON object per line.")]

#: How `plan`, `export --status` and `check` end where something differs; 1 is for failures.
DIFFERS = 3


def _told(step: Step, done: int = 0, total: int = 0, *, as_json: bool) -> None:
    """One step on a line, or as a line that is written over on a terminal."""
    if as_json:
        said = {k: v for k, v in step._asdict().items() if v not in (None, "")}
        said |= {"done": done, "total": total} if total else {}
        sys.stdout.write(json.dumps(said, ensure_ascii=False) + "\n")
        sys.stdout.flush()
        return
    size = f", {step.size_bytes / 1000:.0f} kB" if step.size_bytes else ""
    count = f"[{done}/{total}] " if total else ""
    why = f" ({step.why})" if step.why else ""
    typer.echo(f"{count}{step.what:7} {step.name}{size}{why}")


@contextmanager
def _sentences(as_json: bool) -> Iterator[None]:
    """What goes wrong as a sentence, and status 1."""
    try:
        yield
    except SkyPaneError as error:
        if as_json:
            sys.stdout.write(json.dumps({"error": str(error)}, ensure_ascii=False) + "\n")
        else:
            typer.echo(str(error), err=True)
        raise typer.Exit(1) from None


@app.command(name="plan")
def plan_command(
    site: SiteArgument, originals: OriginalsArgument, out: OutArgument, as_json: Json = False
) -> None:
    """What `export` would make, keep and remove, and why. Ends with 3 where it would do
    anything."""
    from skypane import build

    with _sentences(as_json):
        steps = build.planned_steps(build.read_build(site, originals, out))
        for step in steps:
            _told(step, as_json=as_json)
    raise typer.Exit(DIFFERS if any(s.what != "keep" for s in steps) else 0)


@app.command(name="export")
def export_command(
    site: SiteArgument,
    originals: OriginalsArgument,
    out: OutArgument,
    as_json: Json = False,
    status: Annotated[
        bool, typer.Option("--status", help="End with 3 where something was changed.")
    ] = False,
    workers: Annotated[
        int | None, typer.Option(min=1, max=64, help="Files at once; else as many as cores.")
    ] = None,
) -> None:
    """Build a site: the same names and bytes as the application delivers. Only what changed is
    made. Ends with 0, or with 1 where it fails."""
    from skypane import build

    with _sentences(as_json):
        steps = build.export(
            build.read_build(site, originals, out),
            workers=workers,
            told=partial(_told, as_json=as_json),
        )
    if not as_json:
        typer.echo(f"{len(steps)} changed." if steps else "Nothing changed.")
    raise typer.Exit(DIFFERS if steps and status else 0)


@app.command(name="check")
def check_command(
    site: SiteArgument, originals: OriginalsArgument, out: OutArgument, as_json: Json = False
) -> None:
    """Hold a folder against the plan: missing, foreign, stale, of another size. Ends with 3 where
    anything is wrong. Nothing is written."""
    from skypane import build

    with _sentences(as_json):
        steps = build.check(build.read_build(site, originals, out))
        for step in steps:
            _told(step, as_json=as_json)
    if not as_json and not steps:
        typer.echo("All is as planned.")
    raise typer.Exit(DIFFERS if steps else 0)
