"""Speed and memory, measured in one run and written to docs/performance.md: `./run bench`.

Figures of one machine mean little by themselves; ratios within a run travel.
"""

from __future__ import annotations

import json
import os
import platform
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from itertools import count
from pathlib import Path

import pyvips
from in_browser import measured
from service import uncached
from skypane import (
    Environment,
    Placement,
    begun,
    pick,
    picture,
    plan,
    reach,
    read,
    read_markup,
    read_moving,
    renditions,
)
from skypane import model as m
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.model import (
    Area,
    FixedHeight,
    Original,
    RatioHeight,
    Rect,
    Site,
    Treatment,
    ViewportHeight,
)
from variants import variants
from whole_site import deliveries
from words import contrast

ROOT = Path(__file__).parents[1]


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


OTHERS = {
    i: Original(
        id=i,
        name=f"other-{i}.jpg",
        width_px=(6000, 4032, 3000, 2400)[i % 4],
        height_px=(4000, 3024, 2000, 3600)[i % 4],
        sha256=str(i),
        areas=(Area(name="Face", rect=Rect(x=0.4, y=0.3, w=0.2, h=0.25)),),
    )
    for i in range(10, 50)
}

FOUR = picture(
    "Lighthouse",
    {
        "D": Treatment(
            original=1, height=ViewportHeight(percent=70, least_px=480, greatest_px=900)
        ),
        "C": Treatment(height=RatioHeight(w=2, h=1)),
        "B": Treatment(height=FixedHeight(height_px=480)),
        "A": Treatment(original=2, height=RatioHeight(w=4, h=5)),
    },
)
SIX_SITE = Site(breakpoints=(480, 599, 800, 1023, 1599))
SIX = picture(
    "Lighthouse",
    {
        "F": Treatment(original=1, height=ViewportHeight(percent=60)),
        "A": Treatment(original=2, height=RatioHeight(w=4, h=5)),
    },
)


def with_focal(x: float) -> dict[int, Original]:
    held = originals(8)
    return {1: held[1].model_copy(update={"focal": (x, 0.47)}), 2: held[2]}


def with_ratio(w: float) -> Placement:
    (part,) = SIX.parts
    return picture(SIX.name, {**part.treatments, "C": Treatment(height=RatioHeight(w=w, h=1))})


def readings() -> list[str]:
    """Each time something else than before, as while it is dragged: nothing is answered from what
    has been read."""
    four_at, at = count(), count()

    def focal() -> dict[int, Original]:
        return with_focal(0.3 + 0.4 * (next(at) * 0.618 % 1))

    def ratio() -> Placement:
        return with_ratio(1.2 + next(at) * 0.618 % 1)

    def one_of_four() -> None:
        (part,) = FOUR.parts
        high = Treatment(height=RatioHeight(w=2 + 0.001 * next(four_at), h=1))
        read(
            Site(), picture(FOUR.name, {**part.treatments, "C": high}), originals(), chosen=(0, "D")
        )

    four = timed(one_of_four, 60)
    moving = timed(lambda: read_moving(SIX_SITE, SIX, focal()), 60)
    whole = timed(lambda: read(SIX_SITE, SIX, focal(), chosen=(0, "D"), others=lambda: OTHERS), 60)
    held = originals(8)
    moving_ratio = timed(lambda: read_moving(SIX_SITE, ratio(), held), 60)
    ratio_whole = timed(
        lambda: read(SIX_SITE, ratio(), held, chosen=(0, "D"), others=lambda: OTHERS), 60
    )
    bare = timed(loop, 20)
    six = "6 spans, 8 keep areas, frames in vh at three heights, 40 other originals in the site"
    return [
        f"- Core, all of a reading over all 2241 widths, 4 spans: {ms(four)}. Target: under 20 ms.",
        (
            f"- Core, {six}. The focal point is dragged: what moves {ms(moving)}, least"
            f" {min(moving) * 1000:.1f} ms, target 15 ms; all of it, one span in detail with its"
            f" advice, {ms(whole)}, least {min(whole) * 1000:.1f} ms, target 30 ms."
        ),
        (
            f"- The same where one span's ratio is dragged: what moves {ms(moving_ratio)}; all"
            f" {ms(ratio_whole)}."
        ),
        (
            f"- The machine's own pace: a loop of 100 000 additions in Python {ms(bare)}, least"
            f" {min(bare) * 1000:.1f} ms. The readings above are"
            f" {statistics.median(moving) / statistics.median(bare):.1f} (what moves) and"
            f" {statistics.median(whole) / statistics.median(bare):.1f} (all) of such loops."
        ),
    ]


