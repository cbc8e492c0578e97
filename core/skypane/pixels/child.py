"""The process in which pictures are opened (see `guarded`): JSON lines in, JSON lines out, one
picture at a time."""

from __future__ import annotations

import dataclasses
import gc
import json
import os
import resource
import sys
import threading
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pyvips

from skypane.errors import NoRoom, SkyPaneError
from skypane.found import found_in, hits_in
from skypane.geometry import Crop, Rect
from skypane.model import Area, Rendition
from skypane.pixels import compare, encode, inspect, previews, saliency, svg, tiny, trim, xmp
from skypane.pixels.load import lacked_memory
from skypane.pixels.priority import keep_to_usual_priority


def _inspect(path: str, name: str) -> Iterator[Any]:
    yield dataclasses.asdict(inspect.inspect(path, name))


def _previews(
    source: str, paths: list[tuple[int, str]], crop: dict[str, float] | None
) -> Iterator[Any]:
    previews.previews(
        source, {width: Path(path) for width, path in paths}, Rect(**crop) if crop else None
    )
    yield None


def _drawing(path: str, size: list[int]) -> Iterator[Any]:
    yield svg.drawing_of(path, (size[0], size[1]))


def _tiny(path: str) -> Iterator[Any]:
    yield tiny.tiny_of(path).model_dump()


def _suggest(path: str) -> Iterator[Any]:
    found = saliency.suggest(path)
    yield {"focal": found.focal, "areas": [a.model_dump() for a in found.areas]}


def _visible_box(path: str) -> Iterator[Any]:
    yield trim.visible_box(path).model_dump()


def _write_trimmed(path: str, box: dict[str, int], target: str) -> Iterator[Any]:
    trim.write_trimmed(path, Crop(**box), Path(target))
    yield None


def _make(source: str, wanted: list[dict[str, Any]], folder: str) -> Iterator[Any]:
    for rendition, path, fact in encode.make(
        source, [Rendition.model_validate(r) for r in wanted], Path(folder)
    ):
        yield {"key": rendition.key, "path": str(path), "fact": fact._asdict()}


def _make_swiftly(source: str, wanted: dict[str, Any], folder: str) -> Iterator[Any]:
    path, fact = encode.make_swiftly(source, Rendition.model_validate(wanted), Path(folder))
    yield {"path": str(path), "fact": fact._asdict()}


def _resample(source: str, crop: dict[str, int], size: list[int], target: str) -> Iterator[Any]:
    compare.write_resample(source, Crop(**crop), (size[0], size[1]), target)
    yield None


def _difference(resample: str, rendition: str, target: str) -> Iterator[Any]:
    yield compare.write_difference(resample, rendition, target)


def _regions(path: str) -> Iterator[Any]:
    found = xmp.regions_of(path)
    areas = [a.model_dump(mode="json") for a in found.areas]
    yield {"focal": found.focal, "areas": areas, "notes": found.notes}


def _packet(path: str, focal: list[float], areas: list[dict[str, Any]]) -> Iterator[Any]:
    stored = xmp.stored_in(path)
    found = [Area.model_validate(a) for a in areas]
    yield xmp.xmp_packet(
        stored.size,
        (focal[0], focal[1]),
        found,
        orientation=stored.orientation,
        before=stored.packet,
    ).decode()


def _hits(page: str, selector: str) -> Iterator[Any]:
    yield hits_in(page, selector).model_dump(mode="json")


def _found(text: str) -> Iterator[Any]:
    gc.disable()  # of what is read nothing is let go before the end
    try:
        yield found_in(text).model_dump(mode="json")
    finally:
        gc.enable()


WORK: dict[str, Callable[..., Iterator[Any]]] = {
    "inspect": _inspect,
    "previews": _previews,
    "hits": _hits,
    "drawing": _drawing,
    "tiny": _tiny,
    "suggest": _suggest,
    "visible_box": _visible_box,
    "write_trimmed": _write_trimmed,
    "make": _make,
    "make_swiftly": _make_swiftly,
    "regions": _regions,
    "packet": _packet,
    "resample": _resample,
    "difference": _difference,
    "found": _found,
}


#: How the process ends when it holds more memory than it may.
OVER_MEMORY = 77


def _allow(seconds: float) -> None:
    """So much more computing time from now on, over all cores."""
    used = resource.getrusage(resource.RUSAGE_SELF)
    resource.setrlimit(
        resource.RLIMIT_CPU,
        (int(used.ru_utime + used.ru_stime + seconds) + 1, resource.RLIM_INFINITY),
    )


class _Watch(threading.Thread):
    """Ends the process when its parent has ended, or when it holds more memory than it may.

    Memory is watched rather than only limited: what libraries say when they are refused some cannot
    be told from damage.
    """

    def __init__(self) -> None:
        super().__init__(daemon=True)
        self.most_bytes = 0  # 0: nothing is being opened
        self.parent = os.getppid()

    def run(self) -> None:
        page = os.sysconf("SC_PAGE_SIZE")
        with open("/proc/self/statm", "rb", buffering=0) as statm:
            while os.getppid() == self.parent:
                time.sleep(0.02 if self.most_bytes else 0.5)
                statm.seek(0)
                if 0 < self.most_bytes < int(statm.read(200).split()[1]) * page:
                    os._exit(OVER_MEMORY)
        os._exit(0)


def main() -> None:
    answers = os.fdopen(os.dup(1), "wb", buffering=0)
    os.dup2(2, 1)  # what libraries print goes to the log
    keep_to_usual_priority()
    watch = _Watch()
    watch.start()

    def say(answer: dict[str, Any]) -> None:
        answers.write(json.dumps(answer).encode() + b"\n")

    for line in sys.stdin.buffer:
        asked = json.loads(line)
        watch.most_bytes = asked["memory_mb"] * 1_000_000
        resource.setrlimit(resource.RLIMIT_DATA, (2 * watch.most_bytes, resource.RLIM_INFINITY))
        _allow(asked["seconds"])
        try:
            for value in WORK[asked["work"]](**asked["arguments"]):
                say({"value": value})
                _allow(asked["seconds"])
            say({"done": True})
        except SkyPaneError as error:
            kind = type(error).__name__
            say({"error": kind, "sentence": str(error), "field": error.field})
        except MemoryError:
            say({"memory": True})
        except RecursionError:
            sentence = "It is nested too deeply to be read. Simplify it, or export it anew."
            say({"error": "TooDemanding", "sentence": sentence})
        except OSError as error:
            kind, sentence = (
                ("NoRoom", NoRoom.SENTENCE)
                if NoRoom.means(error)
                else ("SkyPaneError", "The file could not be read.")
            )
            say({"error": kind, "sentence": sentence})
        except pyvips.Error as error:
            if lacked_memory(error):
                say({"memory": True})
                continue
            say(
                {
                    "error": "UnreadablePicture",
                    "sentence": "The picture is damaged inside. Export or copy it again.",
                }
            )
        watch.most_bytes = 0


if __name__ == "__main__":
    main()
