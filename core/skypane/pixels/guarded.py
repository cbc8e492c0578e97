"""Pictures opened, and texts from outside read, where they can do no harm: in a child process with
limits of computing time, memory and number at once.

A file of a few hundred bytes can ask for minutes of work or gigabytes of memory (filters and nested
`use` in SVG, large flat AVIF and JPEG, references that fan out in CSS). A child that goes beyond a
limit is ended, the caller gets TooDemanding with a sentence that names the limit, and nothing else
is touched. Children are kept and used again: starting one takes longer than most pictures do.
"""

from __future__ import annotations

import atexit
import json
import os
import select
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Hashable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any, cast

from skypane.errors import InvalidPlan, NoRoom, SkyPaneError, TooDemanding, UnreadablePicture
from skypane.found import Found, Hits, NothingFound
from skypane.geometry import Crop, Rect
from skypane.model import Area, Rendition
from skypane.model.tiny import Tiny
from skypane.pixels.encode import Fact
from skypane.pixels.inspect import Inspected
from skypane.pixels.load import DRAWING_SECONDS, is_drawing
from skypane.pixels.saliency import Suggestion
from skypane.pixels.turns import Turns
from skypane.pixels.xmp import Regions
from skypane.tables import BadTable

#: A child is ended after so many pictures, so that whatever a decoder leaks does not add up.
MOST_JOBS = 200


@dataclass(frozen=True)
class Limits:
    """`seconds` of computing time over all cores for one picture (twice that by the clock),
    `drawing_seconds` for one that is drawn (SVG), `file_seconds` the same for each file that is
    encoded, `text_seconds` for a text that is read, `memory_mb` of memory, `at_once` pictures at
    the same time; who waits longer than `wait_seconds` for a turn is told so.
    """

    seconds: float = 30
    drawing_seconds: float = DRAWING_SECONDS
    file_seconds: float = 300
    text_seconds: float = 2
    memory_mb: int = 2000
    at_once: int = 2
    wait_seconds: float = 60


_KINDS: dict[str, type[SkyPaneError]] = {
    k.__name__: k
    for k in (
        *(UnreadablePicture, InvalidPlan, NoRoom, TooDemanding, SkyPaneError),
        *(NothingFound, BadTable),
    )
}


#: What to do about what asks for too much.
_OF_PICTURES = "Scale it down, or simplify it: an SVG without filters, a picture without layers."
_OF_TEXT = "Give the part of it that says widths."
_OF_PAGE = "Give the part of it that the element is in, or a simpler selector."

#: What libraries are told. The C library, so that the memory of one large file is given back before
#: the next (mallopt(3)): one heap, and blocks of 4 MB and more on their own.
_TOLD = {
    "MALLOC_ARENA_MAX": "1",
    "MALLOC_MMAP_THRESHOLD_": str(4 << 20),
    "MALLOC_TRIM_THRESHOLD_": str(16 << 20),
    # children share the machine one by one
    "OPENBLAS_NUM_THREADS": "1",
}


class _Child:
    """One process that works on one picture at a time. JSON lines go in and out."""

    def __init__(self) -> None:
        self.jobs = 0
        self.process = subprocess.Popen(
            [sys.executable, "-m", "skypane.pixels.child"],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            bufsize=0,
            env=os.environ | _TOLD,
        )
        # both are there, since both were asked for
        self._in = cast(IO[bytes], self.process.stdin)
        self._out = cast(IO[bytes], self.process.stdout)
        self._buffer = b""

    def ask(self, question: Mapping[str, Any]) -> None:
        self.jobs += 1
        self._in.write(json.dumps(question).encode() + b"\n")

    def line(self, seconds: float) -> dict[str, Any] | None:
        """The next answer; None where the child has ended. Raises TimeoutError."""
        until = time.monotonic() + seconds
        while b"\n" not in self._buffer:
            left = until - time.monotonic()
            if left <= 0 or not select.select([self._out], [], [], left)[0]:
                raise TimeoutError
            read = self._out.read(65536)
            if not read:
                return None
            self._buffer += read
        text, _, self._buffer = self._buffer.partition(b"\n")
        answer: dict[str, Any] = json.loads(text)
        return answer

    @property
    def usable(self) -> bool:
        return self.process.poll() is None and self.jobs < MOST_JOBS

    def end(self) -> int:
        self.process.kill()
        code = self.process.wait()
        for pipe in (self._in, self._out):
            pipe.close()
        return code


