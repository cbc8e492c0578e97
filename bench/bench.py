"""Speed and memory, measured in one run and written to docs/performance.md: `./run bench`.

Figures of one machine mean little by themselves; ratios within a run travel.
"""

from __future__ import annotations

import json
import os
import platform
import resource
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import pyvips
from in_browser import measured
from skypane import read
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.model import (
    Area,
    FixedHeight,
    Original,
    RatioHeight,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.picks import Environment, pick
from skypane.picks.choose import read_markup
from skypane.pixels.encode import make
from skypane.shown.plan import plan

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "demo/originals/lighthouse-wide.jpg"


def timed(work: Callable[[], object], times: int) -> list[float]:
    work()
    out = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        out.append(time.perf_counter() - began)
    return out


def ms(values: list[float]) -> str:
    ordered = sorted(values)
    return (
        f"median {statistics.median(values) * 1000:.1f} ms, p95"
        f" {ordered[int(len(ordered) * 0.95) - 1] * 1000:.1f} ms"
    )


def originals(areas: int = 0) -> dict[int, Original]:
    keeps = tuple(
        Area(name=f"Area {i}", rect=Rect(x=0.1 * i, y=0.3 + 0.03 * i, w=0.08, h=0.12))
        for i in range(areas)
    )
    wide = Original(
        id=1,
        name="wide.jpg",
        width_px=5200,
        height_px=2900,
        sha256="w",
        focal=(0.74, 0.47),
        areas=keeps,
    )
    tall = Original(id=2, name="tall.jpg", width_px=2900, height_px=4300, sha256="t")
    return {1: wide, 2: tall}


FOUR = picture(
    name="Lighthouse",
    treatments={
        "D": Treatment(
            original=1, height=ViewportHeight(percent=70, least_px=480, greatest_px=900)
        ),
        "C": Treatment(height=RatioHeight(w=2, h=1)),
        "B": Treatment(height=FixedHeight(height_px=480)),
        "A": Treatment(original=2, height=RatioHeight(w=4, h=5)),
    },
)


def readings() -> list[str]:
    four = timed(lambda: read(Site(), FOUR, originals()), 60)
    six_site = Site(breakpoints=(480, 599, 800, 1023, 1599))
    six = FOUR.model_copy(
        update={
            "treatments": {
                "F": Treatment(original=1, height=ViewportHeight(percent=60)),
                "A": FOUR.treatments["A"],
            }
        }
    )
    # another focal point each time, as while it is dragged
    moved = [
        {1: o[1].model_copy(update={"focal": (0.3 + 0.005 * i, 0.47)}), 2: o[2]}
        for o in [originals(8)]
        for i in range(60)
    ]
    at = iter(moved * 2)
    eight = timed(lambda: read(six_site, six, next(at), chosen="D"), 60)
    bare = timed(loop, 20)
    return [
        (
            "- Core, one reading over all 2241 widths, 4 spans (one with frames in vh):"
            f" {ms(four)}. Target: under 20 ms."
        ),
        (
            "- Core, 6 spans, 8 keep areas of which 4 fail in 5 spans, frames in vh at three"
            f" heights, one span in detail with its advice: {ms(eight)}, least"
            f" {min(eight) * 1000:.1f} ms. Target: under 30 ms. A loop of 100 000 additions in"
            f" Python takes {min(bare) * 1000:.1f} to {max(bare) * 1000:.1f} ms here: the machine's"
            " own pace varies by as much."
        ),
    ]


def loop() -> int:
    total = 0
    for i in range(100_000):
        total += i
    return total


def export() -> list[str]:
    site = Site()
    placement = picture(
        name="Lighthouse",
        treatments={
            "D": Treatment(original=1, height=RatioHeight(w=2.4, h=1)),
            "C": Treatment(height=RatioHeight(w=2, h=1)),
            "B": Treatment(height=RatioHeight(w=3, h=2)),
            "A": Treatment(height=RatioHeight(w=4, h=5)),
        },
    )
    plans = plan(site, placement, originals())
    wanted = [r for _, mine in renditions(site, placement, plans) for r in mine]

    def ours() -> None:
        with tempfile.TemporaryDirectory() as folder:
            assert len(list(make(SOURCE, wanted, Path(folder)))) == 24

    def bare() -> None:
        """The same libvips calls with nothing around them: one decode, one resample per size, one
        save per file."""
        image = pyvips.Image.new_from_file(str(SOURCE), access="sequential").copy_memory()
        sizes = {(r.crop, r.width_px, r.height_px): [] for r in wanted}
        for r in wanted:
            sizes[r.crop, r.width_px, r.height_px].append(r)
        with tempfile.TemporaryDirectory() as folder:
            for (crop, w, h), same in sizes.items():
                part = image.crop(crop.x, crop.y, crop.w, crop.h)
                part = part.resize(w / crop.w, vscale=h / crop.h, kernel="lanczos3").copy_memory()
                for r in same:
                    target = f"{folder}/{r.key}"
                    if r.format == "avif":
                        part.heifsave(target, Q=r.quality, compression="av1", effort=3, keep="none")
                    elif r.format == "webp":
                        part.webpsave(
                            target, Q=r.quality, effort=4, smart_subsample=True, keep="none"
                        )
                    else:
                        part.jpegsave(
                            target, Q=r.quality, optimize_coding=True, interlace=True, keep="none"
                        )

    pairs = [(timed_once(ours), timed_once(bare)) for _ in range(2)]
    ratio = statistics.median(a / b for a, b in pairs)
    again = {r.key for r in wanted}
    changed = placement.model_copy(
        update={
            "treatments": {**placement.treatments, "B": Treatment(height=RatioHeight(w=4, h=3))}
        }
    )
    changed_plans = plan(site, changed, originals())
    new = [
        r
        for _, mine in renditions(site, changed, changed_plans)
        for r in mine
        if r.key not in again
    ]
    return [
        (
            "- Export of 4 spans × 2 densities × 3 formats from a 5200×2900 JPEG:"
            f" {pairs[0][0]:.1f} s, a bare loop of the same libvips calls {pairs[0][1]:.1f} s,"
            f" ratio {ratio:.2f} (median of {len(pairs)} pairs). Target: at most 1.2."
        ),
        (
            f"- A second export after the ratio of span B changed makes {len(new)} files, of spans"
            f" {sorted({s for r in new for s in r.spans})}."
        ),
        (
            "- Greatest memory of the measuring process:"
            f" {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB."
        ),
    ]


def timed_once(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def picks() -> list[str]:
    plans = plan(Site(), FOUR, originals())
    from skypane.markup.lines import text_of
    from skypane.markup.picture import picture_lines

    markup = text_of(picture_lines(Site(), FOUR, plans, renditions(Site(), FOUR, plans)))
    parsed = read_markup(markup)
    widths = range(320, 2561, 3)
    per = timed(lambda: [pick(parsed, Environment(w, 800, 2)) for w in widths], 5)
    fresh = timed(
        lambda: [(read_markup.cache_clear(), pick(markup, Environment(w, 800, 2))) for w in widths],
        5,
    )
    return [
        "- Picks from our own `picture` of 12 sources, read once:"
        f" {len(widths) / statistics.median(per):,.0f} a second; with the HTML parsed anew each"
        f" time: {len(widths) / statistics.median(fresh):,.0f} a second."
    ]


def main(address: str) -> None:
    lines = [*readings(), *picks(), *measured(address), *export()]
    text = "\n".join(
        [
            "# Performance",
            "",
            (
                f"Written by `./run bench`. One run on one machine ({platform.machine()},"
                f" {len(os.sched_getaffinity(0))} cores, Python {platform.python_version()},"
                f" libvips {pyvips.version(0)}.{pyvips.version(1)}.{pyvips.version(2)}); compare"
                " the ratios, not the seconds."
            ),
            "",
            *lines,
            "",
        ]
    )
    (ROOT / "docs/performance.md").write_text(text)
    print(json.dumps(lines, indent=1, ensure_ascii=False))


if __name__ == "__main__":
    main(sys.argv[1])