def many() -> list[str]:
    """A grid of 300 items, of which one is aimed."""
    keep = m.Area(name="Face", rect=m.Rect(x=0.3, y=0.3, w=0.3, h=0.3))
    sizes = ((6000, 4000), (4032, 3024), (3024, 4032), (5472, 3648))
    of = {
        i: Original(
            id=i,
            name=f"{i}.jpg",
            width_px=sizes[i % 4][0],
            height_px=sizes[i % 4][1],
            sha256=str(i),
            alt="A view",
            areas=(keep,),
        )
        for i in range(1, 301)
    }
    parts = tuple(
        m.Part(
            treatments={"D": Treatment(original=i)},
            item=m.Item(title=f"View {i}", text="Seen from the jetty, in the morning."),
        )
        for i in of
    )
    made = begun("grid", Site(), Placement(name="Views", parts=parts))
    steps = iter(range(1, 1000))

    def aimed() -> Placement:
        aim = m.FixedAim(x=next(steps) / 1000, y=0.5)
        part = made.parts[7].model_copy(
            update={"treatments": {"D": Treatment(original=8, aim=aim)}}
        )
        return made.with_part(7, part)

    read(Site(), made, of, chosen=(7, "D"), every=False)
    all_ = timed(lambda: read(Site(), aimed(), of, chosen=(7, "D"), every=False), 15)
    moving = timed(lambda: read_moving(Site(), aimed(), of, chosen=(7, "D")), 15)
    pace = timed(loop, 20)
    return [
        f"- Core, a grid of 300 items, one of them aimed anew each time: all of the reading"
        f" {ms(all_)}; what moves {ms(moving)}. Target: under 150 ms. That is"
        f" {statistics.median(all_) / statistics.median(pace):.1f} loops."
    ]


def loop() -> int:
    total = 0
    for i in range(100_000):
        total += i
    return total


def picks() -> list[str]:
    computed = plan(Site(), FOUR, originals())
    markup = text_of(placement_lines(computed, renditions(computed)))
    parsed = read_markup(markup)
    widths = range(320, 2561, 3)
    per = timed(lambda: [pick(parsed, Environment(w, 800, 2)) for w in widths], 5)
    fresh = timed(
        lambda: [(read_markup.cache_clear(), pick(markup, Environment(w, 800, 2))) for w in widths],
        5,
    )
    media = [f"(width <= {600 + 160 * i}px)" for i in range(11)] + [None]
    reached = timed(lambda: reach(media, 320, 2560), 40)
    return [
        f"- Picks from our own `picture` of {markup.count('<source')} sources, parsed once:"
        f" {len(widths) / statistics.median(per):,.0f} a second, target 10,000; with the HTML"
        f" parsed anew each time: {len(widths) / statistics.median(fresh):,.0f} a second.",
        f"- Which of {len(media)} sources is reached at which of 2241 widths: {ms(reached)}."
        " Target: under 50 ms.",
    ]


def main(address: str) -> None:
    with tempfile.TemporaryDirectory() as folder:
        words = contrast(Path(folder), ms)
    lines = list(words)
    measures = (
        readings,
        lambda: variants(timed, ms),
        many,
        picks,
        lambda: uncached(ms),
        lambda: measured(address),
        lambda: deliveries(address),
    )
    for measure in measures:
        lines += measure()
        # what was measured is not lost with what fails after it
        print("\n".join(lines), file=sys.stderr, flush=True)
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
