"""Files made in several children at once, crop by crop, while one thread keeps what comes of it."""

from __future__ import annotations

import queue
import threading
from collections.abc import Iterator, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor, wait
from pathlib import Path
from typing import NamedTuple

from config.files import sha256_of
from config.pictures import guard
from config.slots import at_once, slot
from skypane.comparing import work_of
from skypane.model import Rendition
from skypane.pixels.encode import Fact


class Source(NamedTuple):
    """An original's file, and what it is called."""

    path: Path
    name: str


class Made(NamedTuple):
    rendition: Rendition
    path: Path
    sha256: str
    fact: Fact


def encoded(
    wanted: Sequence[Rendition], sources: Mapping[int, Source], folder: Path
) -> Iterator[Made]:
    """Make files, yielding each as it is done. Whoever stops asking stops the rest after the file
    in hand. Raises what making a file raises."""
    chunks: dict[tuple[object, ...], list[Rendition]] = {}
    for r in wanted:
        chunks.setdefault((r.original, r.crop), []).append(r)
    # what takes longest begins first, so that the last ones end together
    heavy_first = sorted(chunks.values(), key=lambda c: -sum(map(work_of, c)))
    done: queue.Queue[Made | BaseException | None] = queue.Queue()
    stop = threading.Event()

    def work(chunk: list[Rendition]) -> None:
        source = sources[chunk[0].original]
        try:
            with slot(stop.is_set) as held:
                if not held:
                    return
                for r, path, fact in guard().make(source.path, chunk, folder, source.name):
                    done.put(Made(r, path, sha256_of(path), fact))
                    if stop.is_set():
                        return
        except BaseException as error:
            stop.set()
            done.put(error)

    with ThreadPoolExecutor(at_once()) as pool:
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