class Guard:
    """The functions of `pixels` that open pictures, each in a child. Safe to share between
    threads. `who` says whose picture it is that is asked about; turns go round people (see
    `turns`)."""

    def __init__(
        self, limits: Limits | None = None, who: Callable[[], Hashable] = lambda: None
    ) -> None:
        self.limits = limits or Limits()
        self._who = who
        self._turns = Turns(self.limits.at_once)
        self._idle: list[_Child] = []
        self._lock = threading.Lock()
        atexit.register(self.close)

    def close(self) -> None:
        with self._lock:
            idle, self._idle = self._idle, []
        for child in idle:
            child.end()

    # -- what is done with pictures --

    def inspect(self, path: str | Path, name: str = "") -> Inspected:
        """See `skypane.pixels.inspect.inspect`."""
        found = self._one("inspect", name or Path(path).name, path=str(path), name=name)
        return Inspected(**{**found, "notes": tuple(found["notes"])})

    def previews(
        self,
        source: str | Path,
        paths: Mapping[int, Path],
        crop: Rect | None = None,
        name: str = "The picture",
    ) -> None:
        """See `skypane.pixels.previews.previews`."""
        made = [[width, str(path)] for width, path in paths.items()]
        self._one("previews", name, source=str(source), paths=made, crop=crop and crop.model_dump())

    def drawing(self, path: str | Path, size: tuple[int, int]) -> str:
        """See `skypane.pixels.svg.drawing_of`."""
        return str(self._one("drawing", "The drawing", path=str(path), size=list(size)))

    def tiny(self, path: str | Path, name: str = "The picture") -> Tiny:
        """See `skypane.pixels.tiny.tiny_of`."""
        return Tiny(**self._one("tiny", name, path=str(path)))

    def suggest(self, path: str | Path) -> Suggestion:
        """See `skypane.pixels.saliency.suggest`."""
        found = self._one("suggest", "The picture", path=str(path))
        return Suggestion(tuple(found["focal"]), tuple(Rect(**r) for r in found["areas"]))

    def visible_box(self, path: str | Path) -> Crop:
        """See `skypane.pixels.trim.visible_box`."""
        return Crop(**self._one("visible_box", "The picture", path=str(path)))

    def write_trimmed(self, path: str | Path, box: Crop, target: Path) -> None:
        """See `skypane.pixels.trim.write_trimmed`."""
        self._one(
            "write_trimmed", "The picture", path=str(path), box=box.model_dump(), target=str(target)
        )

    def make(
        self,
        source: str | Path,
        wanted: Sequence[Rendition],
        folder: Path,
        name: str = "The original",
    ) -> Iterator[tuple[Rendition, Path, Fact]]:
        """See `skypane.pixels.encode.make`."""
        by_key = {r.key: r for r in wanted}
        asked = {
            "source": str(source),
            "wanted": [r.model_dump(mode="json") for r in wanted],
            "folder": str(folder),
        }
        for made in self._all("make", name, self.limits.file_seconds, asked):
            yield by_key[made["key"]], Path(made["path"]), Fact(**made["fact"])

    def make_swiftly(
        self, source: str | Path, wanted: Rendition, folder: Path, name: str = "The original"
    ) -> tuple[Path, Fact]:
        """See `skypane.pixels.encode.make_swiftly`."""
        asked = {"wanted": wanted.model_dump(mode="json"), "folder": str(folder)}
        found = self._one("make_swiftly", name, source=str(source), **asked)
        return Path(found["path"]), Fact(**found["fact"])

    def regions(self, path: str | Path, name: str) -> Regions:
        """See `skypane.pixels.xmp.regions_of`."""
        found = self._one("regions", name, path=str(path))
        areas = tuple(Area.model_validate(a) for a in found["areas"])
        focal = tuple(found["focal"]) if found["focal"] else None
        return Regions(focal, areas, tuple(found["notes"]))

    def packet(
        self, path: str | Path, focal: tuple[float, float], areas: Sequence[Area], name: str
    ) -> bytes:
        """See `skypane.pixels.xmp.xmp_packet`."""
        told = [a.model_dump(mode="json") for a in areas]
        found = self._one("packet", name, path=str(path), focal=list(focal), areas=told)
        return str(found).encode()

    def resample(
        self, source: str | Path, crop: Crop, size: tuple[int, int], target: Path, name: str
    ) -> None:
        """See `skypane.pixels.compare.write_resample`."""
        asked = {"crop": crop.model_dump(), "size": list(size), "target": str(target)}
        self._one("resample", name, source=str(source), **asked)

    def difference(self, resample: Path, rendition: str | Path, target: Path, name: str) -> float:
        """See `skypane.pixels.compare.write_difference`."""
        asked = {"resample": str(resample), "rendition": str(rendition), "target": str(target)}
        return float(self._one("difference", name, **asked))

    def found(self, text: str) -> Found:
        """See `skypane.found.found_in`."""
        asked = {"text": text}
        *_, value = self._all("found", "This text", self.limits.text_seconds, asked, _OF_TEXT)
        return Found.model_validate(value)

    def hits(self, page: str, selector: str) -> Hits:
        """See `skypane.found.hits.hits_in`."""
        asked = {"page": page, "selector": selector}
        *_, value = self._all("hits", "This page", self.limits.text_seconds, asked, _OF_PAGE)
        return Hits.model_validate(value)

    # -- how --

    def _one(self, work: str, called: str, **arguments: Any) -> Any:
        opened = arguments.get("path") or arguments.get("source")
        seconds = self.limits.seconds
        if opened and is_drawing(opened):
            seconds = min(seconds, self.limits.drawing_seconds)
        *_, value = self._all(work, called, seconds, arguments)
        return value

    def _all(
        self,
        work: str,
        called: str,
        seconds: float,
        arguments: Mapping[str, Any],
        remedy: str = _OF_PICTURES,
    ) -> Iterator[Any]:
        question = {
            "work": work,
            "seconds": seconds,
            "memory_mb": self.limits.memory_mb,
            "arguments": arguments,
        }
        with self._turns.turn(self._who(), self.limits.wait_seconds), self._borrowed() as child:
            try:
                child.ask(question)
                while True:
                    answer = child.line(2 * seconds)
                    if answer is None:
                        raise self._too_much(called, seconds, child.end(), remedy)
                    if "value" in answer:
                        yield answer["value"]
                    elif "error" in answer:
                        kind = _KINDS.get(answer["error"], SkyPaneError)
                        raise kind(answer["sentence"], field=answer.get("field"))
                    elif answer.get("memory"):
                        raise self._memory(called, remedy)
                    else:
                        return
            except TimeoutError:
                child.end()
                raise self._time(called, seconds, remedy) from None
            except BrokenPipeError:
                raise self._too_much(called, seconds, child.end(), remedy) from None

    @contextmanager
    def _borrowed(self) -> Iterator[_Child]:
        child = self._child()
        try:
            yield child
        except SkyPaneError:
            self._back(child)
            raise
        except BaseException:
            child.end()
            raise
        self._back(child)

    def _child(self) -> _Child:
        with self._lock:
            child = self._idle.pop() if self._idle else None
        if child is not None and child.usable:
            return child
        if child is not None:
            child.end()
        return _Child()

    def _back(self, child: _Child) -> None:
        if child.usable:
            with self._lock:
                self._idle.append(child)
        elif child.process.poll() is None:
            child.end()

    def _too_much(self, called: str, seconds: float, code: int, remedy: str) -> TooDemanding:
        if code == -signal.SIGXCPU:
            return self._time(called, seconds, remedy)
        return self._memory(called, remedy)

    def _time(self, called: str, seconds: float, remedy: str) -> TooDemanding:
        return TooDemanding(
            f"{called} takes more than {seconds:g} s of computing, the limit here. {remedy}"
        )

    def _memory(self, called: str, remedy: str) -> TooDemanding:
        remedy = "Scale it down." if remedy is _OF_PICTURES else remedy
        return TooDemanding(
            f"{called} needs more than {self.limits.memory_mb} MB of memory to open, the limit"
            f" here. {remedy}"
        )
