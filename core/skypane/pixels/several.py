"""Files made in several children at once, crop by crop, while one thread keeps what comes of it."""

from __future__ import annotations

import hashlib
import queue
import threading
from collections.abc import Callable, Generator, Iterator, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor, wait
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path
from typing import NamedTuple

from skypane.model import Rendition
from skypane.pixels.encode import Fact
from skypane.pixels.guarded import Guard


class Source(NamedTuple):
    """An original's file, and what it is called."""

    path: Path
    name: str


class Made(NamedTuple):
    """One file that is there now, under `path`."""

    rendition: Rendition
    path: Path
    sha256: str
    fact: Fact


#: Waits for a turn to encode; gives False where it is no longer wanted, which it is told of by what
#: it is given.
Turn = Callable[[Callable[[], bool]], AbstractContextManager[bool]]


@contextmanager
def at_once(gives_up: Callable[[], bool]) -> Iterator[bool]:
    """No waiting."""
    yield not gives_up()


def encoded(
    guard: Guard,
    wanted: Sequence[Rendition],
    sources: Mapping[int, Source],
    folder: Path,
    *,
    workers: int,
    turn: Turn = at_once,
) -> Generator[Made]:
    """Make files with so many children at once, yielding each as it is done. `sources` by the
    number of the original. Whoever stops asking stops the rest after the file in hand. Raises what
    making a file raises."""
    chunks: dict[tuple[object, ...], list[Rendition]] = {}
    for r in wanted:
        chunks.setdefault((r.original, r.crop), []).append(r)
    # what takes longest begins first, so that the last ones end together
    heavy_first = sorted(chunks.values(), key=lambda c: -sum(r.work for r in c))
    done: queue.Queue[Made | BaseException | None] = queue.Queue()
    stop = threading.Event()

    def work(chunk: list[Rendition]) -> None:
        source = sources[chunk[0].original]
        try:
            with turn(stop.is_set) as held:
                if not held:
                    return
                for r, path, fact in guard.make(source.path, chunk, folder, source.name):
                    done.put(Made(r, path, sha256_of(path), fact))
                    if stop.is_set():
                        return
        except BaseException as error:
            stop.set()
            done.put(error)

    with ThreadPoolExecutor(workers) as pool:
        waiting = [pool.submit(work, chunk) for chunk in heavy_first]
        threading.Thread(target=_tell_end, args=(waiting, done), daemon=True).start()
        try:
            while (item := done.get()) is not None:
                if isinstance(item, BaseException):
                    raise item
                yield item
        finally:
            stop.set()
            for future in waiting:
                future.cancel()


def _tell_end(
    waiting: Sequence[Future[None]], done: queue.Queue[Made | BaseException | None]
) -> None:
    wait(waiting)
    done.put(None)


def sha256_of(path: Path) -> str:
    """The hash of a file's bytes, in hexadecimal."""
    with path.open("rb") as f:
        return hashlib.file_digest(f, "sha256").hexdigest()
