"""One question in JSON and its answer, or as many as there are lines."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterator
from typing import Annotated, Any, BinaryIO, TypeVar

import typer
from pydantic import BaseModel, ConfigDict, ValidationError

from skypane.errors import SkyPaneError, say
from skypane.numerals import whole

Batch = Annotated[
    bool, typer.Option("--batch", help="Read JSON lines, write one JSON object per line.")
]

Q = TypeVar("Q", bound=BaseModel)

#: A line longer than this is answered with an error: nobody writes one, and it is read whole.
MOST_LINE_BYTES = 4_000_000


class Question(BaseModel):
    model_config = ConfigDict(extra="forbid")


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
    except (ArithmeticError, ValueError, LookupError, RecursionError, MemoryError):
        return {
            "error": (
                "These numbers or texts are beyond what can be worked with. Give values that a page"
                " could have."
            )
        }
    except Exception as error:  # a line never takes the others with it
        return {"error": f"This could not be worked out: {type(error).__name__}."}


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
