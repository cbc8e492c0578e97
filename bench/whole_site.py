"""The delivery of the whole demo site: against the same encodes with nothing around them, against
the usual way, and what readings feel of it."""

from __future__ import annotations

import json
import os
import statistics
import tempfile
import threading
import time
import urllib.request
from collections import defaultdict
from collections.abc import Callable, Iterable
from concurrent.futures import ProcessPoolExecutor
from http.cookiejar import CookieJar
from multiprocessing import get_context
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np
import pyvips
from PIL import Image
from skypane import build
from skypane.build import Build, read_build
from skypane.geometry import Crop
from skypane.model import Rendition
from skypane.pixels import encode
from skypane.pixels.cut import cut, open_upright
from skypane.pixels.likeness import Likeness
from skypane.pixels.priority import keep_to_usual_priority

ROOT = Path(__file__).parents[1]
#: Originals of the placements that are measured; the whole demo.
PROCESSES = 2


class Tried(NamedTuple):
    """A file as our run made it."""

    rendition: Rendition
    source: Path
    quality: int
    encodes: int
    samples: int
    ssim: float
    sharp: bool
    size_bytes: int


def timed_once(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


class Memory(threading.Thread):
    """The greatest memory of this process and all below it, in bytes, looked at all the time."""

    def __init__(self) -> None:
        super().__init__(daemon=True)
        self.most, self.going = 0, True

    def run(self) -> None:
        page = os.sysconf("SC_PAGE_SIZE")
        while self.going:
            parents = {}
            sizes = {}
            for entry in Path("/proc").iterdir():
                if not entry.name.isdigit():
                    continue
                try:
                    stat = (entry / "stat").read_text().rpartition(")")[2].split()
                    sizes[int(entry.name)] = int((entry / "statm").read_text().split()[1]) * page
                    parents[int(entry.name)] = int(stat[1])
                except (OSError, IndexError):
                    continue
            mine, more = set(), {os.getpid()}
            while more:
                mine |= more
                more = {p for p, parent in parents.items() if parent in mine} - mine
            self.most = max(self.most, sum(sizes.get(p, 0) for p in mine))
            time.sleep(0.5)  # looking costs time too


# -- the same encodes with nothing around them -------------------------------------------------


def _bare_chunk(chunk: list[Tried]) -> int:
    """One original: decoded once, each px size resampled once, each file encoded, and decoded to
    be compared, as often as the search did; samples of it too."""
    keep_to_usual_priority()
    pyvips.cache_set_max(0)
    image = open_upright(chunk[0].source)
    by_px = defaultdict(list)
    for t in chunk:
        by_px[t.rendition.crop, t.rendition.width_px, t.rendition.height_px].append(t)
    written = 0
    for (crop, w, h), same in by_px.items():
        cutting = encode.Cutting(cut(image, crop, (w, h)))
        cutting._sharp = same[0].sharp
        for t in same:
            # without loss: it is made once, and nothing is searched
            if t.rendition.format == "png":
                written += len(cutting.encode("png", 1.0, "thorough").data)
                continue
            codec = cutting.codec(t.rendition.format, "thorough")
            for picture, times in (
                (cutting.sample or codec.image, t.samples),
                (codec.image, t.encodes),
            ):
                for _ in range(times):
                    data = codec.make(getattr(picture, "picture", picture), t.quality)
                    codec.read(data)
                    written += len(data)
    return written


def bare(tried: Iterable[Tried]) -> None:
    chunks = defaultdict(list)
    for t in tried:
        chunks[t.source, t.rendition.crop].append(t)
    heavy = sorted(chunks.values(), key=lambda c: -sum(t.rendition.work for t in c))
    # fresh processes: a fork of one that has used libvips has none of its threads
    with ProcessPoolExecutor(PROCESSES, get_context("spawn")) as pool:
        list(pool.map(_bare_chunk, heavy))


# -- the usual way -----------------------------------------------------------------------------


def usual_one(t: Tried, quality: int | None, target: Path) -> None:
    """A file as a common script makes it: opened, cropped, resized and saved by Pillow."""
    r = t.rendition
    with Image.open(t.source) as image:
        box = (r.crop.x, r.crop.y, r.crop.x + r.crop.w, r.crop.y + r.crop.h)
        mode = "RGBA" if image.has_transparency_data else "RGB"
        small = image.convert(mode).crop(box).resize((r.width_px, r.height_px), Image.LANCZOS)
    match r.format:
        case "jpeg":
            small.save(target, "JPEG", quality=quality, optimize=True, progressive=True)
        case "webp":
            small.save(target, "WEBP", quality=quality, method=4)
        case "png":  # without loss: there is no quality to ask for
            small.save(target, "PNG", optimize=True)
        case _:
            small.save(target, "AVIF", quality=quality)


def _usual_many(some: list[tuple[Tried, int | None, Path]]) -> None:
    keep_to_usual_priority()
    for one in some:
        usual_one(*one)


def usual(works: list[tuple[Tried, int | None, Path]]) -> None:
    """On as many processes as ours, the heaviest first."""
    heavy = sorted(works, key=lambda w: -w[0].rendition.work)
    with ProcessPoolExecutor(PROCESSES, get_context("spawn")) as pool:
        list(pool.map(_usual_many, [[w] for w in heavy]))


def _loaded(path: Path) -> pyvips.Image:
    return pyvips.Image.new_from_file(str(path)).copy_memory()


def equal_quality(tried: list[Tried], folder: Path) -> tuple[int, float]:
    """Pillow's quality for one format at which the mean SSIM of some files is that of ours."""
    some = sorted(tried, key=lambda t: t.rendition.work)[:: max(1, len(tried) // 6)][:6]
    held = [Likeness(cut(open_upright(t.source), *_cut_of(t.rendition))) for t in some]
    wanted = statistics.mean(t.ssim for t in some)

    def mean(quality: int) -> float:
        found = []
        for n, (t, likeness) in enumerate(zip(some, held, strict=True)):
            path = folder / f"calibrate-{n}.{t.rendition.format}"
            usual_one(t, quality, path)
            found.append(likeness.to(_loaded(path)))
        return statistics.mean(found)

    low, high = 20, 98
    while low < high:
        middle = (low + high) // 2
        if mean(middle) >= wanted:
            high = middle
        else:
            low = middle + 1
    return low, mean(low)


# -- all of it ---------------------------------------------------------------------------------


class Client:
    """A signed-in designer."""

    def __init__(self, address: str) -> None:
        self.address, self.jar = address, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(f"{address}/").read()
        self.call("POST", "/api/session/demo", {})

    def call(self, method: str, path: str, body: object = None) -> Any:
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "")
        request = urllib.request.Request(
            self.address + path,
            json.dumps(body).encode() if body is not None else None,
            {"Content-Type": "application/json", "X-CSRFToken": token or ""},
            method=method,
        )
        raw = self.opener.open(request).read()
        return json.loads(raw) if raw[:1] in b"[{" else raw.decode()


def _cut_of(r: Rendition) -> tuple[Crop, tuple[int, int]]:
    return r.crop, (r.width_px, r.height_px)


def tried_by(run: Build) -> list[Tried]:
    """Our files with the qualities and encodes that they took; drawings are handed over as they
    are, and nothing is encoded."""
    out = []
    sharp: dict[object, bool] = {}
    for r in {r.key: r for r in run.blueprint.files if r.format != "svg"}.values():
        fact, source = run.folder.facts[r.key], run.sources[r.original].path
        px = source, r.crop, r.width_px, r.height_px
        if px not in sharp:
            sharp[px] = encode.Cutting(cut(open_upright(source), *_cut_of(r))).sharp
        out.append(
            Tried(r, source, fact.quality, *TRIES[r.key], fact.ssim, sharp[px], fact.size_bytes)
        )
    return out


TRIES: dict[str, tuple[int, int]] = {}


def deliveries(address: str) -> list[str]:
    client = Client(address)
    site = client.call("GET", "/api/sites")[0]["id"]
    with tempfile.TemporaryDirectory() as folder_:
        folder = Path(folder_)
        (folder / "site.json").write_text(
            json.dumps(client.call("GET", f"/api/sites/{site}/site.json"))
        )
        sources = ROOT / "demo/originals"

        def ours(out: str) -> Build:
            run = read_build(folder / "site.json", sources, folder / out)
            real = build.encoded

            def noted(*args: Any, **kw: Any) -> Any:
                for one in real(*args, **kw):
                    TRIES[one.rendition.key] = one.fact.encodes, one.fact.samples
                    yield one

            build.encoded = noted
            try:
                build.export(run, workers=PROCESSES)
            finally:
                build.encoded = real
            return run

        memory = Memory()
        memory.start()
        first = timed_once(lambda: ours("a"))
        memory.going = False
        run = read_build(folder / "site.json", sources, folder / "a")
        tried = tried_by(run)
        bare_seconds = timed_once(lambda: bare(tried))
        ratios = [first / bare_seconds]
        for out in "bc":
            ratios.append(timed_once(lambda o=out: ours(o)) / timed_once(lambda: bare(tried)))
        nothing = timed_once(lambda: ours("a"))
        mean_samples = statistics.mean(t.samples for t in tried if t.quality)
        mean_encodes = statistics.mean(t.encodes for t in tried if t.quality)
        qualities, likeness = {}, []
        for f in ("avif", "webp", "jpeg"):
            qualities[f], ssim = equal_quality(
                [t for t in tried if t.rendition.format == f], folder
            )
            likeness.append(ssim)

        works = [
            (t, qualities.get(t.rendition.format), folder / f"usual-{n}.{t.rendition.format}")
            for n, t in enumerate(tried)
        ]
        usual_seconds = timed_once(lambda: usual(works))
        usual_bytes = {
            f: sum(path.stat().st_size for t, _, path in works if t.rendition.format == f)
            for f in qualities
        }
        our_bytes = {
            f: sum(t.size_bytes for t in tried if t.rendition.format == f) for f in qualities
        }
    count = len(tried)
    return [
        (
            f"- The whole demo site, {count} files of {len(run.sources)} originals on {PROCESSES}"
            f" processes: {first:.1f} s. The same encodes and decodes with nothing around them,"
            f" on as many processes: {bare_seconds:.1f} s, ratio {statistics.median(ratios):.2f}"
            f" (median of {len(ratios)}). Target: at most 1.15."
        ),
        (
            f"- The usual way (Pillow on {PROCESSES} processes, each file cropped and resized from"
            f" the original; AVIF {qualities['avif']}, WebP {qualities['webp']}, JPEG"
            f" {qualities['jpeg']} for an equal mean SSIM, {np.mean(likeness):.4f}):"
            f" {usual_seconds:.1f} s, {usual_seconds / first:.2f} times as long."
            " Target: at least 2."
        ),
        (
            "- Bytes against the usual way at that SSIM: "
            + ", ".join(f"{f.upper()} {our_bytes[f] / usual_bytes[f]:.2f}" for f in qualities)
            + " times as many. Target: at most 1."
        ),
        (
            f"- The search for a quality takes {mean_encodes:.2f} encodes a file, and"
            f" {mean_samples:.2f} of a sample of 0.2 megapixels. Target: at most 1.2 encodes."
        ),
        f"- Nothing changed: {nothing:.2f} s. Target: under 2 s.",
        f"- Greatest memory of all processes together: {memory.most / 1e6:.0f} MB. Target: 1500.",
        *_meanwhile(client, site),
    ]


def _meanwhile(client: Client, site: int) -> list[str]:
    """Readings while a delivery of the whole site runs in the product itself."""
    placement = client.call("GET", f"/api/sites/{site}/placements")[0]["id"]
    body = client.call("GET", f"/api/placements/{placement}")["placement"]
    plan = client.call("GET", f"/api/sites/{site}")
    client.call(
        "PUT",
        f"/api/sites/{site}",
        {
            "name": plan["name"],
            "revision": plan["revision"],
            # another likeness than ever before, so that all files are made
            "plan": {**plan["plan"], "likeness": 0.951 + time.time() % 100_000 / 1e8},
        },
    )
    run = client.call("POST", f"/api/sites/{site}/deliveries", {})
    times: list[float] = []
    while len(times) < 300:
        asked = {"placement": body, "placement_id": placement}
        times.append(
            timed_once(lambda a=asked: client.call("POST", f"/api/sites/{site}/readings", a))
        )
        if len(times) % 25 == 0:
            state = client.call("GET", f"/api/deliveries/{run['id']}")["state"]
            if state not in ("queued", "running"):
                break
        time.sleep(0.05)
    client.call("POST", f"/api/deliveries/{run['id']}/stop", {})
    p95 = sorted(times)[int(len(times) * 0.95) - 1]
    return [
        (
            f"- A reading while a delivery runs: median {statistics.median(times) * 1000:.0f} ms,"
            f" p95 {p95 * 1000:.0f} ms ({len(times)} readings). Target: p95 under 150 ms."
        )
    ]
