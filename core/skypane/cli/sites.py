"""`plan`, `export` and `check`: a site in a build."""

from __future__ import annotations

import json
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from skypane.errors import SkyPaneError

if TYPE_CHECKING:
    from skypane.build import Step

commands = typer.Typer()

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
        return
    except SkyPaneError as error:
        said = str(error)
    except ImportError as error:
        missing = f": {error.name} is missing" if error.name else ""
        said = (
            f"Pictures cannot be opened here{missing}. Install the package with its extra:"
            " skypane[pixels]."
        )
    except OSError as error:
        said = f"{error.filename or 'A file'} cannot be used: {error.strerror or error}."
    except typer.Exit:
        raise
    except Exception as error:
        said = f"This could not be built: {type(error).__name__}, {error}."
    if as_json:
        sys.stdout.write(json.dumps({"error": said}, ensure_ascii=False) + "\n")
    else:
        typer.echo(said, err=True)
    raise typer.Exit(1)


@commands.command(name="plan")
def plan_command(
    site: SiteArgument, originals: OriginalsArgument, out: OutArgument, as_json: Json = False
) -> None:
    """What `export` would make, keep and remove, and why. Ends with 3 where it would do
    anything."""
    with _sentences(as_json):
        from skypane import build

        steps = build.planned_steps(build.read_build(site, originals, out))
        for step in steps:
            _told(step, as_json=as_json)
    raise typer.Exit(DIFFERS if any(s.what != "keep" for s in steps) else 0)


@commands.command(name="export")
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
    with _sentences(as_json):
        from skypane import build

        steps = build.export(
            build.read_build(site, originals, out),
            workers=workers,
            told=partial(_told, as_json=as_json),
        )
    if not as_json:
        typer.echo(f"{len(steps)} changed." if steps else "Nothing changed.")
    raise typer.Exit(DIFFERS if steps and status else 0)


@commands.command(name="check")
def check_command(
    site: SiteArgument, originals: OriginalsArgument, out: OutArgument, as_json: Json = False
) -> None:
    """Hold a folder against the plan: missing, foreign, stale, of another size. Ends with 3 where
    anything is wrong. Nothing is written."""
    with _sentences(as_json):
        from skypane import build

        steps = build.check(build.read_build(site, originals, out))
        for step in steps:
            _told(step, as_json=as_json)
    if not as_json and not steps:
        typer.echo("All is as planned.")
    raise typer.Exit(DIFFERS if steps else 0)
